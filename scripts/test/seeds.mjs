/**
 * `npm run test:seeds`: tries all properties with values of a new seed, and says which. What it finds becomes an example
 * in its test, or an issue. `FRESH_REEL_SEED=7 npm run test:seeds` tries those of one seed again.
 */
import { execFileSync, spawnSync } from 'node:child_process';
import { randomInt } from 'node:crypto';
import { root } from '../setup.mjs';

const seed = process.env.FRESH_REEL_SEED ?? String(randomInt(2 ** 31));
const files = execFileSync('git', ['grep', '-l', "from 'fast-check'", '--', '*.test.ts'], {
  cwd: root,
  encoding: 'utf8',
});
console.log(`FRESH_REEL_SEED=${seed}`);
const { status } = spawnSync('npx', ['--no-install', 'jest', ...files.trim().split('\n')], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, FRESH_REEL_SEED: seed },
});
process.exit(status ?? 1);
