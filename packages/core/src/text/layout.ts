import type { Rect } from '../geometry/rect';
import { boundsOf, corners, EMPTY } from '../geometry/rect';
import type { FontBook } from './fonts';
import { graphemes } from './scripts';
import { Setter, type Setting } from './setter';
import type { FitRule, TextLayout, TextStyle, WeightRun } from './textLayout';

const SHRINK_STEPS = 12;
const BALANCE_STEPS = 9;
const MOST_BALANCED = 8;

/**
 * Sets words in lines by a style and a fit rule. Order of the rule: break into at most `lines`; shrink evenly, down to
 * `least`; break inside words; and only then cut what is left, ending in an ellipsis, and tell.
 */
export function layoutText(
  words: string,
  style: TextStyle,
  fit: FitRule,
  fonts: FontBook,
  marked: readonly WeightRun[] = [],
): TextLayout {
  const { text, runs, origin } = prepared(words, style.case, marked);
  return inWordsGiven(layoutPrepared(text, style, fit, fonts, runs), origin);
}

function layoutPrepared(
  text: string,
  style: TextStyle,
  fit: FitRule,
  fonts: FontBook,
  runs: readonly WeightRun[],
): TextLayout {
  // Nothing of letters without a size can be counted in ems.
  if (text.trim() === '' || style.size <= 0) return emptyLayout(style.size);
  const most = mostLetters(style, fit);
  const setter = new Setter(text.slice(0, most), style, runs, fonts);

  const fitsAt = (scale: number, allowBroken: boolean): Setting | undefined => {
    const setting = setter.set(fit.width / (style.size * scale));
    if (setting.lines.length > fit.lines || (setting.broken && !allowBroken)) return undefined;
    if (fit.height !== undefined && setter.height(setting) * style.size * scale > fit.height)
      return undefined;
    return setting;
  };
  /** The narrowest setting of as many lines (as CSS Text 4 has it for `text-wrap: balance`). */
  const balanced = (setting: Setting, scale: number): Setting => {
    const lines = setting.lines.length;
    if (!fit.balance || lines < 2 || lines > MOST_BALANCED) return setting;
    let [low, high] = [0, fit.width / (style.size * scale)];
    let best = setting;
    for (let i = 0; i < BALANCE_STEPS; i++) {
      const middle = (low + high) / 2;
      const tried = setter.set(middle);
      if (tried.lines.length === lines && tried.broken === setting.broken) [high, best] = [middle, tried];
      else low = middle;
    }
    return best;
  };
  const whole = text.length <= most ? fitsAt(1, false) : undefined;
  if (whole) return setter.place(balanced(whole, 1), 1, '');

  for (const allowBroken of [false, true]) {
    if (text.length > most || !fitsAt(fit.least, allowBroken)) continue;
    let [low, high] = [fit.least, 1];
    for (let i = 0; i < SHRINK_STEPS; i++) {
      const middle = (low + high) / 2;
      if (fitsAt(middle, allowBroken)) low = middle;
      else high = middle;
    }
    return setter.place(balanced(fitsAt(low, allowBroken)!, low), low, '');
  }
  return cutToFit(text, setter, style, fit, runs, fonts);
}

/** Narrowest an ordinary letter is, in ems: bounds how many letters can fit at all. */
const NARROWEST = 0.12;

/** Letters beyond this many cannot fit, so they need not be set to know that they are cut. */
function mostLetters(style: TextStyle, fit: FitRule): number {
  return Math.ceil((fit.lines * fit.width) / (style.size * fit.least * NARROWEST)) + 40;
}

