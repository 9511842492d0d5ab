/** What lets the app be installed and open without a network: its icons, its manifest, and its service worker. */
import { createHash } from 'node:crypto';
import { mkdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { createCanvas } from '@napi-rs/canvas';
import { build } from 'esbuild';
import { root } from './setup.mjs';

/** Bytes above which a file is kept when it was used, and not before: fonts of thousands of letters. */
const LARGE = 4_500_000;

/** Writes the service worker of what was built. @param files their paths */
export async function writeServiceWorker(folder, files) {
  const paths = files.filter((path) => !/\.(br|map)$/.test(path) && !path.endsWith('/metadata.json'));
  const kept = paths.map((path) => ({
    url: path.slice(folder.length),
    size: statSync(path).size,
    hash: createHash('sha256').update(readFileSync(path)).digest('hex').slice(0, 16),
  }));
  const isLarge = ({ size, url }) => size > LARGE && url.startsWith('/fonts/');
  const hashed = (url) => url.startsWith('/_expo/');
  await build({
    entryPoints: [`${root}apps/studio/src/offline/service.worker.ts`],
    outfile: `${folder}/sw.js`,
    bundle: true,
    minify: true,
    format: 'iife',
    define: {
      'process.env.NODE_ENV': '"production"',
      FILES: JSON.stringify(
        kept
          .filter((f) => !isLarge(f))
          .map(({ url, hash }) => ({ url, revision: hashed(url) ? null : hash })),
      ),
      LARGE: JSON.stringify(Object.fromEntries(kept.filter(isLarge).map(({ url, hash }) => [url, hash]))),
    },
  });
}

/** Lays the manifest and its icons beside the app, and names it in the page. */
export function writeManifest(folder) {
  mkdirSync(`${folder}/icons`, { recursive: true });
  writeFileSync(`${folder}/icons/kite-192.png`, icon(192, false));
  writeFileSync(`${folder}/icons/kite-512.png`, icon(512, false));
  writeFileSync(`${folder}/icons/kite-whole-512.png`, icon(512, true));
  const manifest = readFileSync(`${root}apps/studio/src/offline/manifest.json`, 'utf8');
  writeFileSync(`${folder}/manifest.webmanifest`, manifest);
  const page = readFileSync(`${folder}/index.html`, 'utf8');
  const links = `<link rel="manifest" href="/manifest.webmanifest" /><link rel="apple-touch-icon" href="/icons/kite-192.png" /><meta name="theme-color" content="${JSON.parse(manifest).theme_color}" />`;
  writeFileSync(`${folder}/index.html`, page.replace('</head>', `${links}</head>`));
}

/**
 * The kite. @param whole whether its ground fills the square, for systems that cut a shape of their own out of it: what
 * is drawn then stays in the middle four fifths (W3C Web App Manifest, maskable icons)
 */
function icon(size, whole) {
  const canvas = createCanvas(size, size);
  const c = canvas.getContext('2d');
  c.scale(size / 64, size / 64);
  c.fillStyle = '#1F5C43';
  if (whole) c.fillRect(0, 0, 64, 64);
  else {
    c.beginPath();
    c.arc(32, 32, 32, 0, Math.PI * 2);
    c.fill();
  }
  c.translate(32, 32);
  if (whole) c.scale(0.8, 0.8);
  const quarter = (colour, x, y, cross) => {
    c.fillStyle = colour;
    c.beginPath();
    c.moveTo(0, y);
    c.lineTo(x, cross);
    c.lineTo(0, cross);
    c.fill();
  };
  quarter('#F28C38', -14, -24, -6);
  quarter('#F6A552', 14, -24, -6);
  quarter('#D9592B', -14, 14, -6);
  quarter('#E8703A', 14, 14, -6);
  c.strokeStyle = '#F6D9A8';
  c.lineWidth = 1.4;
  c.beginPath();
  c.moveTo(0, 14);
  c.quadraticCurveTo(5, 18, 1, 22);
  c.quadraticCurveTo(-2, 25, 2, 28);
  c.stroke();
  for (const [x, y] of [
    [2.5, 18.5],
    [0.5, 24],
  ]) {
    c.fillStyle = '#F28C38';
    c.beginPath();
    c.moveTo(x - 3, y - 2);
    c.lineTo(x + 3, y + 2);
    c.lineTo(x + 3, y - 2);
    c.lineTo(x - 3, y + 2);
    c.fill();
  }
  return canvas.toBuffer('image/png');
}
