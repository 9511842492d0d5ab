import { z } from 'zod';
import { chunkKeys, removeBytes, writeBytes } from './bytes';
import { tellStored } from './changes';
import { jsonOf, keysWith, remove, store, write } from './store';
import { ifFree } from './tabs';

/** A small copy of a clip that is quick to go through. It can be made again at any time, so it goes where room is needed. */
const proxySchema = z.strictObject({
  size: z.number().int().min(1),
  chunks: z.number().int().min(1),
  /** Pixels of its longest side. */
  side: z.number().int().min(1),
});
export type Proxy = z.infer<typeof proxySchema>;

const PREFIX = 'proxy/';
const BYTES = 'proxy-';

/** What the bytes of a clip's proxy lie under. */
export const proxyBytesId = (hash: string) => BYTES + hash;

/** The lock that is held while a clip's proxy is made, in whichever tab. */
export const proxyLock = (hash: string) => `proxy/${hash}`;

/** The proxy of a clip, if it is here whole. */
export async function readProxy(hash: string): Promise<Proxy | null> {
  const read = proxySchema.safeParse(jsonOf(await store.getItem(PREFIX + hash)));
  if (!read.success) return null;
  const keys = new Set(await keysWith(`bytes/${proxyBytesId(hash)}/`));
  return chunkKeys(proxyBytesId(hash), read.data.chunks).every((key) => keys.has(key)) ? read.data : null;
}

/**
 * Keeps a clip's proxy; its record comes last, so that a record always has its bytes.
 * @throws {StorageError}; nothing of it is left behind then
 */
export async function storeProxy(
  hash: string,
  { size, side }: Pick<Proxy, 'size' | 'side'>,
  pieces: AsyncIterable<Uint8Array>,
): Promise<void> {
  try {
    const chunks = await writeBytes(proxyBytesId(hash), pieces);
    await write({ [PREFIX + hash]: JSON.stringify({ size, chunks, side } satisfies Proxy) });
  } catch (error) {
    await dropProxy(hash).catch(() => undefined);
    throw error;
  }
  tellStored({ kind: 'proxy', id: hash });
}

/** Lets a clip's proxy go. */
export async function dropProxy(hash: string): Promise<void> {
  await remove([PREFIX + hash]);
  await removeBytes(proxyBytesId(hash));
}

/** Lets all proxies go, for the room they take. @returns whether there were any */
export async function dropProxies(): Promise<boolean> {
  const hashes = (await keysWith(PREFIX)).map((key) => key.slice(PREFIX.length));
  for (const hash of hashes) {
    await dropProxy(hash);
    tellStored({ kind: 'proxy', id: hash });
  }
  return hashes.length > 0;
}

/** Removes what is left of proxies whose making was cut off. One that another tab is making is left alone. */
export async function clearBrokenProxies(): Promise<void> {
  const whole = new Set(await keysWith(PREFIX));
  const found = (await keysWith(`bytes/${BYTES}`)).map((key) => key.split('/')[1]!.slice(BYTES.length));
  for (const hash of new Set(found)) {
    if (!whole.has(PREFIX + hash)) await ifFree(proxyLock(hash), () => dropProxy(hash));
  }
}
