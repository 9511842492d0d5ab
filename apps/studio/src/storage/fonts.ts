import { z } from 'zod';
import { chunkKeys, inPieces, readBytes, sha256, writeBytes } from './bytes';
import { tellStored } from './changes';
import { jsonOf, keysWith, remove, store, write } from './store';

const axis = z.strictObject({ min: z.number(), max: z.number(), default: z.number() });

/** A font that the user brought; its bytes lie apart, under its hash. */
export const fontRecordSchema = z.strictObject({
  hash: z.string().regex(/^[0-9a-f]{64}$/),
  /** Name of the file it came as. */
  name: z.string(),
  family: z.string().min(1),
  weight: z.number(),
  axes: z.record(z.string(), axis),
  letters: z.number().int(),
  size: z.number().int(),
  chunks: z.number().int().min(1),
  added: z.string(),
});
export type FontRecord = z.infer<typeof fontRecordSchema>;

/** Stores a font, once. @throws {StorageError} */
export async function storeFont(
  bytes: Uint8Array,
  facts: Omit<FontRecord, 'hash' | 'chunks' | 'added' | 'size'>,
): Promise<FontRecord> {
  const hash = await sha256(bytes);
  const held = (await listFonts()).find((f) => f.hash === hash);
  if (held) return held;
  const chunks = await writeBytes(hash, inPieces(bytes));
  const record: FontRecord = { ...facts, hash, size: bytes.length, chunks, added: new Date().toISOString() };
  await write({ [`font/${hash}`]: JSON.stringify(record) });
  tellStored({ kind: 'font', id: record.family });
  return record;
}

/** The user's fonts, by family and weight. A record that does not read is left out. */
export async function listFonts(): Promise<FontRecord[]> {
  const texts = await store.getMany(await keysWith('font/'));
  const records = Object.values(texts).flatMap((text) => {
    const parsed = fontRecordSchema.safeParse(jsonOf(text));
    return parsed.success ? [parsed.data] : [];
  });
  return records.sort((a, b) => a.family.localeCompare(b.family) || a.weight - b.weight);
}

export async function readFont({ hash, chunks }: FontRecord): Promise<Uint8Array | null> {
  const parts = await readBytes(hash, chunks);
  return parts && new Uint8Array(await new Blob(parts).arrayBuffer());
}

export async function deleteFont({ hash, chunks, family }: FontRecord): Promise<void> {
  await remove([`font/${hash}`, ...chunkKeys(hash, chunks)]);
  tellStored({ kind: 'font', id: family });
}
