import { type NumberedRun, type Rate, runName } from '@fresh-reel/core';
import { hashOf, piecesOf } from '../../disk/hash';
import { importFont } from '../../fonts/importFont';
import type { FontRecord } from '../../storage/fonts';
import { forgetComing, type MediaRecord } from '../../storage/media';
import { StorageError } from '../../storage/store';
import { startWorker } from '../../workers/startWorker';
import { importPicture } from './importPicture';
import { DamagedError, damaged, MediaError, NeedsCopyError } from './mediaError';
import { type FromImport, ImportCancelled, type OriginalFile, type Take } from './messages';
import { foreignFile, sniffMedia } from './sniff';

/** A file taken in. */
export type Imported =
  | {
      readonly kind: 'media';
      readonly record: MediaRecord;
      readonly notes: readonly string[];
      /** Whether it was there already. */
      readonly again: boolean;
    }
  | { readonly kind: 'font'; readonly font: FontRecord };

export interface ImportOptions {
  readonly onProgress?: (part: number) => void;
  readonly signal?: AbortSignal;
  /** A clip that may be interlaced is refused with a {@link NeedsCopyError}, so that the user can be asked. */
  readonly asks?: boolean;
  /** SHA-256 that the file must have: one with another is refused with a {@link DamagedError}, and nothing of it is kept. */
  readonly wanted?: string | undefined;
}

/**
 * Takes any file in: a picture, a clip, a sound or a font, by what its bytes say and not by its name.
 * @throws {MediaError} or {PictureError} or {FontError} when it cannot be used, saying why
 * @throws {StorageError} when there is no room; nothing of the file stays behind
 * @throws {ImportCancelled}
 */
export async function importMedia(file: File, options: ImportOptions = {}): Promise<Imported> {
  if (file.size === 0) throw new MediaError(`"${file.name}" is empty (0 bytes). Choose another file.`);
  const start = new Uint8Array(await file.slice(0, 4200).arrayBuffer());
  const foreign = foreignFile(start);
  if (foreign) {
    const message = `"${file.name}" is ${foreign.what}, which browsers do not play or show. ${foreign.advice}`;
    if (!foreign.footage) throw new MediaError(message);
    throw new NeedsCopyError(message, { why: { codec: foreign.what }, copySize: undefined });
  }
  const { wanted } = options;
  const sniffed = sniffMedia(start);
  // What goes to the worker is hashed there, while it is stored.
  if (wanted !== undefined && sniffed !== 'stream' && sniffed !== 'zip')
    if ((await hashOf(piecesOf(file))).hash !== wanted) throw damaged(file.name);
  switch (sniffed) {
    case 'picture':
      return { kind: 'media', again: false, ...(await importPicture(file)) };
    case 'font':
      return { kind: 'font', font: await importFont(file) };
    case 'stream':
    case 'zip':
      return inWorker(
        { file, ...(options.asks ? { asks: true } : {}), ...(wanted === undefined ? {} : { wanted }) },
        file.name,
        options,
      );
    default:
      throw new MediaError(
        `"${file.name}" is not a picture, clip, sound or font, whatever its name says. Choose another file.`,
      );
  }
}

/**
 * Takes numbered pictures in as one clip.
 * @throws as {@link importMedia} does, and {MediaError} when the pictures are not all of one size
 */
export function importSequence(
  run: NumberedRun<File>,
  rate: Rate,
  options: ImportOptions = {},
): Promise<Imported> {
  const name = runName(run);
  return inWorker({ frames: run.files, name, rate }, name, options);
}

/** Takes a working copy in, as the file that it stands for. @throws as {@link importMedia} does */
export function importCopy(
  file: File,
  original: OriginalFile,
  options: ImportOptions = {},
): Promise<Imported> {
  return inWorker({ file, original }, file.name, options);
}

function inWorker(what: Take, name: string, { onProgress, signal }: ImportOptions): Promise<Imported> {
  const worker = startWorker('import');
  let storing: string | undefined;
  return new Promise<Imported>((resolve, reject) => {
    signal?.addEventListener('abort', () => {
      worker.terminate();
      const cleared = storing === undefined ? Promise.resolve() : forgetComing(storing);
      cleared.finally(() => reject(new ImportCancelled('Stopped.')));
    });
    worker.onmessage = ({ data }: MessageEvent<FromImport>) => {
      if (data.type === 'progress') {
        storing = data.storing;
        onProgress?.(data.part);
      } else if (data.type === 'done')
        resolve({ kind: 'media', record: data.record, notes: [], again: data.again });
      else if (data.type === 'fault') reject(faultOf(data));
    };
    worker.onerror = (event) =>
      reject(new MediaError(event.message || `"${name}" could not be taken in. Reload and try again.`));
    worker.postMessage(what);
  }).finally(() => worker.terminate());
}

function faultOf({ message, full, damaged: other, needs }: FromImport & { type: 'fault' }): Error {
  if (full) return new StorageError(message, true);
  if (other) return new DamagedError(message);
  return needs ? new NeedsCopyError(message, needs) : new MediaError(message);
}
