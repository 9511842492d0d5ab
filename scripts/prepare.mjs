/** Copies what the studio serves besides its own code: fonts, the text engine, the templates' assets and stills. */
import { cp, mkdir, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { fileURLToPath } from 'node:url';
import { build as bundle } from 'esbuild';
import { register } from 'tsx/esm/api';
import { compileKernel } from '../packages/pixels/compile.mjs';

register();
const require = createRequire(import.meta.url);
const root = new URL('../', import.meta.url);
const target = new URL('apps/studio/public/', root);

/**
 * A font without one of its tables. The colour font carries its pictures twice; browsers and the Node canvas use the
 * layered ones (COLR), so the SVG copy, four fifths of the file, stays behind. Format: OpenType 1.9, table directory.
 */
export function withoutTable(font, tag) {
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

/**
 * The built-in templates as the app loads them: checked now, so that nothing is checked when it starts, and as one text,
 * which is read much faster than code.
 */
async function writeBuiltTemplates() {
  const { TEMPLATES } = await import(new URL('packages/templates/src/index.ts', root).href);
  const folder = new URL('packages/templates/built/', root);
  await mkdir(folder, { recursive: true });
  await writeFile(
    new URL('index.js', folder),
    `import { catalogOf } from '../src/catalog';
export { SHIPPED } from '../src/files';
export const { TEMPLATES, templateById, assetOf } = catalogOf(JSON.parse(${JSON.stringify(JSON.stringify(TEMPLATES))}));
`,
  );
}

export async function preparePublic() {
  const { FONTS } = await import(new URL('packages/fonts/src/catalog.ts', root).href);
  for (const folder of ['fonts', 'engine', 'templates']) {
    await rm(new URL(folder, target), { recursive: true, force: true });
    await mkdir(new URL(folder, target), { recursive: true });
  }
  const { unpackFont } = await import(new URL('packages/fonts/src/unpack.ts', root).href);
  for (const font of FONTS) {
    const bytes = Buffer.from(await unpackFont(await readFile(require.resolve(font.source))));
    await writeFile(
      new URL(`fonts/${font.file}`, target),
      font.standsInFor?.includes('Emoji') ? withoutTable(bytes, 'SVG ') : bytes,
    );
  }
  await cp(require.resolve('harfbuzzjs/hb.wasm'), new URL('engine/hb.wasm', target));
  await cp(await compileKernel(), new URL('engine/pixels.wasm', target));
  // The thread of the sound loads its player by itself, so it is bundled apart from the app.
  await bundle({
    entryPoints: [fileURLToPath(new URL('apps/studio/src/sound/player.worklet.ts', root))],
    outfile: fileURLToPath(new URL('engine/sound-player.js', target)),
    bundle: true,
    minify: true,
    format: 'iife',
  });
  await writeBuiltTemplates();
  const templates = new URL('packages/templates/src/', root);
  for (const entry of await readdir(templates, { withFileTypes: true })) {
    if (!entry.isDirectory()) continue;
    await mkdir(new URL(`templates/${entry.name}`, target), { recursive: true });
    for (const file of await readdir(new URL(`${entry.name}/`, templates))) {
      if (!file.endsWith('.json'))
        await cp(
          new URL(`${entry.name}/${file}`, templates),
          new URL(`templates/${entry.name}/${file}`, target),
        );
    }
  }
  const { writeStills } = await import('./stills.ts');
  await writeStills(new URL('templates/', target));
}

if (process.argv[1] === fileURLToPath(import.meta.url)) await preparePublic();
