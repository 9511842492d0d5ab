declare module 'harfbuzzjs/hb.js' {
  const createModule: (options: { wasmBinary: ArrayBuffer | Uint8Array }) => Promise<unknown>;
  export default createModule;
}
declare module 'harfbuzzjs/hbjs.js' {
  import type { HarfBuzz } from './text/harfbuzz';

  const wrap: (module: unknown) => HarfBuzz;
  export default wrap;
}
declare module 'bidi-js' {
  interface Bidi {
    getEmbeddingLevels(
      text: string,
      direction?: 'ltr' | 'rtl' | 'auto',
    ): { levels: Uint8Array; paragraphs: { start: number; end: number; level: number }[] };
    getReorderSegments(
      text: string,
      levels: { levels: Uint8Array; paragraphs: { start: number; end: number; level: number }[] },
      start?: number,
      end?: number,
    ): [number, number][];
  }
  export default function bidiFactory(): Bidi;
}
declare module 'linebreak' {
  export default class LineBreaker {
    constructor(text: string);
    nextBreak(): { position: number; required: boolean } | null;
  }
}
declare module 'gifenc/dist/gifenc.esm.js' {
  /** Colours as red, green and blue, 0..255. */
  export type Palette = number[][];
  type Pixels = Uint8Array | Uint8ClampedArray;
  /** @param rgba the whole of its buffer */
  export function quantize(rgba: Pixels, most: number, options?: { format?: 'rgb565' | 'rgb444' }): Palette;
  export function applyPalette(rgba: Pixels, palette: Palette, format?: 'rgb565' | 'rgb444'): Uint8Array;
  export function GIFEncoder(options: { auto: boolean }): {
    writeFrame(
      index: Uint8Array,
      width: number,
      height: number,
      options: { palette: Palette; transparent: boolean; transparentIndex: number; dispose: number },
    ): void;
    bytes(): Uint8Array;
  };
}
