/** Sets a fresh machine up, with Node's own modules alone: packages from the registry, programs from Debian. */
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, readFileSync, statSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('../', import.meta.url));

/** Where what is said goes: aside, to standard error, for commands that print figures alone. */
export const output = { aside: false };

export const say = (text) => (output.aside ? console.error(text) : console.log(text));

/** Runs a command, showing what it says; ends this process when it fails. */
export function run(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, {
    cwd: root,
    stdio: ['inherit', output.aside ? 2 : 'inherit', 'inherit'],
    ...options,
  });
  if (status !== 0) {
    console.error(`\n${command} ${args.join(' ')} failed${error ? `: ${error.message}` : ` (${status})`}.`);
    process.exit(status ?? 1);
  }
}

/** What keeps a set-up or a build from its end, in a line that says what to do. */
function plainly(error) {
  const at = error.path ?? error.dest ?? root;
  switch (error.code) {
    case 'ENOSPC':
    case 'EDQUOT':
      return `The disk is full (${at}). Make room, and start again: nothing half made is left.`;
    case 'EACCES':
    case 'EPERM':
    case 'EROFS':
      return `${at} cannot be written. Make this folder yours, or move it to where you may write, and start again.`;
    default:
      return undefined;
  }
}

/** Ends this process with a line that says what to do; what is not foreseen is told whole. */
export function tellPlainly(error) {
  console.error(plainly(error) ?? error);
  process.exit(1);
}

/** Installs packages when they are not there, or older than the lock file. */
export function ensurePackages() {
  const done = `${root}node_modules/.package-lock.json`;
  const lock = `${root}package-lock.json`;
  if (existsSync(done) && statSync(done).mtimeMs >= statSync(lock).mtimeMs && sameLock(done, lock)) return;
  run('npm', ['ci', '--no-audit', '--no-fund']);
}

/** Whether what is installed is what the lock file says, by its list of packages. */
function sameLock(done, lock) {
  const names = (file) =>
    Object.keys(JSON.parse(readFileSync(file, 'utf8')).packages ?? {}).filter((n) =>
      n.startsWith('node_modules/'),
    );
  const installed = new Set(names(done));
  return names(lock).filter((n) => installed.has(n)).length > 0.9 * names(lock).length;
}

/**
 * Installs Debian's packages whose programs, or files, are missing: a name is a program's, a path a file's.
 * @returns once they are there; what is called meanwhile runs beside it
 */
export function ensurePrograms(programs) {
  const there = (name) => (name.startsWith('/') ? existsSync(name) : spawnSync('which', [name]).status === 0);
  const missing = Object.entries(programs).filter(([name]) => !there(name));
  if (missing.length === 0) return Promise.resolve();
  const packages = missing.map(([, name]) => name).join(' ');
  say(`Installing ${packages} from Debian.`);
  const sudo = process.getuid?.() === 0 ? '' : 'sudo ';
  const apt = `${sudo}env DEBIAN_FRONTEND=noninteractive apt-get -qq`;
  const command = `${apt} update && ${apt} install -y --no-install-recommends ${packages}`;
  const child = spawn('sh', ['-c', command], { stdio: ['inherit', output.aside ? 2 : 'inherit', 'inherit'] });
  return new Promise((resolve) => {
    child.on('exit', (status) => {
      if (status === 0) return resolve();
      console.error(`\n${command} failed (${status}).`);
      process.exit(1);
    });
  });
}
