import type { FileHandle } from 'node:fs/promises';
import { configure, Reader } from '@zip.js/zip.js/index-native.js';

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
