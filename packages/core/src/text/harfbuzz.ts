import createModule from 'harfbuzzjs/hb.js';
import wrap from 'harfbuzzjs/hbjs.js';

/** One glyph as HarfBuzz places it, in font units, y upwards. */
export interface ShapedGlyph {
  /** Glyph number in the font; 0 is "no such letter". */
  g: number;
  /** UTF-16 index, in the text given, of the first character this glyph stands for. */
  cl: number;
  ax: number;
  ay: number;
  dx: number;
  dy: number;
}

/** An axis of a variable font (OpenType `fvar`). */
export interface FontAxis {
  readonly min: number;
  readonly default: number;
  readonly max: number;
}

export interface HarfBuzzFace {
  upem: number;
  collectUnicodes(): Uint32Array;
  /** A name from the font's `name` table; empty when it is not there. */
  getName(id: number, language: string): string;
  /** The bytes of a table, or nothing. */
  reference_table(tag: string): Uint8Array | undefined;
  /** Axes of a variable font, by tag; empty for others. */
  getAxisInfos(): Record<string, FontAxis>;
  destroy(): void;
}
export interface HarfBuzzFont {
  hExtents(): { ascender: number; descender: number; lineGap: number };
  glyphExtents(glyph: number): { xBearing: number; yBearing: number; width: number; height: number } | null;
  glyphToJson(glyph: number): { type: string; values: number[] }[];
  setVariations(values: Readonly<Record<string, number>>): void;
  destroy(): void;
}
export interface HarfBuzzBuffer {
  addText(text: string, from?: number, length?: number | null): void;
  guessSegmentProperties(): void;
  setDirection(direction: 'ltr' | 'rtl'): void;
  setScript(script: string): void;
  json(): ShapedGlyph[];
  destroy(): void;
}
/** The part of harfbuzzjs that is used here. */
export interface HarfBuzz {
  createBlob(bytes: ArrayBuffer): { destroy(): void };
  createFace(blob: { destroy(): void }, index: number): HarfBuzzFace;
  createFont(face: HarfBuzzFace): HarfBuzzFont;
  createBuffer(): HarfBuzzBuffer;
  shape(font: HarfBuzzFont, buffer: HarfBuzzBuffer, features?: string): void;
}

/** Starts HarfBuzz from the bytes of `harfbuzzjs/hb.wasm`. */
export async function loadHarfBuzz(wasm: ArrayBuffer | Uint8Array): Promise<HarfBuzz> {
  return wrap(await createModule({ wasmBinary: wasm }));
}
