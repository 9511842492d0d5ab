declare module 'harfbuzzjs/hb.js' {
  const createModule: (options: { wasmBinary: ArrayBuffer | Uint8Array }) => Promise<unknown>;
  export default createModule;
}
declare module 'harfbuzzjs/hbjs.js' {
  import type { HarfBuzz } from './harfbuzz';

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
