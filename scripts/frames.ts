/**
 * Lays frames of a template out on one sheet, to judge its design and motion:
 * npm run frames -- <template id> [--shape wide|tall|square] [--times 0,20,40] [--fill fill.json] [--columns 4] --out sheet.png
 */
import { readFile, writeFile } from 'node:fs/promises';
import { parseArgs } from 'node:util';
import { EMPTY_FILL, FRAMES, fillSchema, layoutFrame } from '@fresh-reel/core';
import { createNodeSurface, NodeStudio, pngOf } from '@fresh-reel/node-host';
import { templateById } from '@fresh-reel/templates';
import { SHIPPED_PATHS } from '@fresh-reel/templates/assets';

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
const size = FRAMES[shape];
const scene = await studio.scene(templateById(positionals[0]), fill, size);
const times = values.times
  ? values.times.split(',').map(Number)
  : Array.from({ length: 12 }, (_, i) => Math.round((i * scene.length) / 12));
const columns = Number(values.columns);
const k = 1600 / columns / size.width;
const cell = { width: Math.round(size.width * k), height: Math.round(size.height * k) };
const sheet = createNodeSurface(
  columns * (cell.width + 8),
  Math.ceil(times.length / columns) * (cell.height + 8),
);
sheet.context.fillStyle = '#8A9299';
sheet.context.fillRect(0, 0, sheet.canvas.width, sheet.canvas.height);
for (const [i, time] of times.entries()) {
  const frame = scene.evaluate(time);
  await studio.framesReady([frame.ops]);
  const painted = studio.paint(frame, layoutFrame(size), cell);
  sheet.context.drawImage(
    painted.canvas,
    (i % columns) * (cell.width + 8),
    Math.floor(i / columns) * (cell.height + 8),
  );
  for (const notice of frame.notices) console.log(time, JSON.stringify(notice));
}
studio.close();
await writeFile(values.out, await pngOf(sheet));
console.log(`${times.length} frames of ${scene.length} at ${shape}: ${values.out}`);
