/**
 * Makes all that is served: the page and its code, icons, fonts, engines, the templates with their stills and media, and
 * the demo's reels.
 */
import { cpSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { basename } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build as bundle } from 'esbuild';
import { root } from '../setup.mjs';
import { bundleStudio } from './bundle.mjs';
import { FOR_NODE } from './esbuild.mjs';
import { writeIcons } from './icons.mjs';

const require = createRequire(import.meta.url);
const STUDIO = `${root}apps/studio`;

/**
 * A font without one of its tables. The colour font carries its pictures twice; browsers and the Node canvas use the
 * layered ones (COLR), so the SVG copy, four fifths of the file, stays behind. Format: OpenType 1.9, table directory.
 */
function withoutTable(font, tag) {
  const count = font.readUInt16BE(4);
  const tables = Array.from({ length: count }, (_, i) => {
    const at = 12 + i * 16;
    return {
      tag: font.toString('latin1', at, at + 4),
      sum: font.readUInt32BE(at + 4),
      offset: font.readUInt32BE(at + 8),
      length: font.readUInt32BE(at + 12),
    };
  }).filter((t) => t.tag !== tag);
  const power = 2 ** Math.floor(Math.log2(tables.length));
  const head = Buffer.alloc(12 + tables.length * 16);
  font.copy(head, 0, 0, 4);
  head.writeUInt16BE(tables.length, 4);
  head.writeUInt16BE(power * 16, 6);
  head.writeUInt16BE(Math.log2(power), 8);
  head.writeUInt16BE(tables.length * 16 - power * 16, 10);
  const parts = [head];
  let offset = head.length;
  tables.forEach((t, i) => {
    const at = 12 + i * 16;
    head.write(t.tag, at, 'latin1');
    head.writeUInt32BE(t.sum, at + 4);
    head.writeUInt32BE(offset, at + 8);
    head.writeUInt32BE(t.length, at + 12);
    const padded = Math.ceil(t.length / 4) * 4;
    const body = Buffer.alloc(padded);
    font.copy(body, 0, t.offset, t.offset + t.length);
    parts.push(body);
    offset += padded;
  });
  return Buffer.concat(parts);
}

/** What this process asks of the packages, which are TypeScript: bundled, it runs in a moment. */
async function fromPackages(source, beside) {
  const made = `${beside}/${basename(source, '.ts')}.mjs`;
  await bundle({ ...FOR_NODE, entryPoints: [`${root}scripts/build/${source}`], outfile: made });
  return import(pathToFileURL(made).href);
}

async function writeFonts(site, beside) {
  const { FONTS, unpackFont } = await fromPackages('fonts.ts', beside);
  mkdirSync(`${site}/fonts`);
  for (const font of FONTS) {
    const bytes = Buffer.from(await unpackFont(readFileSync(require.resolve(font.source))));
    const emoji = font.standsInFor?.includes('Emoji');
    writeFileSync(`${site}/fonts/${font.file}`, emoji ? withoutTable(bytes, 'SVG ') : bytes);
  }
}

/** The engines beside the code: letters, pixels, and the player of sounds, which its thread loads by itself. */
async function writeEngines(site) {
  cpSync(require.resolve('harfbuzzjs/hb.wasm'), `${site}/engine/hb.wasm`);
  cpSync(`${root}packages/pixels/kernel.wasm`, `${site}/engine/pixels.wasm`);
  await bundle({
    entryPoints: [`${STUDIO}/src/sound/player.worklet.ts`],
    outfile: `${site}/engine/sound-player.js`,
    ...{ bundle: true, minify: true, format: 'iife' },
  });
}

/** The stills and the media of the templates. */
function copyTemplateFiles(site) {
  const templates = `${root}packages/templates/src`;
  for (const { name } of readdirSync(templates, { withFileTypes: true }).filter((e) => e.isDirectory()))
    cpSync(`${templates}/${name}`, `${site}/templates/${name}`, {
      recursive: true,
      filter: (path) => !path.endsWith('.json'),
    });
}

/** The page, with the scripts that it begins with. */
function writePage(site, { name, first }) {
  const page = readFileSync(`${STUDIO}/src/offline/page.html`, 'utf8');
  const links = first.map((file) => `<link rel="modulepreload" href="/app/${name}/${file}" />`);
  const scripts = [...links, `<script type="module" src="/app/${name}/page.js"></script>`];
  writeFileSync(`${site}/index.html`, page.replace('<!-- scripts -->', scripts.join('\n    ')));
}

/**
 * Makes the whole site in a folder that is not there yet.
 * @param {string} site that folder
 * @param {string} beside one for what is only needed while it is made
 */
export async function makeSite(site, beside) {
  mkdirSync(`${site}/icons`, { recursive: true });
  await writeFonts(site, beside);
  await writeEngines(site);
  copyTemplateFiles(site);
  const listed = `${beside}/listed.js`;
  const { writeDocuments } = await fromPackages('documents.ts', beside);
  writeDocuments(site, listed);
  writeIcons(`${site}/icons`);
  cpSync(`${STUDIO}/src/offline/manifest.json`, `${site}/manifest.webmanifest`);
  writePage(site, await bundleStudio(`${site}/app`, listed));
}
