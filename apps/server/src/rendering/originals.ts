import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { readdir, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { OpenedPackage } from '@fresh-reel/node-host';

async function hashOf(path: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const piece of createReadStream(path)) hash.update(piece as Buffer);
  return hash.digest('hex');
}

/**
 * The files a reel renders from: where a working copy stands for an original, that, if it lies in a folder under
 * whatever name; else the copy, which is told.
 * @param folder where originals are looked for, not in the folders within it
 */
export async function withOriginals(
  media: OpenedPackage['media'],
  folder: string,
  tell: (line: string) => void,
): Promise<[id: string, path: string][]> {
  const found: [string, string][] = [];
  const files = media.some((m) => m.original) ? await sizesIn(folder) : [];
  for (const { id, path, name, original } of media) {
    const own = original && (await findOriginal(id, original.size, files));
    if (original && !own)
      tell(
        `"${name}" is rendered from its working copy: the original is not in ${folder} (see --originals).`,
      );
    found.push([id, own ?? path]);
  }
  return found;
}

interface Sized {
  readonly path: string;
  readonly size: number;
}

/** A file of the right size whose hash is the one. */
async function findOriginal(id: string, size: number, files: readonly Sized[]): Promise<string | undefined> {
  for (const file of files)
    if (file.size === size && `sha256:${await hashOf(file.path)}` === id) return file.path;
  return undefined;
}

async function sizesIn(folder: string): Promise<Sized[]> {
  const entries = await readdir(folder, { withFileTypes: true }).catch(() => []);
  return Promise.all(
    entries
      .filter((e) => e.isFile())
      .map(async (e) => {
        const path = join(folder, e.name);
        return { path, size: (await stat(path)).size };
      }),
  );
}
