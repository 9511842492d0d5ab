import { type FileHandle, open } from 'node:fs/promises';
import {
  type MediaFacts,
  openDocument,
  type Picture,
  parseJson,
  type Rate,
  SEQUENCE_FILE,
  secondsAt,
  sequenceFrame,
  sequenceKind,
} from '@fresh-reel/core';
import { loadImage } from '@napi-rs/canvas';
import { type FileEntry, TextWriter, Uint8ArrayWriter, ZipReader } from '@zip.js/zip.js/index-native.js';
import { ZipFileReader } from './zipFile';

/** Decoded pictures kept of one sequence, beyond those that are wanted together. */
const MOST_KEPT = 8;

/** Numbered pictures as one clip, read from their zip as they are wanted. */
export class NodeSequence {
  private readonly kept = new Map<number, Picture>();

  private constructor(
    private readonly file: FileHandle,
    private readonly entries: readonly FileEntry[],
    private readonly rate: Rate,
    readonly facts: MediaFacts & { readonly duration: number },
  ) {}

  /** @throws {Error} when the file is no zip, or holds no sequence */
  static async open(path: string): Promise<NodeSequence> {
    const file = await open(path);
    try {
      const reader = new ZipFileReader(file, (await file.stat()).size);
      const held = new Map<string, FileEntry>();
      for (const entry of await new ZipReader(reader).getEntries()) {
        if (!entry.directory) held.set(entry.filename, entry);
      }
      const text = await held.get(SEQUENCE_FILE)?.getData(new TextWriter());
      const { rate, frames } = openDocument(
        sequenceKind,
        text === undefined ? null : parseJson(text, sequenceKind.title),
      );
      const entries = frames.map((name) => {
        const entry = held.get(name);
        if (!entry) throw new Error(`"${name}" is missing from "${path}".`);
        return entry;
      });
      const { width, height } = await decoded(entries[0]!);
      const duration = secondsAt(entries.length, rate);
      return new NodeSequence(file, entries, rate, {
        width,
        height,
        duration,
        rate: rate.num / rate.den,
        sound: false,
      });
    } catch (error) {
      await file.close();
      throw error;
    }
  }

  /** The picture at a second, when it has been made ready. */
  frame(at: number): Picture | undefined {
    return this.kept.get(this.indexAt(at));
  }

  /** Decodes the pictures at some seconds, so that they can be painted together. */
  async ready(seconds: readonly number[]): Promise<void> {
    const wanted = new Set(seconds.map((at) => this.indexAt(at)));
    for (const index of wanted) {
      if (!this.kept.has(index)) this.kept.set(index, await decoded(this.entries[index]!));
    }
    const others = [...this.kept.keys()].filter((index) => !wanted.has(index));
    for (const index of others.slice(0, -MOST_KEPT)) this.kept.delete(index);
  }

  close(): void {
    void this.file.close();
  }

  private indexAt(at: number): number {
    return sequenceFrame(at, this.rate, this.entries.length);
  }
}

async function decoded(entry: FileEntry): Promise<Picture> {
  const image = await loadImage(Buffer.from(await entry.getData(new Uint8ArrayWriter())));
  return { image, width: image.width, height: image.height };
}
