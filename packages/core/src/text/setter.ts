import type { Rect } from '../geometry/rect';
import { isEmpty, union } from '../geometry/rect';
import { type Break, type BrokenLine, breakLines, lineBreaks, wordStarts } from './breaking';
import type { FontBook, FontFace } from './fonts';
import { pieceStart } from './joining';
import { type ItemStyle, itemise, type LineGlyph, type Paragraph, shapeLine } from './shaping';
import type { PlacedGlyph, TextLayout, TextLine, TextStyle, WeightRun } from './textLayout';

/** Where the lines of a text end at some width. */
export interface Setting {
  readonly paragraphs: readonly Paragraph[];
  readonly lines: readonly { paragraph: number; line: BrokenLine }[];
  /** Whether a word had to be broken. */
  readonly broken: boolean;
  readonly width: number;
}

/** A paragraph's part of the runs: weights and borders, by index within the paragraph. */
function itemStyle(style: TextStyle, runs: readonly WeightRun[], start: number): ItemStyle {
  return {
    family: style.family,
    ...(style.axes ? { axes: style.axes } : {}),
    weightAt: (index) =>
      runs.find((r) => start + index >= r.from && start + index < r.to)?.weight ?? style.weight,
    borders: new Set(runs.flatMap((r) => [r.from - start, r.to - start])),
  };
}

/** How far, in ems, accents and descenders may reach past capitals and baseline without making the box larger. */
const ACCENT = 0.26;
const DESCENDER = 0.28;

/** Shapes a text once and sets it at any width. Widths are in ems, since shaping does not depend on the size. */
export class Setter {
  private readonly paragraphs: Paragraph[];
  /** Index, in the whole text, at which each paragraph starts. */
  private readonly starts: readonly number[];
  private readonly tracking: number;
  private readonly primary: FontFace;
  private readonly shaped: Map<string, { glyphs: LineGlyph[]; width: number }>[];
  /** Advance of the text before each index, per paragraph: a quick measure for breaking. */
  private readonly pens: Float64Array[];
  private readonly breaks: Break[][];

  constructor(
    text: string,
    private readonly style: TextStyle,
    private readonly runs: readonly WeightRun[],
    fonts: FontBook,
  ) {
    this.tracking = style.tracking / 1000;
    this.primary = fonts.match(style.family, style.weight, style.axes);
    let at = 0;
    const texts = text.split('\n');
    this.starts = texts.map((p) => {
      const start = at;
      at += p.length + 1;
      return start;
    });
    this.paragraphs = texts.map((p, i) => itemise(p, fonts, itemStyle(style, runs, this.starts[i]!)));
    this.shaped = this.paragraphs.map(() => new Map());
    this.breaks = this.paragraphs.map((p) => lineBreaks(p.text));
    this.pens = this.paragraphs.map((p, i) => {
      const pens = new Float64Array(p.text.length + 1);
      for (const g of this.line(i, 0, p.text.length).glyphs) pens[g.to] = (pens[g.to] ?? 0) + g.advance;
      for (let i = 1; i < pens.length; i++) pens[i] = pens[i]! + pens[i - 1]!;
      return pens;
    });
  }

  private line(paragraph: number, from: number, to: number): { glyphs: LineGlyph[]; width: number } {
    const kept = this.shaped[paragraph]!;
    const key = `${from}:${to}`;
    let made = kept.get(key);
    if (!made) {
      const features = this.style.evenFigures ? 'tnum=1' : '';
      made = shapeLine(this.paragraphs[paragraph]!, from, to, this.tracking, features);
      kept.set(key, made);
    }
    return made;
  }

  set(width: number): Setting {
    const lines: { paragraph: number; line: BrokenLine }[] = [];
    let broken = false;
    let widest = 0;
    this.paragraphs.forEach((p, paragraph) => {
      const pens = this.pens[paragraph]!;
      const measure = (from: number, to: number) =>
        Math.max(0, pens[to]! - pens[from]! - (to > from ? this.tracking : 0));
      const set = breakLines(p.text, width + 1e-6, measure, this.breaks[paragraph]!);
      broken ||= set.broken;
      for (const line of set.lines) {
        lines.push({ paragraph, line });
        widest = Math.max(widest, measure(line.from, line.to));
      }
    });
    return { paragraphs: this.paragraphs, lines, broken, width: widest };
  }

  /** Index, in the whole text, of the end of a line. */
  textIndex({ paragraph, line }: Setting['lines'][number]): number {
    return this.starts[paragraph]! + line.to;
  }

  /** Height in ems: cap top of the first line to baseline of the last, more where glyphs reach farther. */
  height(setting: Setting): number {
    return this.extents(setting).height;
  }

