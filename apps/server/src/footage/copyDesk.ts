import { randomUUID } from 'node:crypto';
import { mkdir, mkdtemp, readdir, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { copyType, type Footage, lookAtFootage, makeWorkingCopy } from '@fresh-reel/node-host';
import { writeHashed } from '../hashed';
import { LIMITS } from '../renders/order';

/** What is told of a file that was sent. */
export interface CopyState {
  readonly id: string;
  /** SHA-256 and bytes of the original. */
  readonly hash: string;
  readonly size: number;
  readonly footage: Footage;
  readonly state: 'waiting' | 'making' | 'done' | 'failed';
  /** 0..1 */
  readonly part: number;
  /** What the copy is written as. */
  readonly type: string;
  readonly fault?: string;
}

/** A file that is sent cannot be used, with the reason in words. */
export class FootageError extends Error {
  override readonly name = 'FootageError';
}

/** Milliseconds after which what nobody asks for any more goes. */
const FORGOTTEN = 30 * 60_000;

interface Held {
  told: CopyState;
  readonly original: string;
  readonly copy: string;
  readonly stop: AbortController;
  asked: number;
}

/**
 * Files that were sent, and their working copies, made one after the other. They lie in a folder of their own until they
 * are fetched, cancelled, or forgotten.
 */
export class CopyDesk {
  private readonly held = new Map<string, Held>();
  private queue: Promise<void> = Promise.resolve();
  private folder: Promise<string> | undefined;

  /** @param most bytes of a file */
  constructor(private readonly most = LIMITS.footage) {}

  /**
   * Takes a file in, piece by piece, and begins to make its copy.
   * @throws {FootageError} when ffmpeg cannot read it
   * @throws {TooLarge} when it has more bytes than are taken
   */
  async take(stream: Readable): Promise<CopyState> {
    this.forget();
    this.folder ??= clearLeft().then(() => mkdtemp(join(tmpdir(), PREFIX)));
    const folder = await this.folder;
    await mkdir(folder, { recursive: true });
    const id = randomUUID();
    const original = join(folder, id);
    try {
      const { hash, size } = await writeHashed(stream, original, this.most);
      const footage = await lookAtFootage(original).catch((error: Error) => {
        throw new FootageError(wordsOf(error));
      });
      const held: Held = {
        told: { id, hash, size, footage, state: 'waiting', part: 0, type: copyType(footage) },
        original,
        copy: `${original}.copy`,
        stop: new AbortController(),
        asked: Date.now(),
      };
      this.held.set(id, held);
      this.queue = this.queue.then(() => this.make(held));
      return held.told;
    } catch (error) {
      await rm(original, { force: true });
      throw error;
    }
  }

  /** How far a copy is; nothing of one that is not known. */
  state(id: string): CopyState | undefined {
    const held = this.held.get(id);
    if (held) held.asked = Date.now();
    return held?.told;
  }

  /** The file of a copy that is done, and its bytes. */
  async file(id: string): Promise<{ path: string; size: number; type: string } | undefined> {
    const held = this.held.get(id);
    if (held?.told.state !== 'done') return undefined;
    return { path: held.copy, size: (await stat(held.copy)).size, type: held.told.type };
  }

  /** Stops what is made of a file, and removes it. */
  async drop(id: string): Promise<void> {
    const held = this.held.get(id);
    if (!held) return;
    this.held.delete(id);
    held.stop.abort();
    await Promise.all([held.original, held.copy].map((path) => rm(path, { force: true })));
  }

  async close(): Promise<void> {
    await Promise.all([...this.held.keys()].map((id) => this.drop(id)));
    if (this.folder) await rm(await this.folder, { recursive: true, force: true });
  }

  private async make(held: Held): Promise<void> {
    if (held.stop.signal.aborted) return;
    const tell = (part: Partial<CopyState>) => (held.told = { ...held.told, ...part });
    tell({ state: 'making' });
    try {
      await makeWorkingCopy(held.original, held.copy, held.told.footage, {
        signal: held.stop.signal,
        onProgress: (part) => tell({ part }),
      });
      tell({ state: 'done', part: 1 });
    } catch (error) {
      tell({ state: 'failed', fault: wordsOf(error as Error) });
    } finally {
      // The original is its owner's; here it was for the copy alone.
      await rm(held.original, { force: true });
      if (held.stop.signal.aborted) await rm(held.copy, { force: true });
    }
  }

  private forget(): void {
    for (const [id, held] of this.held) if (Date.now() - held.asked > FORGOTTEN) void this.drop(id);
  }
}

/** What folders of files that were sent are called. */
const PREFIX = 'fresh-reel-footage-';
/** Milliseconds after which a folder that nothing has changed in is one of a server that was killed. */
const LEFT = 24 * 3_600_000;

/** Removes what servers that were killed have left. */
async function clearLeft(): Promise<void> {
  for (const name of await readdir(tmpdir())) {
    if (!name.startsWith(PREFIX)) continue;
    const path = join(tmpdir(), name);
    const facts = await stat(path).catch(() => undefined);
    if (facts && Date.now() - facts.mtimeMs > LEFT)
      await rm(path, { recursive: true, force: true }).catch(() => undefined);
  }
}

/** What went wrong, without the paths of this machine. */
function wordsOf(error: Error): string {
  if (/ENOENT/.test(error.message)) return 'ffmpeg is not installed where the server runs.';
  const said = error.message.split('\n').find((line) => !/^Command failed/.test(line) && line.trim() !== '');
  return (said ?? 'It cannot be read.').replace(/\S*[\\/][\w-]{20,}\S*:?/g, 'The file').slice(0, 300);
}
