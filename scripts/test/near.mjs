/**
 * `npm run test:near`: lint, types, and the unit tests that lead to files which differ from the last commit: what one runs
 * before each commit. `npm run test:near -- HEAD~3` looks at all that changed since.
 */
import { execFileSync, spawnSync } from 'node:child_process';
import { root } from '../setup.mjs';

const [since = 'HEAD'] = process.argv.slice(2);
const git = (...args) =>
  execFileSync('git', args, { cwd: root, encoding: 'utf8' }).split('\n').filter(Boolean);
const changed = [
  ...git('diff', '--name-only', '--diff-filter=d', since),
  ...git('ls-files', '-o', '--exclude-standard'),
];
const code = changed.filter((path) => /^(packages|apps)\/.*\.(tsx?|json)$/.test(path));

function run(...args) {
  const { status } = spawnSync('npx', ['--no-install', ...args], { cwd: root, stdio: 'inherit' });
  if (status !== 0) process.exit(status ?? 1);
}
run('biome', 'check', '.');
for (const project of ['.', 'apps/studio', 'e2e']) run('tsc', '-p', project);
if (code.length > 0) run('jest', '--maxWorkers=2', '--findRelatedTests', ...code);
