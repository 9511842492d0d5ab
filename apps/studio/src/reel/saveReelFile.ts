import { fileStem, fontNeeds, type Reel, ReelScene } from '@fresh-reel/core';
import { DOCUMENT_ONLY } from '../engine/documentOnly';
import { ownFontFiles } from '../fonts/useFamilies';
import { saveFile } from '../media/pickFile';
import { readMedia } from '../storage/media';

/** Gives the user the reel as one file, with their pictures and fonts in it, that opens here and on the command line. */
export async function saveReelFile(reel: Reel): Promise<void> {
  const embedded: NonNullable<Reel['embedded']> = {};
  for (const id of new ReelScene(reel, DOCUMENT_ONLY).media()) {
    if (!id.startsWith('sha256:')) continue;
    const held = await readMedia(id.slice(7));
    if (held)
      embedded[id] = { name: held.record.name, type: held.record.type, base64: await base64(held.blob) };
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
}

function base64(blob: Blob): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result).replace(/^[^,]*,/, ''));
    reader.onerror = () => reject(reader.error);
    reader.readAsDataURL(blob);
  });
}