/** Keeps as many letters as fit at the smallest size, with an ellipsis, and reports the rest. */
function cutToFit(
  text: string,
  full: Setter,
  style: TextStyle,
  fit: FitRule,
  runs: readonly WeightRun[],
  fonts: FontBook,
): TextLayout {
  const ems = fit.width / (style.size * fit.least);
  const tooTall = (setter: Setter, setting: Setting) =>
    fit.height !== undefined && setter.height(setting) * style.size * fit.least > fit.height;
  const whole = full.set(ems);
  let kept = Math.min(fit.lines, whole.lines.length);
  while (kept > 1 && tooTall(full, { ...whole, lines: whole.lines.slice(0, kept) })) kept--;
  const letters = graphemes(text).map((g) => g.index);
  // The ellipsis takes room of its own, so letters go until it fits too.
  let end = full.textIndex(whole.lines[kept - 1]!);
  for (;;) {
    const setter = new Setter(`${text.slice(0, end).trimEnd()}…`, style, runs, fonts);
    const setting = setter.set(ems);
    const next = letters.findLast((i) => i < end) ?? 0;
    if (setting.lines.length <= kept || next === 0) {
      return setter.place(
        { ...setting, lines: setting.lines.slice(0, kept) },
        fit.least,
        text.slice(end).trim(),
      );
    }
    end = next;
  }
}

/** Words as they are set, and where each of their letters stands in the words as given. */
interface Prepared {
  readonly text: string;
  readonly runs: readonly WeightRun[];
  /** Index in the words given, of an index in the text; nothing when all are the same. */
  readonly origin: readonly number[] | undefined;
}

/**
 * Line ends of any kind become one, and letters are turned to a case. Runs stay on their letters, also where one letter
 * becomes two (ß, SS) or two signs one (CR LF).
 */
function prepared(words: string, how: TextStyle['case'], runs: readonly WeightRun[]): Prepared {
  if (how === 'as-typed' && !/[\r\u2028\u2029]/.test(words)) return { text: words, runs, origin: undefined };
  // Not by the language of the machine: what is rendered anywhere is the same. Sigma looks at what stands around it.
  const lower = how === 'lower' ? words.toLowerCase() : '';
  const turn = (t: string, index: number) => {
    if (how === 'upper') return t.toUpperCase();
    if (how !== 'lower') return t;
    return lower.length === words.length ? lower.slice(index, index + t.length) : t.toLowerCase();
  };
  let text = '';
  const origin: number[] = [];
  /** Where each index of the words comes to stand. */
  const place: number[] = [];
  for (const { index, segment } of graphemes(words)) {
    const set = /^[\r\u2028\u2029]/.test(segment) ? '\n' : turn(segment, index);
    for (let i = 0; i < segment.length; i++) place[index + i] = text.length;
    for (let i = 0; i < set.length; i++) origin.push(index + Math.min(i, segment.length - 1));
    text += set;
  }
  place[words.length] = text.length;
  origin.push(words.length);
  const at = (index: number) => place[Math.min(Math.max(index, 0), words.length)]!;
  return { text, runs: runs.map((run) => ({ ...run, from: at(run.from), to: at(run.to) })), origin };
}

/** A layout whose glyphs name the letters of the words as they were given. */
function inWordsGiven(layout: TextLayout, origin: readonly number[] | undefined): TextLayout {
  if (!origin) return layout;
  const at = (index: number) => origin[Math.min(index, origin.length - 1)]!;
  return { ...layout, glyphs: layout.glyphs.map((g) => ({ ...g, from: at(g.from), to: at(g.to) })) };
}

function emptyLayout(size: number): TextLayout {
  const none: Rect[] = [];
  return {
    width: 0,
    height: 0,
    size,
    glyphs: [],
    lines: [],
    units: { letter: none, word: none, line: none, whole: none },
    fit: { scale: 1, cut: '' },
    missing: [],
  };
}

/** The box of all ink, for tests and tight crops. */
export function inkBounds(layout: TextLayout): Rect {
  const boxes = layout.glyphs.map((g) => {
    const ink = g.face.ink(g.glyph);
    return {
      x: g.x + ink.left * layout.size,
      y: g.y + ink.top * layout.size,
      width: (ink.right - ink.left) * layout.size,
      height: (ink.bottom - ink.top) * layout.size,
    };
  });
  const inked = boxes.filter((b) => b.width > 0 && b.height > 0);
  return inked.length > 0 ? boundsOf(inked.flatMap(corners)) : EMPTY;
}
