import { applyPalette, GIFEncoder, type Palette, quantize } from 'gifenc/dist/gifenc.esm.js';
import type { FrameSize } from '../../values/frame';

/** Pixels with less alpha than this are clear in a GIF, which knows no more than that. */
const CLEAR = 128;
/** Colours of a frame; one more is what shows through. */
const COLOURS = 255;

/**
 * Makes frames of a GIF, of which the first stands by itself: each has a palette of its own. Over a ground, pixels that
 * are as before are left out; with transparency each frame is whole, for what is clear has to be cleared.
 */
export class GifFrames {
  private before: Uint32Array | undefined;

  constructor(
    private readonly size: FrameSize,
    private readonly alpha: boolean,
  ) {}

  /**
   * @param rgba pixels of the whole frame, not premultiplied
   * @returns its bytes, with no delay yet (`gifDelayed`); nothing when it is the one before it once more
   */
  add(rgba: Uint8ClampedArray): Uint8Array | undefined {
    const { width, height } = this.size;
    const now = new Uint32Array(rgba.slice().buffer);
    const { before } = this;
    const kept = before ? now.map((pixel, i) => (pixel === before[i] ? 1 : 0)) : undefined;
    this.before = now;
    if (kept?.every((k) => k === 1)) return undefined;
    const left = (i: number) => (this.alpha ? rgba[4 * i + 3]! < CLEAR : kept?.[i] === 1);
    // The pixels that have a colour of their own.
    const drawn = now.filter((_, i) => !left(i));
    const palette: Palette =
      drawn.length > 0 ? quantize(new Uint8Array(drawn.buffer), COLOURS, { format: 'rgb565' }) : [[0, 0, 0]];
    const clear = palette.length;
    const index = applyPalette(rgba, palette, 'rgb565');
    for (let i = 0; i < index.length; i++) if (left(i)) index[i] = clear;
    const gif = GIFEncoder({ auto: false });
    gif.writeFrame(index, width, height, {
      palette: [...palette, [0, 0, 0]],
      transparent: true,
      transparentIndex: clear,
      // Left as it is, or cleared.
      dispose: this.alpha ? 2 : 1,
    });
    return gif.bytes();
  }
}

/** Where a frame's graphic control extension holds its delay. */
const DELAY = 4;

/** A frame that is shown for so many hundredths of a second. */
export function gifDelayed(frame: Uint8Array, hundredths: number): Uint8Array {
  const delayed = frame.slice();
  new DataView(delayed.buffer).setUint16(DELAY, Math.min(hundredths, 0xffff), true);
  return delayed;
}

/** What comes before the frames: the size, no palette for all of them, and that it plays without an end (NETSCAPE2.0). */
export function gifHead({ width, height }: FrameSize): Uint8Array {
  const bytes = new Uint8Array(13 + 19);
  bytes.set(new TextEncoder().encode('GIF89a'));
  const view = new DataView(bytes.buffer);
  view.setUint16(6, width, true);
  view.setUint16(8, height, true);
  // Eight bits a colour.
  bytes[10] = 0x70;
  bytes.set([0x21, 0xff, 11, ...new TextEncoder().encode('NETSCAPE2.0'), 3, 1, 0, 0, 0], 13);
  return bytes;
}

export const GIF_END = Uint8Array.of(0x3b);
