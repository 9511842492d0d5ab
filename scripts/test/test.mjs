/**
 * `npm test`: sets up, then runs everything: formatter and linter, types, unit tests, the build, and the real
 * interface in Chromium. Ends with a line of the counts.
 */
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { ensurePackages, ensurePrograms, root } from '../setup.mjs';

const programs = ensurePrograms({
  chromium: 'chromium',
  ffprobe: 'ffmpeg',
  'hb-shape': 'libharfbuzz-bin',
  'redis-server': 'redis-server',
  zip: 'zip',
  unzip: 'unzip',
  // Unicode's own test files.
  '/usr/share/unicode/BidiCharacterTest.txt': 'unicode-data',
});
ensurePackages();
await programs;

const results = mkdtempSync(join(tmpdir(), 'fresh-reel-test-'));
let passed = 0;
let failed = 0;

/** Begins a command that counts as one check. What it says comes when it is over. @returns once it is */
function check(name, command, args) {
  const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] });
  const said = [];
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (data) => said.push(data));
  return new Promise((resolve) => {
    child.on('close', (status) => {
      console.log(`\n— ${name}\n${Buffer.concat(said)}`);
      if (status === 0) passed++;
      else failed++;
      resolve();
    });
  });
}

/** Says which files took longest: where to look when the whole takes too long. */
function sayDearest(testResults) {
  const took = testResults
    .map((t) => [basename(t.name), (t.endTime - t.startTime) / 1000])
    .sort(([, a], [, b]) => b - a);
  console.log(
    `longest: ${took
      .slice(0, 8)
      .map(([file, seconds]) => `${file} ${seconds.toFixed(0)} s`)
      .join(', ')}`,
  );
}

/** Runs Jest and adds its counts; a run that could not start counts as one failure. */
async function jest(name, args) {
  console.log(`\n— ${name}`);
  const file = join(results, `${name}.json`);
  const child = spawn(
    'npx',
    ['--no-install', 'jest', ...args, '--json', `--outputFile=${file}`, '--ci', '--forceExit'],
    {
      cwd: root,
      stdio: ['ignore', 'ignore', 'inherit'],
      // A browser that hangs must not hang the run.
      timeout: 2_400_000,
    },
  );
  const status = await new Promise((resolve) => child.on('exit', resolve));
  try {
    const { numPassedTests, numFailedTests, numFailedTestSuites, testResults } = JSON.parse(
      readFileSync(file, 'utf8'),
    );
    passed += numPassedTests;
    // A suite that does not even load has no failed test of its own.
    const unloaded = testResults.filter(
      (t) => t.status === 'failed' && t.assertionResults.every((a) => a.status !== 'failed'),
    ).length;
    failed += numFailedTests + unloaded;
    if (status !== 0 && numFailedTests + numFailedTestSuites === 0) failed++;
    sayDearest(testResults);
  } catch {
    failed++;
  }
}

await check('format and lint', 'npx', ['--no-install', 'biome', 'check', '.']);
// What imports what and types are checked, and the app is built, while the unit tests run, which need none of it.
const beside = [
  check('rooms', 'npm', ['run', '--silent', 'rooms']),
  check('types', 'npm', ['run', '--silent', 'typecheck']),
  check('build', 'node', ['scripts/build/build.mjs']),
];
// Left to itself, Jest takes one worker on two cores.
await jest('unit', ['--maxWorkers=2']);
await Promise.all(beside);
// Two at once, on two cores: each has a server and a browser of its own, and waits much of its time.
await jest('interface', ['-c', 'e2e/jest.config.mjs', '--maxWorkers=2']);

console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
