import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';

/** Writes a stream into a file, and hashes it meanwhile. @returns its SHA-256, and its bytes */
export async function writeHashed(
  stream: NodeJS.ReadableStream,
  path: string,
): Promise<{ hash: string; size: number }> {
  const hash = createHash('sha256');
  let size = 0;
  const passing = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      hash.update(chunk);
      size += chunk.length;
      done(null, chunk);
    },
  });
  await pipeline(stream, passing, createWriteStream(path));
  return { hash: hash.digest('hex'), size };
}
