import { createReadStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { openDocument, type Reel, ReelScene, reelKind } from '@fresh-reel/core';
import { NodeStudio } from '@fresh-reel/node-host';
import { SHIPPED_PATHS } from '@fresh-reel/templates/assets';
import { z } from 'zod';
import { writeHashed } from '../hashed';
import { wholeScene, withReel } from '../rendering/openedReel';
import { sha256 } from './order';
import type { Store } from './store';

/** A reel as the machines that render it get it: its files and fonts are named by hash, and kept apart. */
const documentSchema = z.strictObject({
  name: z.string(),
  reel: z.unknown(),
  files: z.array(z.strictObject({ id: z.string(), hash: z.string() })),
  fonts: z.array(z.strictObject({ family: z.string(), weight: z.number(), hash: z.string() })),
});
export interface RenderDocument {
  readonly name: string;
  readonly reel: Reel;
  readonly files: readonly { readonly id: string; readonly hash: string }[];
  readonly fonts: readonly { readonly family: string; readonly weight: number; readonly hash: string }[];
}

/**
 * Takes a reel file, or a template's, into the store.
 * @param use what is done with it while it is open; the store holds nothing of it where that throws
 * @throws {CommandError} or {DocumentError} when it cannot be opened, or lacks a file
 */
export async function takeIn<T>(
  path: string,
  store: Store,
  use: (scene: ReelScene, name: string) => Promise<T>,
): Promise<{ readonly hash: string; readonly used: T }> {
  const wanted = { what: path, fill: undefined, size: undefined, originals: undefined };
  return withReel(
    wanted,
    async (studio, { reel, files, fonts, name }) => {
      const used = await use(await wholeScene(reel, studio), name);
      const kept: RenderDocument['files'][number][] = [];
      for (const [id, file] of files) {
        const copy = await store.beside();
        const { hash } = await writeHashed(createReadStream(file), copy);
        await store.take('files', hash, copy);
        kept.push({ id, hash });
      }
      const letters: RenderDocument['fonts'][number][] = [];
      for (const { family, weight, bytes } of fonts) {
        const hash = sha256(bytes);
        await store.put('files', hash, bytes);
        letters.push({ family, weight, hash });
      }
      const text = JSON.stringify({ name, reel, files: kept, fonts: letters } satisfies RenderDocument);
      const hash = sha256(text);
      await store.put('documents', hash, text);
      return { hash, used };
    },
    // Sounds are decoded where they are mixed.
    { paintsOnly: true },
  );
}

/** @throws {Error} when it is not there, or no document */
export async function readDocument(store: Store, hash: string): Promise<RenderDocument> {
  const { reel, ...rest } = documentSchema.parse(JSON.parse(await store.text('documents', hash)));
  return { ...rest, reel: openDocument(reelKind, reel) };
}

/** A document with all it shows, in a studio that is closed by whoever opened it. */
export interface StudioOf {
  readonly studio: NodeStudio;
  readonly scene: ReelScene;
  close(): void;
}

/** @param how as `NodeStudio.start` takes it */
export async function openStudio(
  store: Store,
  hash: string,
  how: Parameters<typeof NodeStudio.start>[1] = {},
): Promise<StudioOf> {
  const document = await readDocument(store, hash);
  const studio = await NodeStudio.start(SHIPPED_PATHS, how);
  try {
    for (const { id, hash: file } of document.files) await studio.addFile(id, store.path('files', file));
    for (const { family, weight, hash: file } of document.fonts)
      studio.addFont(family, weight, await readFile(store.path('files', file)));
    const scene = new ReelScene(document.reel, studio);
    await studio.prepare(scene);
    return { studio, scene, close: () => studio.close() };
  } catch (error) {
    studio.close();
    throw error;
  }
}
