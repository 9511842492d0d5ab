import { readMedia, readMediaRecord } from '../storage/media';
import { assetUrl, kindOfFile } from './assets';

/** A picture decoded by the page and handed to a worker. Width and height are what the picture counts as. */
export interface DecodedPicture {
  readonly bitmap: ImageBitmap;
  readonly width: number;
  readonly height: number;
}

/** Vector pictures are drawn at this longest side, enough for a full frame. */
const VECTOR_SIDE = 2048;

/** Draws an SVG to a bitmap. As an image, it runs no scripts and fetches nothing. */
export async function decodeVector(blob: Blob, width: number, height: number): Promise<ImageBitmap> {
  const url = URL.createObjectURL(blob);
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    const k = VECTOR_SIDE / Math.max(width, height);
    const canvas = new OffscreenCanvas(
      Math.max(1, Math.round(width * k)),
      Math.max(1, Math.round(height * k)),
    );
    canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
    return canvas.transferToImageBitmap();
  } finally {
    URL.revokeObjectURL(url);
  }
}

/** Bytes of a picture by its media id, with its own size where that is known. */
async function source(media: string): Promise<{ blob: Blob; width?: number; height?: number } | null> {
  const asset = assetUrl(media);
  if (asset) {
    if (kindOfFile(asset) !== 'picture') return null;
    const response = await fetch(asset);
    return response.ok ? { blob: await response.blob() } : null;
  }
  const hash = media.replace(/^sha256:/, '');
  // The record first: a clip's bytes are not for reading whole.
  const record = await readMediaRecord(hash);
  if (record?.kind !== 'picture') return null;
  const held = await readMedia(hash);
  const { width, height } = record;
  return held && { blob: held.blob, ...(width && height ? { width, height } : {}) };
}

/**
 * Decodes a picture for a worker. The caller transfers the bitmap, so each call makes a new one.
 * @returns null when the picture is not there (any more)
 */
export async function decodePicture(media: string): Promise<DecodedPicture | null> {
  const found = await source(media);
  if (!found) return null;
  if (found.blob.type.startsWith('image/svg')) {
    let { width, height } = found;
    if (!width || !height) {
      const text = await found.blob.text();
      const svg = new DOMParser().parseFromString(text, 'image/svg+xml').documentElement;
      width = Number(svg.getAttribute('width'));
      height = Number(svg.getAttribute('height'));
    }
    return { bitmap: await decodeVector(found.blob, width, height), width, height };
  }
  const bitmap = await createImageBitmap(found.blob);
  return { bitmap, width: bitmap.width, height: bitmap.height };
}

/** How large a picture is, from its record where that tells; else it is decoded once, and let go. */
export async function pictureSize(media: string): Promise<{ width: number; height: number } | null> {
  const record = assetUrl(media) ? null : await readMediaRecord(media.replace(/^sha256:/, ''));
  if (record && record.kind !== 'picture') return null;
  if (record?.width && record.height) return { width: record.width, height: record.height };
  const picture = await decodePicture(media);
  picture?.bitmap.close();
  return picture && { width: picture.width, height: picture.height };
}

/** A media id as an address an <img> can show; revoke it when done. */
export async function pictureUrl(media: string): Promise<{ url: string; revoke: () => void } | null> {
  const asset = assetUrl(media);
  if (asset) return { url: asset, revoke: () => undefined };
  const found = await source(media);
  if (!found) return null;
  const url = URL.createObjectURL(found.blob);
  return { url, revoke: () => URL.revokeObjectURL(url) };
}