  /**
   * A Latin line counts from its capitals to its baseline, so that margins look even whatever the letters; marks and
   * other scripts that reach beyond an ordinary accent or descender make the box larger.
   */
  private extents(setting: Setting): { top: number; height: number } {
    const first = this.reach(setting, 0).above;
    const last = this.reach(setting, setting.lines.length - 1).below;
    const top = Math.max(this.primary.capHeight, first - ACCENT);
    return {
      top,
      height: top + (setting.lines.length - 1) * this.style.leading + Math.max(0, last - DESCENDER),
    };
  }

  private reach(setting: Setting, index: number): { above: number; below: number } {
    const { paragraph, line } = setting.lines[index]!;
    let [above, below] = [0, 0];
    for (const g of this.line(paragraph, line.from, line.to).glyphs) {
      const ink = g.face.ink(g.glyph);
      above = Math.max(above, -(ink.top + g.y));
      below = Math.max(below, ink.bottom + g.y);
    }
    return { above, below };
  }

  place(setting: Setting, scale: number, cut: string): TextLayout {
    const size = this.style.size * scale;
    const { top, height } = this.extents(setting);
    const shapedLines = setting.lines.map(({ paragraph, line }) => this.line(paragraph, line.from, line.to));
    const width = shapedLines.reduce((most, l) => Math.max(most, l.width), 0) * size;
    const glyphs: PlacedGlyph[] = [];
    const lines: TextLine[] = [];
    // By index in the whole text.
    const letterIndex = new Map<number, number>();
    const starts = this.paragraphs.map((p) => wordStarts(p.text));
    let words = 0;
    const runAt = (index: number) => this.runs.findIndex((r) => index >= r.from && index < r.to);
    setting.lines.forEach(({ paragraph }, lineNumber) => {
      const p = this.paragraphs[paragraph]!;
      const shaped = shapedLines[lineNumber]!;
      const align = p.rightToLeft
        ? ({ start: 1, middle: 0.5, end: 0 } as const)
        : ({ start: 0, middle: 0.5, end: 1 } as const);
      const x = (width - shaped.width * size) * align[this.style.align];
      const baseline = (top + lineNumber * this.style.leading) * size;
      // Marks above and below are part of the line, in whichever font they come.
      const reach = this.reach(setting, lineNumber);
      lines.push({
        paragraph,
        x,
        width: shaped.width * size,
        baseline,
        top: baseline - Math.max(this.primary.capHeight, this.primary.ascent * 0.9, reach.above) * size,
        bottom: baseline + Math.max(this.primary.descent, reach.below) * size,
      });
      // Units are numbered in reading order, which for right-to-left runs is not the order of the glyphs.
      const reading = [...shaped.glyphs].sort((a, b) => a.from - b.from);
      const start = this.starts[paragraph]!;
      const wordIndex = new Map<number, number>();
      let [next, word] = [0, -1];
      for (const g of reading) {
        const letter = start + pieceStart(p.text, g.from);
        if (!letterIndex.has(letter)) letterIndex.set(letter, letterIndex.size);
        // A word that goes on in the next line is one there too.
        while (next < starts[paragraph]!.length && starts[paragraph]![next]! <= g.from) {
          next++;
          word = -1;
        }
        if (word < 0) word = words++;
        wordIndex.set(g.from, word);
      }
      let pictured = -1;
      for (const g of shaped.glyphs) {
        // The canvas draws a whole colour cluster at once, however many glyphs it has.
        if (g.face.colour && pictured === g.from) continue;
        if (g.face.colour) pictured = g.from;
        glyphs.push({
          face: g.face,
          glyph: g.glyph,
          x: x + g.x * size,
          y: baseline + g.y * size,
          advance: g.advance * size,
          letter: letterIndex.get(start + pieceStart(p.text, g.from))!,
          word: wordIndex.get(g.from)!,
          line: lineNumber,
          from: start + g.from,
          to: start + g.to,
          run: runAt(start + g.from),
          ...(g.face.colour ? { picture: p.text.slice(g.from, g.to) } : {}),
        });
      }
    });
    const heightUnits = height * size;
    const box = { x: 0, y: 0, width, height: heightUnits };
    const grouped = (of: 'letter' | 'word') => groupBoxes(glyphs, lines, of);
    return {
      width,
      height: heightUnits,
      size,
      glyphs,
      lines,
      units: {
        letter: grouped('letter'),
        word: grouped('word'),
        line: lines.map((l) => ({ x: l.x, y: l.top, width: l.width, height: l.bottom - l.top })),
        whole: [box],
      },
      fit: { scale, cut },
      missing: this.paragraphs.flatMap((p) => p.missing),
    };
  }
}

function groupBoxes(
  glyphs: readonly PlacedGlyph[],
  lines: readonly TextLine[],
  of: 'letter' | 'word',
): Rect[] {
  const boxes: Rect[] = [];
  for (const g of glyphs) {
    const line = lines[g.line]!;
    const box = { x: g.x, y: line.top, width: Math.max(g.advance, 1e-3), height: line.bottom - line.top };
    const held = boxes[g[of]];
    boxes[g[of]] = held && !isEmpty(held) ? union(held, box) : box;
  }
  return boxes;
}
