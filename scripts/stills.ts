import { mkdir } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { EMPTY_FILL, FRAMES } from '@fresh-reel/core';
import { NodeStudio, pngOf } from '@fresh-reel/node-host';
import { TEMPLATES } from '@fresh-reel/templates';
import { SHIPPED_PATHS } from '@fresh-reel/templates/assets';
import sharp from 'sharp';
import { pictureOf, sizeAt } from './sheets/sheet';

/** Pixels of width that a card of the contact sheet has at the most, on a screen of two pixels to one. */
const CARD = 640;
/** How much of a card's width a picture takes in each shape: as high as the card is, or as wide. */
const PART = { wide: 1, square: 3 / 4, tall: 27 / 64 };

/** Paints the still of every built-in template, as it comes, into `<folder>/<template>/still.webp`. */
export async function writeStills(folder: URL): Promise<void> {
  const studio = await NodeStudio.start(SHIPPED_PATHS);
  for (const template of TEMPLATES) {
    const frame = FRAMES[template.shape];
    const scene = await studio.scene(template, EMPTY_FILL, frame);
    const time = scene.timeOf(template.still);
    const picture = await pictureOf(studio, scene, time, sizeAt(CARD * PART[template.shape], frame));
    const path = new URL(`${template.id}/`, folder);
    await mkdir(path, { recursive: true });
    await sharp(await pngOf(picture))
      .webp({ quality: 88 })
      .toFile(fileURLToPath(new URL('still.webp', path)));
  }
  studio.close();
}
