import { createHash } from 'node:crypto';
import { open } from 'node:fs/promises';
import type { Readable } from 'node:stream';

/** What is sent has more bytes than are taken. */
export class TooLarge extends Error {
  override readonly name = 'TooLarge';
  constructor(most: number) {
    super(`The file has more than the ${most} bytes that are taken here.`);
  }
}

/**
 * Writes a stream into a file, and hashes it meanwhile.
 * @param most bytes
 * @returns its SHA-256, and its bytes
 * @throws {TooLarge} when it has more; what is left of it is not read, and can still be answered
 */
export async function writeHashed(
  stream: Readable,
  path: string,
  most = Number.POSITIVE_INFINITY,
): Promise<{ hash: string; size: number }> {
  const hash = createHash('sha256');
  const file = await open(path, 'w');
  let size = 0;
  try {
    for await (const chunk of stream.iterator({ destroyOnReturn: false }) as AsyncIterable<Buffer>) {
      size += chunk.length;
      if (size > most) throw new TooLarge(most);
      hash.update(chunk);
      await file.writeFile(chunk);
    }
  } finally {
    await file.close();
  }
  return { hash: hash.digest('hex'), size };
}
