/**
 * `npm run bench`: what the app costs on this machine, against its budgets. `--json` prints the figures and nothing
 * else: an array of { id, value, unit, budget, met }. Names of parts (the files of `bench/parts`) run those alone.
 */
import { build } from './build/build.mjs';
import { ensurePackages, ensurePrograms, output } from './setup.mjs';

// What setting up and building say goes to standard error then.
output.aside = process.argv.includes('--json');
const programs = ensurePrograms({ chromium: 'chromium', ffmpeg: 'ffmpeg' });
ensurePackages();
await programs;
await build();
const { register } = await import('tsx/esm/api');
register();
await import('../bench/main.ts');
