/** Compiles the pixel kernel from AssemblyScript, where it is not newer than its source. */
import { existsSync, mkdirSync, readdirSync, renameSync, statSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const folder = fileURLToPath(new URL('.', import.meta.url));
const target = `${folder}build/kernel.wasm`;

/** @returns the path of the compiled kernel. @throws {Error} with the compiler's words when it does not compile */
export async function compileKernel() {
  const sources = readdirSync(`${folder}assembly`).map((name) => `assembly/${name}`);
  const newest = Math.max(...sources.map((s) => statSync(folder + s).mtimeMs));
  if (existsSync(target) && statSync(target).mtimeMs > newest) return target;
  const { default: asc } = await import('assemblyscript/asc');
  const { error, stderr } = await asc.main(
    [
      ...['assembly/kernel.ts', '--baseDir', folder, '--outFile', 'build/kernel.wasm'],
      ...['--optimizeLevel', '3', '--enable', 'simd', '--runtime', 'stub', '--use', 'abort='],
    ],
    {
      writeFile: (name, data) => {
        mkdirSync(`${folder}build`, { recursive: true });
        // Whole at once: somebody may be reading the one before.
        const made = `${folder}${name}.${process.pid}`;
        writeFileSync(made, data);
        renameSync(made, folder + name);
      },
    },
  );
  if (error) throw new Error(`The pixel kernel does not compile.\n${stderr.toString()}`);
  return target;
}

/** Jest asks for it before the first test. */
export default compileKernel;
