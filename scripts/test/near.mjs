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

function run(...command) {
  const [program, ...args] = command;
  const { status } = spawnSync(program, args, { cwd: root, stdio: 'inherit' });
  if (status !== 0) process.exit(status ?? 1);
}
for (const script of ['lint', 'typecheck']) run('npm', 'run', '--silent', script);
if (code.length > 0) run('npx', '--no-install', 'jest', '--maxWorkers=2', '--findRelatedTests', ...code);
