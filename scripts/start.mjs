/** `npm start`: sets up, builds if needed, serves the app with its demo data and prints the address. */
import './node.mjs';
import { spawn } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { build } from './build/build.mjs';
import { bundled } from './build/server.mjs';
import { tellPlainly } from './setup.mjs';

let server;
try {
  await build();
  server = await bundled('main');
} catch (error) {
  tellPlainly(error);
}
await import(server);
// What nobody waits for: by another process, and behind all that the machine has to do for its user.
spawn(process.execPath, [fileURLToPath(new URL('build/squeezeRest.mjs', import.meta.url))], {
  stdio: 'ignore',
}).unref();
