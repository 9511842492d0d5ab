import { execFileSync, spawn } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, symlinkSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';

const ROOT = join(__dirname, '../..');

/** Programs that a machine has before anything is installed: Node, npm, and the shell that npm runs scripts with. */
const BARE = ['node', 'npm', 'npx', 'sh'];

/** A command that runs in a clone. */
export interface Running {
  /** Waits until it has said something. @throws {Error} with what it said, when it ends before */
  says(pattern: RegExp): Promise<string>;
  /** How it ended, and all that it said. */
  readonly ended: Promise<{ readonly code: number | null; readonly said: string }>;
  kill(): void;
}

/** A clean clone of this tree, with its packages installed, on a machine that has Node and npm alone. */
export class CleanClone {
  private readonly base = mkdtempSync(join(tmpdir(), 'fresh-reel-clone-'));
  readonly folder = join(this.base, 'clone');
  private readonly path = join(this.base, 'bin');
  private readonly running = new Set<Running>();

  constructor() {
    const files = execFileSync('git', ['ls-files', '-z', '-co', '--exclude-standard'], { cwd: ROOT });
    for (const file of files.toString().split('\0'))
      if (file && existsSync(join(ROOT, file)))
        cpSync(join(ROOT, file), join(this.folder, file), { preserveTimestamps: true });
    this.linkPackages();
    mkdirSync(this.path);
    for (const program of BARE) {
      const found = execFileSync('which', [program]).toString().trim();
      symlinkSync(found, join(this.path, program));
    }
  }

  /** Packages of the registry are those of this tree; the project's own are the clone's. */
  private linkPackages(): void {
    const [from, to] = [join(ROOT, 'node_modules'), join(this.folder, 'node_modules')];
    mkdirSync(join(to, '@fresh-reel'), { recursive: true });
    for (const name of readdirSync(from))
      if (name !== '@fresh-reel') symlinkSync(join(from, name), join(to, name));
    for (const place of ['packages', 'apps'])
      for (const name of readdirSync(join(this.folder, place))) {
        symlinkSync(join(this.folder, place, name), join(to, '@fresh-reel', name));
        // What only that package has of a version.
        const own = join(place, name, 'node_modules');
        if (existsSync(join(ROOT, own))) symlinkSync(join(ROOT, own), join(this.folder, own));
      }
  }

  run(program: string, ...args: readonly string[]): Running {
    const child = spawn(join(this.path, program), args, {
      cwd: this.folder,
      env: { PATH: this.path, HOME: this.base },
      // A group of its own: npm's children go with it.
      detached: true,
    });
    let said = '';
    const heard = new Set<() => void>();
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (data: Buffer) => {
        said += data.toString();
        for (const listener of heard) listener();
      });
    const ended = new Promise<{ code: number | null; said: string }>((resolve) =>
      child.on('close', (code) => resolve({ code, said })),
    );
    const running: Running = {
      says: (pattern) =>
        new Promise((resolve, reject) => {
          const look = () => {
            const found = pattern.exec(said);
            if (found) resolve(found[1] ?? found[0]);
          };
          heard.add(look);
          look();
          void ended.then(() => reject(new Error(`It ended without ${pattern}: ${said}`)));
        }),
      ended,
      kill: () => {
        if (child.exitCode === null && child.pid !== undefined) process.kill(-child.pid, 'SIGKILL');
      },
    };
    this.running.add(running);
    void ended.then(() => this.running.delete(running));
    return running;
  }

  async remove(): Promise<void> {
    for (const running of this.running) {
      running.kill();
      await running.ended;
    }
    rmSync(dirname(this.folder), { recursive: true, force: true });
  }
}
