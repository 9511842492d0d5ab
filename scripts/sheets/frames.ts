/**
 * Lays frames of a template out on one sheet, to judge its design and motion:
 * npm run frames -- <template id> [--shape wide|tall|square] [--times 0,20,40] [--fill fill.json] [--columns 4] --out sheet.png
 */
import { readFile } from 'node:fs/promises';
import { parseArgs } from 'node:util';
import { EMPTY_FILL, FRAMES, fillSchema, type Surface } from '@fresh-reel/core';
import { NodeStudio } from '@fresh-reel/node-host';
import { templateById } from '@fresh-reel/templates';
import { SHIPPED_PATHS } from '@fresh-reel/templates/assets';
import { pictureOf, sizeAt, writeSheet } from './sheet';

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    shape: { type: 'string', default: 'wide' },
    times: { type: 'string' },
    fill: { type: 'string' },
    columns: { type: 'string', default: '4' },
    out: { type: 'string' },
  },
});
const shape = values.shape as keyof typeof FRAMES;
if (!positionals[0] || !values.out || !(shape in FRAMES))
  throw new Error('Name a template and --out, and a shape of wide, tall or square.');
const fill = values.fill ? fillSchema.parse(JSON.parse(await readFile(values.fill, 'utf8'))) : EMPTY_FILL;
const studio = await NodeStudio.start(SHIPPED_PATHS);
const scene = await studio.scene(templateById(positionals[0]), fill, FRAMES[shape]);
const times = values.times
  ? values.times.split(',').map(Number)
  : Array.from({ length: 12 }, (_, i) => Math.round((i * scene.length) / 12));
const columns = Number(values.columns);
const rows: Surface[][] = [];
for (const [i, time] of times.entries()) {
  if (i % columns === 0) rows.push([]);
  rows.at(-1)!.push(await pictureOf(studio, scene, time, sizeAt(1600 / columns, FRAMES[shape])));
  for (const notice of scene.evaluate(time).notices) console.log(time, JSON.stringify(notice));
}
studio.close();
await writeSheet(rows, values.out);
console.log(`${times.length} frames of ${scene.length} at ${shape}: ${values.out}`);
