import type { FrameSize } from '../../values/frame';
import { joinedBytes } from './bytes';

// Animated WebP: https://www.rfc-editor.org/rfc/rfc9649, section 2.7.

/** Bytes of the RIFF header, whose size is known at the end. */
const RIFF = 12;
/** What a still may hold of a frame: its transparency, and its pixels, compressed with or without loss. */
const PARTS = ['ALPH', 'VP8 ', 'VP8L'];

function chunk(name: string, data: Uint8Array): Uint8Array {
  // Chunks begin at even bytes.
  const bytes = new Uint8Array(8 + data.byteLength + (data.byteLength % 2));
  bytes.set(new TextEncoder().encode(name));
  new DataView(bytes.buffer).setUint32(4, data.byteLength, true);
  bytes.set(data, 8);
  return bytes;
}

function putUint24(bytes: Uint8Array, at: number, value: number): void {
  bytes[at] = value & 255;
  bytes[at + 1] = (value >> 8) & 255;
  bytes[at + 2] = value >> 16;
}

/** Size and content of the RIFF header. @param total bytes of the whole file */
export function webpLead(total: number): Uint8Array {
  const lead = new Uint8Array(RIFF);
  lead.set(new TextEncoder().encode('RIFF....WEBP'));
  new DataView(lead.buffer).setUint32(4, total - 8, true);
  return lead;
}

/**
 * What comes before the frames: a lead that is written once more when all are there, the size, and that it plays
 * without an end.
 * @param size at most 16384 pixels a side
 */
export function webpHead({ width, height }: FrameSize, alpha: boolean): Uint8Array {
  const canvas = new Uint8Array(10);
  canvas[0] = 0x02 | (alpha ? 0x10 : 0);
  putUint24(canvas, 4, width - 1);
  putUint24(canvas, 7, height - 1);
  return joinedBytes([webpLead(RIFF), chunk('VP8X', canvas), chunk('ANIM', new Uint8Array(6))]);
}

/**
 * A frame that takes the place of the one before it.
 * @param still a WebP of one picture, of the size of the whole
 * @param delay milliseconds that it is shown
 * @throws {Error} where that is no WebP
 */
export function webpFrame(still: Uint8Array, { width, height }: FrameSize, delay: number): Uint8Array {
  const view = new DataView(still.buffer, still.byteOffset, still.byteLength);
  const text = (at: number) => String.fromCharCode(...still.subarray(at, at + 4));
  if (still.byteLength < RIFF || text(0) !== 'RIFF' || text(8) !== 'WEBP')
    throw new Error('This browser wrote no WebP. Choose another kind of file.');
  const head = new Uint8Array(16);
  putUint24(head, 6, width - 1);
  putUint24(head, 9, height - 1);
  putUint24(head, 12, Math.min(delay, 0xffffff));
  // Not laid over the frame before it, but in its place.
  head[15] = 0x02;
  const parts: Uint8Array[] = [head];
  for (let at = RIFF; at + 8 <= still.byteLength; ) {
    const length = 8 + view.getUint32(at + 4, true);
    const end = at + length + (length % 2);
    if (PARTS.includes(text(at))) parts.push(still.subarray(at, end));
    at = end;
  }
  return chunk('ANMF', joinedBytes(parts));
}
