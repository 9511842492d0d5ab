import { fileStem, fontNeeds, type Reel, ReelScene } from '@fresh-reel/core';
import { DOCUMENT_ONLY } from '../engine/documentOnly';
import { ownFontFiles } from '../fonts/useFamilies';
import { saveFile } from '../media/pickFile';
import { mediaId, readMedia, readMediaRecord } from '../storage/media';

/** Bytes of media that go into a reel file: it is one JSON text, and browsers keep no text of more than half a gigabyte. */
const MOST = 256 * 1024 * 1024;

/**
 * Gives the user the reel as one file, with their pictures, clips, sounds and fonts in it, that opens here and on the
 * command line.
 * @returns names of files that are too large to go along: to be kept beside it, and shown to it where it is opened
 */
export async function saveReelFile(reel: Reel): Promise<string[]> {
  const embedded: NonNullable<Reel['embedded']> = {};
  const scene = new ReelScene(reel, DOCUMENT_ONLY);
  const own = [...new Set([...scene.media(), ...scene.sounds()])].filter((id) => id.startsWith('sha256:'));
  const records = await Promise.all(own.map((id) => readMediaRecord(id.slice(7))));
  let room = MOST;
  const left: string[] = [];
  // The smallest first, so that as many as can be are in it.
  for (const record of records.flatMap((r) => r ?? []).sort((x, y) => x.size - y.size)) {
    room -= record.size;
    const held = room < 0 ? null : await readMedia(record.hash);
    if (held) {
      const { name, type } = record;
      embedded[mediaId(record)] = { name, type, base64: await base64(held.blob) };
    } else if (room < 0) left.push(record.name);
  }
  const faces = reel.tracks.flatMap((t) => t.graphics.flatMap((g) => fontNeeds(g.template, g.fill).faces));
  for (const font of await ownFontFiles(new Set(faces.map((f) => f.family)))) {
    const blob = new Blob([font.bytes as BlobPart]);
    embedded[`font:${font.family}/${font.weight}`] = {
      name: `${font.family}.ttf`,
      type: 'font/ttf',
      base64: await base64(blob),
    };
  }
  const file = new Blob([JSON.stringify({ ...reel, embedded }, null, 1)], { type: 'application/json' });
  saveFile(file, `${fileStem(reel.name)}.reel.json`);
  return left;
}

function base64(blob: Blob): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result).replace(/^[^,]*,/, ''));
    reader.onerror = () => reject(reader.error);
    reader.readAsDataURL(blob);
  });
}
