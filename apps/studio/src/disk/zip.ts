import {
  BlobReader,
  BlobWriter,
  configure,
  type FileEntry,
  Reader,
  TextWriter,
  ZipReader,
  ZipWriter,
} from '@zip.js/zip.js/index-native.js';

// What goes in is packed already, so there is nothing for workers of its own to do; large pieces are handed on faster.
configure({ useWebWorkers: false, chunkSize: 1 << 20 });

/** How a zip is written: as it comes, with no time of its own, so that the same files make the same bytes. */
const STORED = {
  level: 0,
  keepOrder: true,
  extendedTimestamp: false,
  lastModDate: new Date(1980, 0, 1),
} as const;

/** Writes a zip file by file, each stored as it is. */
export function zipWriter(write: (bytes: Uint8Array) => void | Promise<void>): {
  add(name: string, content: Blob): Promise<void>;
  /** A file of which the size need not be known before. */
  addStream(name: string, content: ReadableStream<Uint8Array>): Promise<void>;
  end(): Promise<void>;
} {
  const zip = new ZipWriter(new WritableStream<Uint8Array>({ write }), STORED);
  return {
    add: async (name, content) => {
      await zip.add(name, new BlobReader(content));
    },
    addStream: async (name, content) => {
      await zip.add(name, content);
    },
    end: async () => {
      await zip.close();
    },
  };
}

/** A zip's bytes as they are made, never held whole. */
export async function* zipBytes(
  files: readonly { readonly name: string; readonly content: Blob }[],
): AsyncGenerator<Uint8Array> {
  const made: Uint8Array[] = [];
  const zip = zipWriter((bytes) => {
    made.push(bytes);
  });
  for (const { name, content } of files) {
    await zip.add(name, content);
    yield* made.splice(0);
  }
  await zip.end();
  yield* made;
}

/** Reads a part of a file: from a byte up to, and without, another. */
export type ReadRange = (start: number, end: number) => Promise<Uint8Array>;

class RangeReader extends Reader<void> {
  constructor(
    override size: number,
    private readonly read: ReadRange,
  ) {
    super();
  }

  override readUint8Array(index: number, length: number): Promise<Uint8Array> {
    return this.read(index, Math.min(this.size, index + length));
  }
}

/** The files of a zip, each read when it is asked for. */
export class ZipFiles {
  private constructor(private readonly entries: ReadonlyMap<string, FileEntry>) {}

  /** @throws {Error} when the bytes are not a whole zip */
  static async open(size: number, read: ReadRange): Promise<ZipFiles> {
    const entries = await new ZipReader(new RangeReader(size, read)).getEntries();
    return new ZipFiles(
      new Map(entries.flatMap((e) => (e.directory ? [] : [[e.filename, e as FileEntry] as const]))),
    );
  }

  has(name: string): boolean {
    return this.entries.has(name);
  }

  /** Bytes of a file as it is unpacked, as the zip says. @throws {Error} when there is no such file */
  sizeOf(name: string): number {
    return this.entry(name).uncompressedSize;
  }

  /** @throws {Error} when there is no such file, or it is damaged */
  async blob(name: string): Promise<Blob> {
    return this.entry(name).getData!(new BlobWriter());
  }

  /**
   * A file that is stored as it is, as a part of the zip's own bytes: nothing is read before it is wanted.
   * @param zip the bytes of the whole zip
   * @throws {Error} when there is no such file
   */
  async slice(name: string, zip: Blob): Promise<Blob> {
    const { offset, compressionMethod, compressedSize } = this.entry(name);
    if (compressionMethod !== 0) return this.blob(name);
    // The local header (PKWARE APPNOTE, 4.3.7): 30 bytes, then a name and extra fields of these lengths.
    const head = new DataView(await zip.slice(offset, offset + 30).arrayBuffer());
    const start = offset + 30 + head.getUint16(26, true) + head.getUint16(28, true);
    return zip.slice(start, start + compressedSize);
  }

  async text(name: string): Promise<string> {
    return this.entry(name).getData!(new TextWriter());
  }

  private entry(name: string): FileEntry {
    const entry = this.entries.get(name);
    if (!entry) throw new Error(`"${name}" is not in the zip.`);
    return entry;
  }
}

/** Reads parts of a file that the user chose. */
export const rangeOf =
  (file: Blob): ReadRange =>
  async (start, end) =>
    new Uint8Array(await file.slice(start, end).arrayBuffer());
