/**
 * `npm run stills`: paints the still of every built-in template, or of those that are named, as it comes, and lays it
 * beside its document. They are kept with the templates, so that a build paints nothing and needs no program that
 * decodes clips; a test of the templates holds each against what the engine paints.
 */
import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { FRAMES } from '@fresh-reel/core';
import { NodeStudio, pngOf } from '@fresh-reel/node-host';
import { allTemplates } from '@fresh-reel/templates';
import { SHIPPED_PATHS } from '@fresh-reel/templates/assets';
import sharp from 'sharp';
import { stillOf } from './sheet';

/** Pixels of width that a card of the contact sheet has at the most, on a screen of two pixels to one. */
const CARD = 640;
/** Height of the room for a picture on a card, by its width: what is not so wide takes all of the height. */
const ROOM = 3 / 4;
const FOLDER = new URL('../../packages/templates/src/', import.meta.url);

/** The hash of the document that each still was painted of. */
const PAINTED_OF = new URL('stills.json', FOLDER);
const paintedOf = JSON.parse(readFileSync(PAINTED_OF, 'utf8')) as Record<string, string>;

const named = process.argv.slice(2);
const studio = await NodeStudio.start(SHIPPED_PATHS);
for (const template of allTemplates()) {
  if (named.length > 0 && !named.includes(template.id)) continue;
  const { width, height } = FRAMES[template.shape];
  const picture = await stillOf(studio, template, CARD * Math.min(1, (ROOM * width) / height));
  await sharp(await pngOf(picture))
    .webp({ quality: 82 })
    .toFile(fileURLToPath(new URL(`${template.id}/still.webp`, FOLDER)));
  const document = readFileSync(new URL(`${template.id}/template.json`, FOLDER));
  paintedOf[template.id] = createHash('sha256').update(document).digest('hex');
}
writeFileSync(PAINTED_OF, `${JSON.stringify(paintedOf, null, 2)}\n`);
studio.close();
