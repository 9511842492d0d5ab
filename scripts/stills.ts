import { mkdir } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { FRAMES } from '@fresh-reel/core';
import { NodeStudio, pngOf } from '@fresh-reel/node-host';
import { TEMPLATES } from '@fresh-reel/templates';
import { SHIPPED_PATHS } from '@fresh-reel/templates/assets';
import sharp from 'sharp';
import { stillOf } from './sheets/sheet';

/** Pixels of width that a card of the contact sheet has at the most, on a screen of two pixels to one. */
const CARD = 640;
/** Height of the room for a picture on a card, by its width: what is not so wide takes all of the height. */
const ROOM = 3 / 4;

/** Paints the still of every built-in template, as it comes, into `<folder>/<template>/still.webp`. */
export async function writeStills(folder: URL): Promise<void> {
  const studio = await NodeStudio.start(SHIPPED_PATHS);
  for (const template of TEMPLATES) {
    const { width, height } = FRAMES[template.shape];
    const picture = await stillOf(studio, template, CARD * Math.min(1, (ROOM * width) / height));
    const path = new URL(`${template.id}/`, folder);
    await mkdir(path, { recursive: true });
    await sharp(await pngOf(picture))
      .webp({ quality: 88 })
      .toFile(fileURLToPath(new URL('still.webp', path)));
  }
  studio.close();
}
