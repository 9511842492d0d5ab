/**
 * `npm test`: sets up, then runs everything: formatter and linter, types, unit tests, the build, and the real
 * interface in Chromium. Ends with a line of the counts.
 */
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensurePackages, ensurePrograms, root } from './setup.mjs';

ensurePackages();
ensurePrograms({
  chromium: 'chromium',
  ffprobe: 'ffmpeg',
  'hb-shape': 'libharfbuzz-bin',
  // Unicode's own test files.
  '/usr/share/unicode/BidiCharacterTest.txt': 'unicode-data',
});

const results = mkdtempSync(join(tmpdir(), 'fresh-reel-test-'));
let passed = 0;
let failed = 0;

/** Runs a command that counts as one check. */
function check(name, command, args) {
  console.log(`\n— ${name}`);
  const ok = spawnSync(command, args, { cwd: root, stdio: 'inherit' }).status === 0;
  if (ok) passed++;
  else failed++;
}

/** Runs Jest and adds its counts; a run that could not start counts as one failure. */
function jest(name, args) {
  console.log(`\n— ${name}`);
  const file = join(results, `${name}.json`);
  const { status } = spawnSync(
    'npx',
    ['--no-install', 'jest', ...args, '--json', `--outputFile=${file}`, '--ci', '--forceExit'],
    {
      cwd: root,
      stdio: ['ignore', 'ignore', 'inherit'],
      // A browser that hangs must not hang the run.
      timeout: 1_200_000,
    },
  );
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
  } catch {
    failed++;
  }
}

check('format and lint', 'npx', ['--no-install', 'biome', 'check', '.']);
check('types', 'npm', ['run', '--silent', 'typecheck']);
// The app is built while the unit tests run, which need none of it.
const building = spawn('node', ['scripts/build.mjs'], { cwd: root, stdio: ['ignore', 'ignore', 'inherit'] });
const built = new Promise((resolve) => building.on('exit', resolve));
// Left to itself, Jest takes one worker on two cores.
jest('unit', ['--maxWorkers=2']);
if ((await built) !== 0) failed++;
// Two at once, on two cores: each has a server and a browser of its own, and waits much of its time.
jest('interface', ['-c', 'e2e/jest.config.mjs', '--maxWorkers=2']);

console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
