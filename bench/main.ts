/** Measures all parts, or those that are named; `scripts/bench.mjs` has set up what they need. */
import { fileURLToPath } from 'node:url';
import { openBench } from './harness/bench';
import { PARTS } from './parts';

const args = process.argv.slice(2);
const quiet = args.includes('--json');
const only = args
  .find((a) => a.startsWith('--only='))
  ?.slice('--only='.length)
  .split(',');
const named = Object.keys(PARTS).filter((name) => args.includes(name)) as (keyof typeof PARTS)[];

const bench = await openBench(fileURLToPath(new URL('..', import.meta.url)), { quiet, only });
for (const name of named.length > 0 ? named : (Object.keys(PARTS) as (keyof typeof PARTS)[]))
  await PARTS[name](bench);
await bench.close();
if (quiet) console.log(JSON.stringify(bench.report.rows));
process.exit(0);
