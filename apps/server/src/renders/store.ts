import { randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { link, mkdir, readdir, readFile, rename, rm, stat, utimes, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { Kept } from './room';

/** What is kept: documents, their media and fonts, and pieces of films, each under the hash of what it is. */
export type Kind = 'documents' | 'files' | 'pieces';
export const KINDS: readonly Kind[] = ['documents', 'files', 'pieces'];

/** Days after which what nobody used goes. */
const KEPT_FOR = 7;

/** Where machines in a row get what they render, and bring their pieces. */
export const STORE_PATH = '/api/store';

/** A hash as a file name; nothing else is one. */
export const HASH = /^[0-9a-f]{64}$/;

/** Files by hash in a folder. What is there is whole: it is written beside and moved in. */
export class Store {
  constructor(readonly folder: string) {}

  path(kind: Kind, hash: string): string {
    if (!HASH.test(hash)) throw new RangeError(`"${hash}" is no hash.`);
    return join(this.folder, kind, hash);
  }

  /** Whether something is there; what is asked for counts as used. */
  async has(kind: Kind, hash: string): Promise<boolean> {
    const path = this.path(kind, hash);
    const now = new Date();
    return utimes(path, now, now).then(
      () => true,
      () => false,
    );
  }

  async size(kind: Kind, hash: string): Promise<number> {
    return (await stat(this.path(kind, hash))).size;
  }

  read(kind: Kind, hash: string): NodeJS.ReadableStream {
    return createReadStream(this.path(kind, hash));
  }

  async text(kind: Kind, hash: string): Promise<string> {
    return readFile(this.path(kind, hash), 'utf8');
  }

  /** Path of a file that does not count yet. */
  async beside(): Promise<string> {
    const folder = join(this.folder, 'coming');
    await mkdir(folder, { recursive: true });
    return join(folder, randomUUID());
  }

  /** Moves a file in. One that was there first stays: it is the same. */
  async take(kind: Kind, hash: string, path: string): Promise<void> {
    const target = this.path(kind, hash);
    await mkdir(join(this.folder, kind), { recursive: true });
    await link(path, target).catch(async (error: NodeJS.ErrnoException) => {
      // What is brought again is used.
      if (error.code === 'EEXIST') await this.has(kind, hash);
      // A disk without links, or a file of another disk.
      else await rename(path, target);
    });
    await rm(path, { force: true });
  }

  async put(kind: Kind, hash: string, data: string | Uint8Array | NodeJS.ReadableStream): Promise<void> {
    const path = await this.beside();
    try {
      if (typeof data === 'string' || data instanceof Uint8Array) await writeFile(path, data);
      else await pipeline(data, createWriteStream(path));
      await this.take(kind, hash, path);
    } catch (error) {
      await rm(path, { force: true });
      throw error;
    }
  }

  /** All that lies here. */
  async kept(): Promise<Kept[]> {
    const all = await Promise.all(
      KINDS.map(async (kind) => {
        const names = await readdir(join(this.folder, kind)).catch(() => []);
        return Promise.all(
          names
            .filter((name) => HASH.test(name))
            .map(async (hash): Promise<Kept[]> => {
              const facts = await stat(this.path(kind, hash)).catch(() => undefined);
              const drop = () => this.drop(kind, hash);
              return facts ? [{ bytes: facts.size, used: facts.mtimeMs, days: KEPT_FOR, drop }] : [];
            }),
        );
      }),
    );
    return all.flat(2);
  }

  async drop(kind: Kind, hash: string): Promise<void> {
    await rm(this.path(kind, hash), { force: true });
  }
}
