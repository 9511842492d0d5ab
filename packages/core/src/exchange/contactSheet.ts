import type { Reel } from '../documents/reel';
import type { Resources } from '../evaluate/graphicScene';
import { graphicsOf } from '../reel/graphicTime';
import { ReelScene } from '../reel/reelScene';
import { timecodeAt } from '../time/timecode';
import { type ExchangeTerms, titlesOf } from './titles';

/** A title as a contact sheet shows it. */
export interface SheetEntry {
  readonly name: string;
  /** What can be read in it, a line for each slot and each break. */
  readonly words: readonly string[];
  /** Timecodes of its first frame, and of the one after its last. */
  readonly from: string;
  readonly to: string;
  readonly file: string;
  /** The frame of the reel in which it is best seen. */
  readonly frame: number;
}

/** The titles of a reel for a contact sheet, in the order in which they begin. */
export function sheetEntries(reel: Reel, resources: Resources, terms: ExchangeTerms = {}): SheetEntry[] {
  const scene = new ReelScene(reel, resources);
  const { start = 0 } = terms;
  const at = (frame: number) => timecodeAt(start + frame, reel.rate);
  const ids = graphicsOf(reel).map((g) => g.id);
  return titlesOf(reel, terms).map(({ name, words, file, from, count }, i) => {
    return {
      ...{ name, file, from: at(from), to: at(from + count) },
      words: words.split('\n').filter((line) => line !== ''),
      frame: scene.stillOf(ids[i]!),
    };
  });
}

/** Where things stand on a page of a contact sheet, in parts of an inch. */
export interface SheetLayout {
  readonly columns: number;
  readonly rows: number;
  /** Of each picture. */
  readonly width: number;
  readonly height: number;
}

/** A4 on its side, its margin, the head of a page, what stands below each picture, and between two: inches. */
export const SHEET = { width: 11.69, height: 8.27, margin: 0.5, head: 0.6, words: 0.72, gap: 0.22 } as const;

/** Columns that are tried; the most that leave pictures large enough are taken. */
const COLUMNS = [3, 4, 5, 6];

/** How pictures of a frame shape are laid on a page: as large as nine or so on a page can be. */
export function sheetLayout(frame: { readonly width: number; readonly height: number }): SheetLayout {
  const room = {
    width: SHEET.width - 2 * SHEET.margin,
    height: SHEET.height - 2 * SHEET.margin - SHEET.head,
  };
  const tried = COLUMNS.map((columns) => {
    const width = (room.width - (columns - 1) * SHEET.gap) / columns;
    const height = (width * frame.height) / frame.width;
    const rows = Math.floor((room.height + SHEET.gap) / (height + SHEET.words + SHEET.gap));
    return { columns, rows, width, height };
  });
  return tried.find(({ rows, columns }) => rows * columns >= 6) ?? tried.at(-1)!;
}
