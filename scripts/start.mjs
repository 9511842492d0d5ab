/** `npm start`: sets up, builds if needed, serves the app with its demo data and prints the address. */
import { build } from './build.mjs';
import { run } from './setup.mjs';

await build();
run('npx', ['--no-install', 'tsx', 'apps/server/src/main.ts', ...process.argv.slice(2)]);
