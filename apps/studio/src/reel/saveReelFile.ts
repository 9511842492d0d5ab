import {
  CONTENTS_FILE,
  fileStem,
  REEL_ENDING,
  REEL_FILE,
  type Reel,
  type ReelContents,
  ReelScene,
} from '@fresh-reel/core';
import { DOCUMENT_ONLY } from '../engine/documentOnly';
import { ownFontFiles } from '../fonts/useFamilies';
import { outFile } from '../media/outFile';
import { saveFile } from '../media/pickFile';
import { zipWriter } from '../media/zip';
import { mediaId, readWhole, streamMedia } from '../storage/media';

/**
 * Gives the user the reel as one file, with all files of theirs that it holds (those of hidden slots too) and fonts,
 * that opens here and on the command line. Files go in piece by piece, however large they are.
 * @returns names of files that are not here whole, and so could not go along
 */
export async function saveReelFile(reel: Reel): Promise<string[]> {
  const scene = new ReelScene(reel, DOCUMENT_ONLY);
  const own = scene.held().filter((id) => id.startsWith('sha256:'));
  const fonts = await ownFontFiles(new Set(scene.fonts().faces.map((f) => f.family)));
  const name = fileStem(reel.name) + REEL_ENDING;
  const out = await outFile(name);
  const zip = zipWriter((bytes) => out.write(bytes));
  const { embedded: _, ...document } = reel;
  const json = (data: unknown) => new Blob([JSON.stringify(data, null, 1)], { type: 'application/json' });
  await zip.add(REEL_FILE, json(document));
  const media: ReelContents['media'] = [];
  const left: string[] = [];
  for (const id of own) {
    const record = await readWhole(id.slice(7));
    if (!record) {
      left.push(id);
      continue;
    }
    const path = `media/${record.hash}`;
    await zip.addStream(path, streamMedia(record));
    media.push({ id: mediaId(record), path, name: record.name, type: record.type });
  }
  const contents: ReelContents = {
    format: 'freshreel/contents',
    version: 1,
    media,
    fonts: fonts.map(({ family, weight }, i) => ({ family, weight, path: `fonts/${i + 1}.ttf` })),
  };
  for (const [i, { bytes }] of fonts.entries())
    await zip.add(`fonts/${i + 1}.ttf`, new Blob([bytes as BlobPart]));
  await zip.add(CONTENTS_FILE, json(contents));
  await zip.end();
  saveFile(await out.finish(), name);
  return left;
}
