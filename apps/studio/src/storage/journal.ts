import { createCRC32 } from 'hash-wasm/dist/crc32.umd.min.js';
import { namesIn, privateFolder } from './privateFiles';

/** One frame as its format holds it: a compressed picture, or a PNG. */
export interface WrittenFrame {
  readonly data: Uint8Array;
  /** Its transparency, where a format compresses that apart. */
  readonly alpha?: Uint8Array | undefined;
  readonly key: boolean;
  /** Seconds. */
  readonly timestamp: number;
  readonly duration: number;
}

/** A group of pictures as it was written, and, with the first of a render, how its decoder is to be set up. */
export interface WrittenGroup {
  readonly frames: readonly WrittenFrame[];
  readonly config?: VideoDecoderConfig | undefined;
}

/** The part of a file on disk that a journal uses. */
export interface JournalFile {
  /** Fills a buffer from a place on. @returns bytes read */
  read(into: Uint8Array, options: { at: number }): number;
  write(data: Uint8Array, options: { at: number }): number;
  truncate(size: number): void;
  getSize(): number;
  flush(): void;
  close(): void;
}

/** Before each record: a mark, the length of its head and of its body, and the CRC-32 (ISO/IEC 3309) of both. */
const LEAD = 16;
const MARK = 0x46524a31;

/** What a record says of its body: lengths in bytes of each frame and its transparency, in order. */
interface Head {
  readonly identity?: string;
  readonly config?: Omit<VideoDecoderConfig, 'description'> & { description?: number[] };
  readonly frames: readonly (readonly [
    key: 0 | 1,
    timestamp: number,
    duration: number,
    bytes: number,
    alpha: number,
  ])[];
}

interface Place {
  readonly head: Head;
  /** Where its body begins. */
  readonly body: number;
  readonly length: number;
}

/**
 * What a render has written so far, kept on disk group by group, so that it can go on after it was stopped at any
 * moment. A record is whole or it does not count: what is torn at the end, or damaged, is cut off with all after it.
 */
export class Journal {
  private readonly places: Place[] = [];
  private end = 0;

  private constructor(
    private readonly file: JournalFile,
    private readonly crc: (bytes: readonly Uint8Array[]) => number,
  ) {}

  /**
   * Opens what an earlier attempt has left.
   * @param identity of what is rendered and by what; a journal of another begins anew
   */
  static async open(file: JournalFile, identity: string): Promise<Journal> {
    const hash = await createCRC32();
    const journal = new Journal(file, (parts) => {
      hash.init();
      for (const part of parts) hash.update(part);
      return Number.parseInt(hash.digest('hex'), 16);
    });
    const size = file.getSize();
    for (let next = journal.at(0, size); next; next = journal.at(journal.end, size)) {
      if (journal.end === 0 && next.head.identity !== identity) break;
      journal.end = next.body + next.length;
      journal.places.push(next);
    }
    if (journal.end < size) file.truncate(journal.end);
    if (journal.end === 0) journal.record({ identity, frames: [] }, []);
    return journal;
  }

  /** Whole groups it holds. */
  get groups(): number {
    return this.places.length - 1;
  }

  read(index: number): WrittenGroup {
    const { head, body, length } = this.places[index + 1]!;
    const bytes = new Uint8Array(length);
    this.file.read(bytes, { at: body });
    let at = 0;
    const next = (count: number) => {
      at += count;
      return bytes.subarray(at - count, at);
    };
    return {
      frames: head.frames.map(([key, timestamp, duration, data, alpha]) => ({
        ...{ data: next(data), key: key === 1, timestamp, duration },
        ...(alpha > 0 ? { alpha: next(alpha) } : {}),
      })),
      ...(head.config ? { config: decoderConfig(head.config) } : {}),
    };
  }

  /** @throws {Error} when the disk is full; what was written before stays */
  append({ frames, config }: WrittenGroup): void {
    const head: Head = {
      ...(config ? { config: plainConfig(config) } : {}),
      frames: frames.map((f) => [
        ...([f.key ? 1 : 0, f.timestamp, f.duration] as const),
        ...([f.data.byteLength, f.alpha?.byteLength ?? 0] as const),
      ]),
    };
    this.record(
      head,
      frames.flatMap((f) => (f.alpha ? [f.data, f.alpha] : [f.data])),
    );
  }

