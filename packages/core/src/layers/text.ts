import { splitColumns } from '../text/columns';
import type { FitRule, TextLayout, TextStyle, WeightRun } from '../text/textLayout';
import type { Bend } from './bend';
import type { LayerContext, LayerKind, Words } from './kind';
import { bendOf } from './textBend';
import { frontSlots } from './textDepth';
import { paintText } from './textPaint';
import type { TextLayer } from './textSchema';

/** The words a layer shows, with their runs: of a list, the lines and the column it takes. */
export function wordsOf(layer: Pick<TextLayer, 'words'>, context: LayerContext): Words {
  const { words } = layer;
  if ('text' in words) return { text: words.text, runs: [] };
  if ('number' in words) return { text: numberText(words, context), runs: [] };
  const held = context.words(words.slot);
  const { column, skip = 0 } = words;
  if (words.first === undefined && words.count === undefined && column === undefined && skip === 0)
    return held;
  const first = words.first === undefined ? 1 : Math.round(context.value(words.first));
  const many = words.count === undefined ? undefined : Math.round(context.value(words.count));
  // A long list is cut into lines once, not in every frame.
  return context.memo.of(`lines/${first}/${skip}/${many}/${column}/${held.text}`, () => ({
    text: pickLines(held.text, first, skip, many, column),
    runs: [],
  }));
}

type NumberWords = Extract<TextLayer['words'], { number: unknown }>;

/** A number as it is written, its thousands set apart (Unicode CLDR, English). */
function numberText({ number, digits, before, after }: NumberWords, { value }: LayerContext): string {
  const n = value(number).toLocaleString('en', {
    minimumFractionDigits: digits,
    maximumFractionDigits: digits,
  });
  return before + n + after;
}

/** Lines of a list from the `first` on, and one column of them. Empty lines keep their place in a list shown whole. */
function pickLines(
  text: string,
  first: number,
  skip: number,
  many: number | undefined,
  column: number | undefined,
): string {
  let lines = text.split('\n').map((l) => l.trimEnd());
  if (first > 1 || skip > 0 || many !== undefined) {
    const filled = lines.filter((l) => l !== '');
    const from = Math.min(first, Math.max(1, filled.length)) - 1 + skip;
    lines = filled.slice(from, many === undefined ? undefined : from + many);
  }
  return lines.map((l) => (column === undefined ? l : (splitColumns(l)[column - 1] ?? ''))).join('\n');
}

/** How a text is set: what `layoutText` takes. */
interface Wanted {
  readonly words: Words;
  readonly style: TextStyle;
  readonly fit: FitRule;
  readonly runs: readonly WeightRun[];
}

function wantedOf(layer: TextLayer, context: LayerContext, bend: Bend | undefined): Wanted {
  const { value } = context;
  const words = wordsOf(layer, context);
  const axes = Object.entries(layer.axes).map(([tag, v]) => [tag, value(v)] as const);
  const style: TextStyle = {
    family: value(layer.family),
    weight: value(layer.weight),
    size: value(layer.size),
    tracking: value(layer.tracking),
    leading: value(layer.leading),
    align: value(layer.align),
    case: value(layer.case),
    ...(axes.length > 0 ? { axes: Object.fromEntries(axes) } : {}),
    // A number that runs does not jitter when its figures are all as wide.
    ...('number' in layer.words ? { evenFigures: true } : {}),
  };
  const width = value(layer.fit.width);
  const fit: FitRule = {
    width: bend && bend.room > 0 ? Math.min(width, bend.room) : width,
    ...(layer.fit.height === undefined ? {} : { height: value(layer.fit.height) }),
    lines: value(layer.fit.lines),
    least: value(layer.fit.least),
    balance: layer.fit.balance,
  };
  const marked = layer.marked.weight === undefined ? undefined : value(layer.marked.weight);
  const runs = words.runs.map(({ from, to, weight, marked: isMarked }) => {
    const own = weight ?? (isMarked ? marked : undefined);
    return { from, to, ...(own === undefined ? {} : { weight: own }) };
  });
  return { words, style, fit, runs };
}

/** Lines that each entry of a list takes as it is set. */
function linesAnEntry(layout: TextLayout, entries: number): number[] {
  const counts = new Array<number>(entries).fill(0);
  for (const { paragraph } of layout.lines) counts[paragraph] = (counts[paragraph] ?? 0) + 1;
  return counts;
}

/** Words of one column with room after each entry that takes more lines in another. */
function inStep({ words, style, fit, runs }: Wanted, layer: TextLayer, context: LayerContext): string {
  const beside = 'slot' in layer.words ? (layer.words.beside ?? []) : [];
  const others = beside.flatMap((id) => context.textLayer(id) ?? []);
  if (others.length === 0 || words.text.trim() === '') return words.text;
  const entries = words.text.split('\n');
  const own = linesAnEntry(context.layouts.layout(words.text, style, fit, runs), entries.length);
  const theirs = others.map((other) => {
    const wanted = wantedOf(other, context, undefined);
    const layout = context.layouts.layout(wanted.words.text, wanted.style, wanted.fit, wanted.runs);
    return linesAnEntry(layout, entries.length);
  });
  return entries
    .map((entry, i) => {
      const most = Math.max(...theirs.map((t) => t[i] ?? 1));
      return entry + '\n'.repeat(Math.max(0, most - Math.max(1, own[i]!)));
    })
    .join('\n');
}

/** Words. */
export const text: LayerKind<TextLayer> = {
  measure(layer, parent, context) {
    const bend = layer.along && bendOf(layer.along, parent, context);
    const wanted = wantedOf(layer, context, bend);
    const { words, style, fit, runs } = wanted;
    const layout = context.layouts.layout(inStep(wanted, layer, context), style, fit, runs);
    if (layout.glyphs.length === 0) return undefined;
    if ('slot' in layer.words) {
      const { slot } = layer.words;
      if (layout.fit.cut) context.notice({ kind: 'cut', slot, words: layout.fit.cut });
      else if (layout.fit.scale < 0.995 && !layer.fit.fills) {
        context.notice({ kind: 'shrunk', slot, percent: Math.round(layout.fit.scale * 100) });
      }
      if (!context.layouts.fonts.hasFamily(style.family)) {
        context.notice({ kind: 'missing-font', slot, family: style.family });
      }
      if (layout.missing.length > 0) {
        context.notice({
          kind: 'missing-letters',
          slot,
          letters: [...new Set(layout.missing)].slice(0, 12).join(' '),
        });
      }
      if (bend && bend.room === 0) context.notice({ kind: 'short-path', slot });
    }
    const size = bend ? bend.size : { width: layout.width, height: layout.height };
    return { size, text: layout, runs: words.runs, ...(bend ? { bend } : {}) };
  },

  paint: (node, tools) => paintText(node, tools),

  slots: (layer) => [
    ...('slot' in layer.words ? [layer.words.slot] : []),
    ...[layer.fill, layer.marked.fill].flatMap((f) =>
      typeof f === 'object' && 'picture' in f ? [f.picture] : [],
    ),
    ...(layer.depth ? frontSlots(layer.depth) : []),
  ],
};
