/**
 * Lays the whole collection out, to see which of two could be swapped unnoticed:
 * npm run collection -- --out stills.png            all stills, 160 pixels wide, eight in a row
 * npm run collection -- --each sheets/ [ids…]       a sheet a template: twelve frames in each shape, and what lies over
 *                                                   footage over a bright sky, a dark crowd and busy grass
 */
import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { EMPTY_FILL, FRAMES, type FrameShape, type Surface, type Template } from '@fresh-reel/core';
import { NodeStudio } from '@fresh-reel/node-host';
import { allTemplates, templateById } from '@fresh-reel/templates';
import { SHIPPED_PATHS } from '@fresh-reel/templates/assets';
import { grounds } from './grounds';
import { pictureOf, sizeAt, stillOf, writeSheet } from './sheet';

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { out: { type: 'string' }, each: { type: 'string' } },
});
if (!values.out && !values.each) throw new Error('Say where to: --out stills.png or --each folder.');
const studio = await NodeStudio.start(SHIPPED_PATHS);
const shapes = Object.keys(FRAMES) as FrameShape[];

async function stills(out: string): Promise<void> {
  const rows: Surface[][] = [];
  for (const [i, template] of allTemplates().entries()) {
    if (i % 8 === 0) rows.push([]);
    rows.at(-1)!.push(await stillOf(studio, template, template.shape === 'tall' ? 60 : 160));
  }
  await writeSheet(rows, out, grounds[0]!);
}

async function each(template: Template, folder: string): Promise<void> {
  const rows: Surface[][] = [];
  for (const shape of shapes) {
    const scene = await studio.scene(template, EMPTY_FILL, FRAMES[shape]);
    const size = sizeAt(shape === 'tall' ? 110 : shape === 'square' ? 150 : 260, FRAMES[shape]);
    const times = Array.from({ length: 12 }, (_, i) => Math.round((i * scene.length) / 12));
    const row: Surface[] = [];
    for (const time of times) row.push(await pictureOf(studio, scene, time, size));
    if (shape === 'wide') rows.push(row.slice(0, 6), row.slice(6));
    else rows.push(row);
  }
  const still = await stillOf(studio, template, 520, 'wide');
  const over = template.transparent === false ? [] : [grounds.map(() => still)];
  await writeSheet([...rows, ...over], join(folder, `${template.id}.png`), (context, row, column) =>
    grounds[row === rows.length ? column : 0]!(context),
  );
}

if (values.out) await stills(values.out);
if (values.each) {
  await mkdir(values.each, { recursive: true });
  const chosen = positionals.length > 0 ? positionals.map(templateById) : allTemplates();
  for (const template of chosen) await each(template, values.each);
}
studio.close();