  close(): void {
    this.file.close();
  }

  private record(head: Head, body: readonly Uint8Array[]): void {
    const text = new TextEncoder().encode(JSON.stringify(head));
    const length = body.reduce((sum, b) => sum + b.byteLength, 0);
    const lead = new DataView(new ArrayBuffer(LEAD));
    lead.setUint32(0, MARK);
    lead.setUint32(4, text.byteLength);
    lead.setUint32(8, length);
    lead.setUint32(12, this.crc([text, ...body]));
    let at = this.end;
    for (const part of [new Uint8Array(lead.buffer), text, ...body]) {
      if (!writtenWhole(this.file, part, at)) {
        this.file.truncate(this.end);
        throw new Error(
          'The disk is full. Free some space and try again: the render goes on where it stopped.',
        );
      }
      at += part.byteLength;
    }
    this.file.flush();
    this.places.push({ head, body: at - length, length });
    this.end = at;
  }

  /** The record at a place, if it is whole. */
  private at(place: number, size: number): Place | undefined {
    if (place + LEAD > size) return undefined;
    const lead = new DataView(this.bytes(place, LEAD).buffer);
    const [text, length] = [lead.getUint32(4), lead.getUint32(8)];
    const body = place + LEAD + text;
    if (lead.getUint32(0) !== MARK || body + length > size) return undefined;
    const head = this.bytes(place + LEAD, text);
    if (this.crc([head, this.bytes(body, length)]) !== lead.getUint32(12)) return undefined;
    return { head: JSON.parse(new TextDecoder().decode(head)) as Head, body, length };
  }

  private bytes(at: number, length: number): Uint8Array<ArrayBuffer> {
    const bytes = new Uint8Array(length);
    this.file.read(bytes, { at });
    return bytes;
  }
}

/** Writes a part of a file. @returns whether there was room for it */
export function writtenWhole(file: Pick<JournalFile, 'write'>, data: Uint8Array, at: number): boolean {
  try {
    return file.write(data, { at }) === data.byteLength;
  } catch (error) {
    // Browsers that give no more room throw this, or write less.
    if ((error as Error).name === 'QuotaExceededError') return false;
    throw error;
  }
}

/** As JSON can hold it. */
function plainConfig({ description, ...config }: VideoDecoderConfig): NonNullable<Head['config']> {
  if (!description) return config;
  const view = ArrayBuffer.isView(description)
    ? new Uint8Array(description.buffer, description.byteOffset, description.byteLength)
    : new Uint8Array(description as ArrayBuffer);
  return { ...config, description: [...view] };
}

const decoderConfig = ({ description, ...config }: NonNullable<Head['config']>): VideoDecoderConfig =>
  description ? { ...config, description: Uint8Array.from(description) } : config;

const FOLDER = 'unfinished';

/** Times that a file is asked for: a tab that was closed lets go of it a moment later. */
const TRIES = 20;

/**
 * Opens the journal of a render, in a worker.
 * @returns nothing where the browser keeps no private files: such a render begins anew when it was stopped
 */
export async function openJournal(id: string, identity: string): Promise<Journal | undefined> {
  const folder = await privateFolder(FOLDER, true);
  if (!folder) return undefined;
  const handle = (await folder.getFileHandle(id, { create: true })) as unknown as {
    createSyncAccessHandle?(): Promise<JournalFile>;
  };
  if (!handle.createSyncAccessHandle) return undefined;
  for (let tries = 1; ; tries++) {
    try {
      return await Journal.open(await handle.createSyncAccessHandle(), identity);
    } catch (error) {
      if (tries === TRIES || (error as Error).name !== 'NoModificationAllowedError') throw error;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  }
}

/** Removes what a render has left that will not go on. */
export async function removeJournal(id: string): Promise<void> {
  const folder = await privateFolder(FOLDER, false);
  await folder?.removeEntry(id).catch(() => undefined);
}

/** Removes journals of renders that are not in the queue any more. */
export async function clearJournals(queued: ReadonlySet<string>): Promise<void> {
  const folder = await privateFolder(FOLDER, false);
  if (!folder) return;
  for (const name of await namesIn(folder)) if (!queued.has(name)) await removeJournal(name);
}
