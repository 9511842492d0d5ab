import {
  openDocument,
  parseJson,
  type Rate,
  SEQUENCE_FILE,
  type Sequence,
  sequenceFrame,
  sequenceKind,
} from '@fresh-reel/core';
import { type ReadRange, ZipFiles, zipBytes } from '../disk/zip';
import type { ClipSample, ClipSource } from './clip';

/** Numbered pictures that are one clip, in their order. */
export interface Frames {
  readonly rate: Rate;
  readonly names: readonly string[];
  /** @throws {Error} when the picture is damaged */
  read(index: number): Promise<Blob>;
}

/** The bytes a sequence is stored as: a zip of its pictures, and what says how they follow each other. */
export function sequenceBytes(files: readonly File[], rate: Rate): AsyncGenerator<Uint8Array> {
  const { num, den } = rate;
  const document: Sequence = {
    format: 'freshreel/sequence',
    version: 1,
    rate: { num, den },
    frames: files.map((f) => f.name),
  };
  return zipBytes([
    { name: SEQUENCE_FILE, content: new Blob([JSON.stringify(document)]) },
    ...files.map((file) => ({ name: file.name, content: file })),
  ]);
}

/**
 * Opens a stored sequence.
 * @throws {Error} when the zip is damaged; {DocumentError} when it holds no sequence
 */
export async function openFrames(size: number, range: ReadRange): Promise<Frames> {
  const files = await ZipFiles.open(size, range);
  const { rate, frames } = openDocument(
    sequenceKind,
    files.has(SEQUENCE_FILE) ? parseJson(await files.text(SEQUENCE_FILE), sequenceKind.title) : null,
  );
  return { rate, names: frames, read: (index) => files.blob(frames[index]!) };
}

/** A sequence as a clip. */
export function sequenceSource(frames: Frames, facts: ClipSource['facts']): ClipSource {
  const { rate, names } = frames;
  async function* samples(from: number): AsyncGenerator<ClipSample, void, unknown> {
    for (let i = sequenceFrame(from, rate, names.length); i < names.length; i++) {
      const bitmap = await createImageBitmap(await frames.read(i));
      yield {
        timestamp: (i * rate.den) / rate.num,
        draw: (context, x, y, w, h) => context.drawImage(bitmap, x, y, w, h),
        close: () => bitmap.close(),
      };
    }
  }
  return { facts, samples, dispose: () => undefined };
}
