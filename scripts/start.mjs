/** `npm start`: sets up, builds if needed, serves the app with its demo data and prints the address. */
import { build } from './build.mjs';
import { bundled } from './server.mjs';

await build();
await import(await bundled('main'));
