/** Makes the demo's pictures and logos from code, with fixed seeds: `npm run demo-media`. */
import { mkdir, writeFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { writeAssets } from './assets';
import { CLIPS, writeClip } from './clips';
import { bakeryLogo, festivalBadge, festivalLogo, radioLogo, ropeLogo } from './logos';
import { marbling } from './marbling';
import { PHOTOS, photo } from './photos';
import { SOUNDS, writeSound } from './sounds';
import { writeWays } from './ways';

const root = new URL('../../', import.meta.url);
const templates = new URL('packages/templates/src/', root);
const shared = new URL('shared/', templates);
const demo = new URL('demo/', root);

async function logoPng(svg: string, width: number): Promise<Buffer> {
  const image = await loadImage(Buffer.from(svg));
  const height = Math.round((width * image.height) / image.width);
  const canvas = createCanvas(width, height);
  canvas.getContext('2d').drawImage(image, 0, 0, width, height);
  return canvas.encode('png');
}

await mkdir(demo, { recursive: true });
await mkdir(shared, { recursive: true });
for (const name of SOUNDS) await writeSound(name, fileURLToPath(new URL(`${name}.ogg`, shared)));
for (const name of PHOTOS) await writeFile(new URL(`${name}.jpg`, shared), await photo(name));
await writeFile(new URL('marbling.jpg', shared), await marbling());
for (const name of Object.keys(CLIPS) as (keyof typeof CLIPS)[]) {
  const file = (ending: string) => fileURLToPath(new URL(`${name}${ending}`, shared));
  await writeClip(name, file('.mp4'), file('.thumb.webp'));
}
const logos = {
  'festival-logo': festivalLogo,
  'festival-badge': festivalBadge,
  'bakery-logo': bakeryLogo,
  'rope-logo': ropeLogo,
  'radio-logo': radioLogo,
};
for (const [name, svg] of Object.entries(logos)) {
  await writeFile(new URL(`${name}.svg`, shared), svg);
  await writeFile(new URL(`${name}.png`, demo), await logoPng(svg, 900));
}
await writeAssets(templates);
await writeWays(shared, new URL('apps/studio/src/demo/ways.json', root));
console.log('Demo media made.');
