import { createReadStream } from 'node:fs';
import { type FileHandle, open } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { configure, Reader, ZipWriter } from '@zip.js/zip.js/index-native.js';

configure({ useWebWorkers: false });

/** A zip on disk, of which parts are read as they are wanted. */
export class ZipFileReader extends Reader<void> {
  constructor(
    private readonly file: FileHandle,
    override size: number,
  ) {
    super();
  }

  override async readUint8Array(index: number, length: number): Promise<Uint8Array> {
    const { buffer, bytesRead } = await this.file.read(new Uint8Array(length), 0, length, index);
    return buffer.subarray(0, bytesRead);
  }
}

/**
 * Writes files into a zip, each as it is, in their order and with no time of their own, so that the same files make the
 * same bytes.
 */
export async function writeZip(
  files: readonly { readonly name: string; readonly path: string }[],
  out: string,
): Promise<void> {
  const file = await open(out, 'w');
  try {
    const sink = new WritableStream<Uint8Array>({ write: async (bytes) => void (await file.write(bytes)) });
    const zip = new ZipWriter(sink, {
      ...{ level: 0, keepOrder: true, extendedTimestamp: false, lastModDate: new Date(1980, 0, 1) },
    });
    for (const { name, path } of files)
      await zip.add(name, Readable.toWeb(createReadStream(path)) as ReadableStream<Uint8Array>);
    await zip.close();
  } finally {
    await file.close();
  }
}
