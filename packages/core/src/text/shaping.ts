import bidiFactory from 'bidi-js';
import type { Axes, FontBook, FontFace } from './fonts';
import { joinsLetters } from './joining';
import { type AnyScript, graphemes, scriptOf } from './scripts';
import type { Segment } from './segments';

const bidi = bidiFactory();

/** A stretch of one paragraph in one font, script and direction. Indices are UTF-16, into the paragraph. */
export interface Run {
  readonly from: number;
  readonly to: number;
  readonly face: FontFace;
  readonly script: AnyScript | undefined;
  /** Embedding level (UAX #9): odd runs right to left. */
  readonly level: number;
}

export interface Paragraph {
  readonly text: string;
  readonly graphemes: readonly Segment[];
  readonly runs: readonly Run[];
  readonly rightToLeft: boolean;
  /** Graphemes that no loaded font has. */
  readonly missing: readonly string[];
  /** Indices at which the look changes, so that no ligature reaches across. */
  readonly borders: ReadonlySet<number>;
}

/** How a paragraph is to look, where it is not the same throughout. */
export interface ItemStyle {
  readonly family: string;
  readonly axes?: Axes;
  /** Weight of the letter at an index. */
  weightAt(index: number): number;
  /** Indices at which the look changes, so that no ligature reaches across. */
  readonly borders: ReadonlySet<number>;
}

/**
 * Cuts a paragraph into runs: direction by the Unicode bidirectional algorithm (UAX #9), script by each grapheme's
 * first character (shared signs take the script before them), font by weight and by what covers the grapheme.
 */
export function itemise(text: string, fonts: FontBook, style: ItemStyle): Paragraph {
  const parts = graphemes(text);
  const embedding = bidi.getEmbeddingLevels(text, 'auto');
  const runs: Run[] = [];
  const missing: string[] = [];
  let script: AnyScript | undefined = parts.map((p) => scriptOf(p.segment)).find((s) => s && s !== 'Emoji');
  // Chinese characters among kana are Japanese, and look so.
  const japanese = /[\p{Script=Hiragana}\p{Script=Katakana}]/u.test(text);
  const primaries = new Map<number, FontFace>();
  for (const { index, segment } of parts) {
    const own = scriptOf(segment);
    if (own && own !== 'Emoji') script = own;
    const weight = style.weightAt(index);
    const primary = primaries.get(weight) ?? fonts.match(style.family, weight, style.axes);
    primaries.set(weight, primary);
    let face = primary;
    if (own === 'Emoji' || !primary.covers(segment)) {
      const wanted = own ?? script;
      const standIn = fonts.standIn(segment, wanted === 'Hani' && japanese ? 'Kana' : wanted, weight);
      if (standIn) face = standIn;
      else if (segment.trim() && !primary.covers(segment)) missing.push(segment);
    }
    const runScript = own === 'Emoji' ? 'Emoji' : script;
    const level = embedding.levels[index] ?? 0;
    const last = runs.at(-1);
    if (last && last.face === face && last.script === runScript && last.level === level)
      runs[runs.length - 1] = { ...last, to: index + segment.length };
    else runs.push({ from: index, to: index + segment.length, face, script: runScript, level });
  }
  return {
    text,
    graphemes: parts,
    runs,
    rightToLeft: ((embedding.paragraphs[0]?.level ?? 0) & 1) === 1,
    missing,
    borders: style.borders,
  };
}

/** A glyph of a line, in ems from the line's left edge (y downwards from the baseline). */
export interface LineGlyph {
  readonly face: FontFace;
  readonly glyph: number;
  readonly x: number;
  readonly y: number;
  readonly advance: number;
  /** UTF-16 range of the paragraph this glyph's cluster stands for. */
  readonly from: number;
  readonly to: number;
}

/** The parts of the paragraph's runs that lie in a range, put in the order they are seen (UAX #9, rule L2). */
function visualRuns(paragraph: Paragraph, from: number, to: number): Run[] {
  const inside = paragraph.runs
    .filter((r) => r.from < to && r.to > from)
    .map((r) => ({ ...r, from: Math.max(r.from, from), to: Math.min(r.to, to) }))
    // Of a line without letters nothing is left.
    .filter((r) => r.to > r.from);
  const highest = inside.reduce((m, r) => Math.max(m, r.level), 0);
  for (let level = highest; level >= 1; level--) {
    let i = 0;
    while (i < inside.length) {
      if (inside[i]!.level < level) {
        i++;
        continue;
      }
      let j = i;
      while (j < inside.length && inside[j]!.level >= level) j++;
      inside.splice(i, j - i, ...inside.slice(i, j).reverse());
      i = j;
    }
  }
  return inside;
}

/** OpenType features of ligatures that a text can do without. */
const LIGATURES = ['liga', 'clig', 'dlig', 'hlig'];

/** Turns ligatures off: everywhere where letters are spaced (CSS Text 3, 8.2), else across the borders of looks. */
function withoutLigatures(run: Run, borders: ReadonlySet<number>, spaced: boolean): string[] {
  if (spaced) return LIGATURES.map((tag) => `-${tag}`);
  const inside = [...borders].filter((b) => b > run.from && b < run.to);
  return inside.flatMap((b) => LIGATURES.map((tag) => `-${tag}[${b - 1}:${b + 1}]`));
}

/**
 * Shapes a range of a paragraph as one line, left to right as seen.
 * @param tracking ems added to every cluster, but for those of scripts whose letters join
 * @param features as in CSS `font-feature-settings`, in HarfBuzz's form
 */
export function shapeLine(
  paragraph: Paragraph,
  from: number,
  to: number,
  tracking: number,
  features = '',
): { glyphs: LineGlyph[]; width: number } {
  const glyphs: LineGlyph[] = [];
  let pen = 0;
  let lastSpacing = 0;
  for (const run of visualRuns(paragraph, from, to)) {
    const rightToLeft = run.level % 2 === 1;
    const spacing = joinsLetters(run.script) ? 0 : tracking;
    const wanted = [
      ...(features ? [features] : []),
      ...withoutLigatures(run, paragraph.borders, spacing !== 0),
    ].join(',');
    const shaped = run.face.shape(paragraph.text, rightToLeft ? 'rtl' : 'ltr', run.script, wanted, [
      run.from,
      run.to,
    ]);
    // The end of a cluster is the next larger cluster start in the run, whichever way the run reads.
    const starts = [...new Set(shaped.map((g) => g.cl))].sort((a, b) => a - b);
    const endOf = new Map(starts.map((s, i) => [s, starts[i + 1] ?? run.to]));
    shaped.forEach((g, i) => {
      const lastOfCluster = shaped[i + 1]?.cl !== g.cl;
      const advance = run.face.ems(g.ax) + (lastOfCluster ? spacing : 0);
      lastSpacing = spacing;
      glyphs.push({
        face: run.face,
        glyph: g.g,
        x: pen + run.face.ems(g.dx),
        y: -run.face.ems(g.dy),
        advance,
        from: g.cl,
        to: endOf.get(g.cl)!,
      });
      pen += advance;
    });
  }
  // Tracking stands between letters, not after the last one.
  return { glyphs, width: glyphs.length > 0 ? Math.max(0, pen - lastSpacing) : 0 };
}
