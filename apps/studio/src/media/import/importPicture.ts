import { decodeVector } from '../../decode/picture';
import { inMemory } from '../../storage/bytes';
import { type MediaRecord, type StoredFile, storeMedia } from '../../storage/media';
import { hasAlpha } from './alpha';
import { pngSize, sniffPicture } from './sniff';
import { cleanSvg } from './svg';
import { writeThumb } from './thumb';

/** A picture cannot be used; the message says why and what to do. */
export class PictureError extends Error {
  override readonly name = 'PictureError';
}

export interface ImportedPicture {
  readonly record: MediaRecord;
  /** What was changed on the way in, in words. */
  readonly notes: readonly string[];
}

/** Longest side kept; four times a full-HD frame's width leaves room to zoom. */
const LONGEST = 4096;
/** More pixels than this are refused before decoding: they would not fit in memory. */
const MOST_PIXELS = 16384 * 16384;
const MOST_BYTES = 200 * 1024 * 1024;

/**
 * Takes a picture file in: checks what it is, cleans or shrinks it, stores it.
 * @throws {PictureError} when it is not a usable picture
 * @throws {StorageError} when there is no room
 */
export async function importPicture(file: File): Promise<ImportedPicture> {
  if (file.size === 0) throw new PictureError(`"${file.name}" is empty (0 bytes). Choose another file.`);
  if (file.size > MOST_BYTES) {
    throw new PictureError(`"${file.name}" is larger than 200 MB. Export a smaller copy of it.`);
  }
  const bytes = new Uint8Array(await file.arrayBuffer());
  const type = sniffPicture(bytes);
  if (!type) {
    throw new PictureError(
      `"${file.name}" is not a picture that can be read. Use a PNG, JPEG, WebP, GIF, AVIF or SVG file.`,
    );
  }
  return type === 'image/svg+xml' ? importVector(file.name, bytes) : importRaster(file.name, bytes, type);
}

async function importVector(name: string, bytes: Uint8Array): Promise<ImportedPicture> {
  let svg: ReturnType<typeof cleanSvg>;
  try {
    svg = cleanSvg(new TextDecoder().decode(bytes), name);
  } catch (error) {
    throw new PictureError((error as Error).message);
  }
  const clean = new TextEncoder().encode(svg.text);
  const drawn = await decodeVector(new Blob([clean], { type: 'image/svg+xml' }), svg.width, svg.height).catch(
    () => {
      throw new PictureError(
        `"${name}" is an SVG that the browser cannot draw. Export it again from your drawing program.`,
      );
    },
  );
  const file = await inMemory(clean);
  // The small picture comes first: whoever hears of the file finds it.
  await writeThumb(file.hash, svg.width, svg.height, (c, w, h) => c.drawImage(drawn, 0, 0, w, h));
  drawn.close();
  const record = await storeMedia(file, {
    kind: 'picture',
    name,
    type: 'image/svg+xml',
    width: svg.width,
    height: svg.height,
    alpha: true,
  });
  return { record, notes: svg.notes };
}

async function importRaster(name: string, bytes: Uint8Array, type: string): Promise<ImportedPicture> {
  const announced = type === 'image/png' ? pngSize(bytes) : { width: 0, height: 0 };
  if (announced.width * announced.height > MOST_PIXELS) {
    throw new PictureError(
      `"${name}" says it is ${announced.width} × ${announced.height} pixels, more than can be opened. Export a smaller copy.`,
    );
  }
  const broken = () =>
    new PictureError(
      `"${name}" is damaged: the picture in it cannot be read to its end. Export or download it again.`,
    );
  const blob = new Blob([bytes as BlobPart], { type });
  const bitmap = await createImageBitmap(blob).catch(() => {
    throw broken();
  });
  const { width, height } = bitmap;
  const k = Math.min(1, LONGEST / Math.max(width, height));
  const canvas = new OffscreenCanvas(Math.max(1, Math.round(width * k)), Math.max(1, Math.round(height * k)));
  const context = canvas.getContext('2d', { willReadFrequently: false })!;
  context.imageSmoothingQuality = 'high';
  context.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
  const alpha = type !== 'image/jpeg' && hasAlpha(canvas);
  const small = ({ hash }: StoredFile) =>
    writeThumb(hash, canvas.width, canvas.height, (c, w, h) => c.drawImage(canvas, 0, 0, w, h));
  if (k === 1) {
    const facts = { kind: 'picture', name, type, width, height, alpha } as const;
    const file = await inMemory(bytes);
    await small(file);
    return { record: await storeMedia(file, facts), notes: [] };
  }
  const smaller = await canvas.convertToBlob(
    alpha ? { type: 'image/png' } : { type: 'image/jpeg', quality: 0.93 },
  );
  const file = await inMemory(new Uint8Array(await smaller.arrayBuffer()));
  await small(file);
  const record = await storeMedia(file, {
    kind: 'picture',
    name,
    type: smaller.type,
    width: canvas.width,
    height: canvas.height,
    alpha,
  });
  return {
    record,
    notes: [
      `This picture is ${width} × ${height} pixels. It is kept at ${canvas.width} × ${canvas.height}, which is plenty for a film.`,
    ],
  };
}
