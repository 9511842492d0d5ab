/**
 * `npm run kernel`: compiles the pixel kernel from AssemblyScript. It is kept beside its source, with the hash of what it
 * was compiled from, since compiling takes longer than everything else a first start does; a test holds the two together.
 */
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const folder = fileURLToPath(new URL('.', import.meta.url));

/** The hash of the kernel's sources. */
export function sourcesHash() {
  const hash = createHash('sha256');
  for (const name of readdirSync(`${folder}assembly`).sort())
    hash.update(name).update(readFileSync(`${folder}assembly/${name}`));
  return hash.digest('hex');
}

async function compile() {
  const { default: asc } = await import('assemblyscript/asc');
  const { error, stderr } = await asc.main(
    [
      ...['assembly/kernel.ts', '--baseDir', folder, '--outFile', 'kernel.wasm'],
      ...['--optimizeLevel', '3', '--enable', 'simd', '--runtime', 'stub', '--use', 'abort='],
    ],
    { writeFile: (name, data) => writeFileSync(folder + name, data) },
  );
  if (error) throw new Error(`The pixel kernel does not compile.\n${stderr.toString()}`);
  writeFileSync(`${folder}kernel.json`, `${JSON.stringify({ sources: sourcesHash() }, null, 2)}\n`);
}

if (process.argv[1] === fileURLToPath(import.meta.url)) await compile();
