import type { Rect } from '../geometry/rect';
import type { Axes, FontFace } from './fonts';

export interface TextStyle {
  readonly family: string;
  readonly weight: number;
  /** Axes of a variable font besides its weight. */
  readonly axes?: Axes;
  /** Em size in frame units. */
  readonly size: number;
  /** Thousandths of an em added between letters. */
  readonly tracking: number;
  /** Baseline to baseline, as a multiple of the size. */
  readonly leading: number;
  readonly align: 'start' | 'middle' | 'end';
  readonly case: 'as-typed' | 'upper' | 'lower';
  /** Figures all as wide, where the font has such. */
  readonly evenFigures?: boolean;
}

/** A part of the text with a weight of its own. Indices are UTF-16, into the words; runs are in order and apart. */
export interface WeightRun {
  readonly from: number;
  readonly to: number;
  readonly weight?: number;
}

/** What to do when words are longer than their place. */
export interface FitRule {
  /** Widest a line may be, in frame units. */
  readonly width: number;
  /** Tallest the text may be, in frame units; none when absent. */
  readonly height?: number;
  /** Most lines. */
  readonly lines: number;
  /** Smallest part of the size the text may shrink to, 0..1. */
  readonly least: number;
  /** Lines are made as even as their number allows, so that no word is left alone. Long texts are not balanced. */
  readonly balance?: boolean;
}

/** What motion works on. */
export type Unit = 'letter' | 'word' | 'line' | 'whole';

export interface PlacedGlyph {
  readonly face: FontFace;
  readonly glyph: number;
  /** Origin on the baseline, in frame units from the text's top left. */
  readonly x: number;
  readonly y: number;
  readonly advance: number;
  readonly letter: number;
  readonly word: number;
  readonly line: number;
  /** Range of the words, in UTF-16 indices, this glyph stands for. */
  readonly from: number;
  readonly to: number;
  /** Number of the run it is in; −1 when in none. */
  readonly run: number;
  /** The characters, for colour glyphs, which the canvas draws itself. */
  readonly picture?: string;
}

export interface TextLine {
  /** Number of the paragraph it belongs to. */
  readonly paragraph: number;
  readonly x: number;
  readonly width: number;
  readonly baseline: number;
  readonly top: number;
  readonly bottom: number;
}

export interface TextLayout {
  readonly width: number;
  readonly height: number;
  /** Em size after fitting. */
  readonly size: number;
  readonly glyphs: readonly PlacedGlyph[];
  readonly lines: readonly TextLine[];
  /** Box of every letter, word, line, and the whole, in reading order. */
  readonly units: Readonly<Record<Unit, readonly Rect[]>>;
  readonly fit: FitReport;
  /** Graphemes no loaded font has. */
  readonly missing: readonly string[];
}

export interface FitReport {
  /** 1 when nothing shrank. */
  readonly scale: number;
  /** The words cut off because even the smallest size had no room; empty when all fit. */
  readonly cut: string;
}
