import type { WordsFill } from '../documents/fill';
import type { Run } from '../layers/textStyle';

/** Words as a slot holds them: plain, or with runs. */
export type SlotWords = string | WordsFill;

export function plainText(words: SlotWords): string {
  return typeof words === 'string' ? words : words.text;
}

export function runsOf(words: SlotWords): readonly Run[] {
  return typeof words === 'string' ? [] : words.runs;
}

/** Words without runs are kept as plain text. */
function packed(text: string, runs: readonly Run[]): SlotWords {
  return runs.length === 0 ? text : { text, runs: [...runs] };
}

/**
 * Takes a new text and keeps the runs on their letters: what was typed or deleted is found as the part between the
 * beginning and the end that did not change. Letters typed inside a run, or right after it, belong to it.
 */
export function retype(words: SlotWords, text: string): SlotWords {
  const old = plainText(words);
  const runs = runsOf(words);
  if (runs.length === 0) return text;
  const most = Math.min(old.length, text.length);
  let head = 0;
  while (head < most && old[head] === text[head]) head++;
  let tail = 0;
  while (tail < most - head && old[old.length - 1 - tail] === text[text.length - 1 - tail]) tail++;
  const oldEnd = old.length - tail;
  const moved = (index: number) => {
    if (index <= head) return index;
    return index >= oldEnd ? index + text.length - old.length : Math.min(index, text.length - tail);
  };
  const typed = oldEnd === head;
  const by = text.length - old.length;
  const kept = runs.flatMap((run) => {
    // A run that begins where letters are typed moves behind them; one that ends there takes them in.
    const from = typed && run.from >= head ? run.from + by : moved(run.from);
    const to = typed && run.to === head && run.from < head ? run.to + by : moved(run.to);
    return to > from ? [{ ...run, from, to }] : [];
  });
  return packed(text, kept);
}

/** A look of marked letters, as a run holds it. `undefined` takes a part of it away. */
export type RunLook = {
  [K in 'marked' | 'weight' | 'colour' | 'underline']?: Run[K] | undefined;
};

const LOOKS = ['marked', 'weight', 'colour', 'underline'] as const;

/** Changes the look of a part of the words: runs are cut at its ends, and joined again where they come out alike. */
export function markWords(words: SlotWords, from: number, to: number, look: RunLook): SlotWords {
  const text = plainText(words);
  const [start, end] = [Math.max(0, Math.min(from, to)), Math.min(text.length, Math.max(from, to))];
  if (end <= start) return words;
  const runs = runsOf(words);
  const borders = new Set([start, end, ...runs.flatMap((r) => [r.from, r.to])]);
  const sorted = [...borders].sort((a, b) => a - b);
  const pieces: Run[] = [];
  for (let i = 0; i + 1 < sorted.length; i++) {
    const [a, b] = [sorted[i]!, sorted[i + 1]!];
    const own = runs.find((r) => a >= r.from && b <= r.to);
    const inside = a >= start && b <= end;
    const merged = { ...own, ...(inside ? look : {}) };
    const kept = Object.fromEntries(
      LOOKS.flatMap((key) =>
        merged[key] === undefined || merged[key] === false ? [] : [[key, merged[key]]],
      ),
    );
    if (Object.keys(kept).length === 0) continue;
    const last = pieces.at(-1);
    if (last && last.to === a && alike(last, kept)) pieces[pieces.length - 1] = { ...last, to: b };
    else pieces.push({ ...kept, from: a, to: b });
  }
  return packed(text, pieces);
}

function alike(a: RunLook, b: RunLook): boolean {
  return LOOKS.every((key) => a[key] === b[key]);
}

/** What all letters of a part have in common: shown on the buttons that mark. */
export function lookOf(words: SlotWords, from: number, to: number): RunLook {
  const runs = runsOf(words);
  const [start, end] = from === to ? [Math.max(0, from - 1), from] : [Math.min(from, to), Math.max(from, to)];
  const look: RunLook = {};
  for (const key of LOOKS) {
    const values = new Set<unknown>();
    for (let i = start; i < end; i++) values.add(runs.find((r) => i >= r.from && i < r.to)?.[key]);
    const [only] = values;
    if (values.size === 1 && only !== undefined) Object.assign(look, { [key]: only });
  }
  return look;
}
