import crc32 from 'crc-32';
import { joinedBytes } from './bytes';

// Animated PNG: https://www.w3.org/TR/png-3/, sections 5.3 and 11.3.2.6.

const SIGNATURE = Uint8Array.of(137, 80, 78, 71, 13, 10, 26, 10);

interface Chunk {
  readonly name: string;
  readonly data: Uint8Array;
}

function chunk(name: string, ...parts: readonly Uint8Array[]): Uint8Array {
  const bytes = joinedBytes([new Uint8Array(4), new TextEncoder().encode(name), ...parts, new Uint8Array(4)]);
  const view = new DataView(bytes.buffer);
  const end = bytes.byteLength - 4;
  view.setUint32(0, end - 8);
  view.setInt32(end, crc32.buf(bytes.subarray(4, end)));
  return bytes;
}

const numbers = (...values: readonly number[]): Uint8Array => {
  const view = new DataView(new ArrayBuffer(4 * values.length));
  for (const [i, value] of values.entries()) view.setUint32(4 * i, value);
  return new Uint8Array(view.buffer);
};

function chunksOf(png: Uint8Array): Chunk[] {
  const view = new DataView(png.buffer, png.byteOffset, png.byteLength);
  const chunks: Chunk[] = [];
  for (let at = SIGNATURE.byteLength; at + 12 <= png.byteLength; ) {
    const length = view.getUint32(at);
    const name = String.fromCharCode(...png.subarray(at + 4, at + 8));
    chunks.push({ name, data: png.subarray(at + 8, at + 8 + length) });
    at += 12 + length;
  }
  return chunks;
}

/** Makes an animated PNG of PNGs that are alike in size and kind of pixels. */
export class PngFrames {
  private header: Uint8Array | undefined;
  private frames = 0;
  /** Counts what says where a frame is, and what holds its pixels. */
  private sequence = 0;

  /** What comes before the frames; written once more when all are there, for it tells how many they are. */
  head(): Uint8Array {
    const header = this.header ?? new Uint8Array(13);
    return joinedBytes([
      SIGNATURE,
      chunk('IHDR', header),
      // Played without an end.
      chunk('acTL', numbers(this.frames, 0)),
    ]);
  }

  /**
   * The next frame, in the place of the one before it.
   * @param still a PNG
   * @param delay milliseconds that it is shown
   * @returns its chunks
   * @throws {Error} when its size or its kind of pixels is not that of the first
   */
  frame(still: Uint8Array, delay: number): Uint8Array[] {
    const chunks = chunksOf(still);
    const header = chunks.find((c) => c.name === 'IHDR')?.data;
    if (!header) throw new Error('This browser wrote no PNG. Choose another kind of file.');
    this.header ??= header;
    if (header.some((byte, i) => byte !== this.header![i]))
      throw new Error('The frames of an animated PNG must have one size and one kind of pixels.');
    const control = new Uint8Array(26);
    const view = new DataView(control.buffer);
    view.setUint32(0, this.sequence++);
    control.set(header.subarray(0, 8), 4);
    view.setUint16(20, Math.min(delay, 0xffff));
    view.setUint16(22, 1000);
    const pixels = chunks
      .filter((c) => c.name === 'IDAT')
      .map(({ data }) =>
        // What cannot play it shows the first frame.
        this.frames === 0 ? chunk('IDAT', data) : chunk('fdAT', numbers(this.sequence++), data),
      );
    this.frames++;
    return [chunk('fcTL', control), ...pixels];
  }

  end(): Uint8Array {
    return chunk('IEND');
  }
}
