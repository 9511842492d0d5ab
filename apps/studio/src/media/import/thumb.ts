import { toBase64 } from '../../storage/bytes';
import { store, write } from '../../storage/store';

/** Longest side of a small picture, in pixels. */
const SIDE = 320;

type Draw = (context: OffscreenCanvasRenderingContext2D, width: number, height: number) => void;

/** Makes the small picture of a file for the shelf. @returns its data URL */
export async function makeThumb(width: number, height: number, draw: Draw): Promise<string> {
  const k = Math.min(1, SIDE / Math.max(width, height));
  const canvas = new OffscreenCanvas(Math.max(1, Math.round(width * k)), Math.max(1, Math.round(height * k)));
  const context = canvas.getContext('2d')!;
  context.imageSmoothingQuality = 'high';
  draw(context, canvas.width, canvas.height);
  // WebP keeps transparent parts and is small.
  const blob = await canvas.convertToBlob({ type: 'image/webp', quality: 0.85 });
  const bytes = new Uint8Array(await blob.arrayBuffer());
  return `data:${blob.type};base64,${toBase64(bytes)}`;
}

export async function keepThumb(hash: string, thumb: string): Promise<void> {
  await write({ [`thumb/${hash}`]: thumb });
}

/** Makes the small picture of a file and keeps it. */
export async function writeThumb(hash: string, width: number, height: number, draw: Draw): Promise<void> {
  await keepThumb(hash, await makeThumb(width, height, draw));
}

/** The small picture of a file as an address an <img> can show. */
export function readThumb(hash: string): Promise<string | null> {
  return store.getItem(`thumb/${hash}`);
}

/** Peaks of a sound, 0..1. */
export async function readWave(hash: string): Promise<readonly number[] | null> {
  const text = await store.getItem(`wave/${hash}`);
  return text === null ? null : JSON.parse(text);
}
