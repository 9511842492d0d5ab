import { EACH } from '../layers/common';
import type { LayerContext, Repeat, Words } from '../layers/kind';
import type { Layer } from '../layers/registry';
import { type Moment, type Property, type Repeated, type Value, valueAt } from '../values/property';

/** More are not repeated: they could be neither told apart nor painted in time. */
const MOST = 60;

/** What a part comes once for: slots that are filled, or lines that are not empty. */
export function repeatsOf(
  over: Repeated,
  slots: { isFilled(slot: string): boolean; words(slot: string): Words },
): readonly Repeat[] {
  if ('slots' in over) return over.slots.filter((s) => slots.isFilled(s)).map((slot) => ({ slot }));
  const { text, runs } = slots.words(over.lines);
  const found: Repeat[] = [];
  let from = 0;
  for (const line of text.split('\n')) {
    const to = from + line.length;
    if (line.trim() !== '' && found.length < MOST)
      found.push({ slot: over.lines, words: partOf(line, runs, from, to) });
    from = to + 1;
  }
  return found;
}

/** A line with the runs that lie in it. */
const partOf = (text: string, runs: Words['runs'], from: number, to: number): Words => ({
  text,
  runs: runs
    .filter((r) => r.from < to && r.to > from)
    .map((r) => ({ ...r, from: Math.max(0, r.from - from), to: Math.min(to, r.to) - from })),
});

/**
 * How often a layer is there: once, as what is around it finds the slots, or as often as it is repeated, each with what
 * it finds there itself.
 */
export function instances(layer: Layer, context: LayerContext): readonly (LayerContext | undefined)[] {
  if (layer.kind !== 'group' || !layer.repeat) return [undefined];
  const { over, after, stays } = layer.repeat;
  const repeats = context.repeats(over);
  const late = context.value(after);
  const length = stays === undefined ? undefined : context.value(stays);
  return repeats.flatMap((repeat, number) => {
    const own = contextOf(context, repeat, { number, of: repeats.length }, late * number);
    const { time } = own.moment;
    const isLast = number === repeats.length - 1;
    if (length !== undefined && (time < 0 || (time >= length && !isLast))) return [];
    return [own];
  });
}

/** The same slots at another time. @param late frames by which it is later there */
export function shiftedBy(context: LayerContext, late: number): LayerContext {
  return at(context, { ...context.moment, time: context.moment.time - late });
}

const at = (context: LayerContext, moment: Moment): LayerContext => ({
  ...context,
  moment,
  value: <T extends Value>(p: Property<T>) => valueAt(p, moment),
});

function contextOf(
  context: LayerContext,
  repeat: Repeat,
  each: { number: number; of: number },
  late: number,
): LayerContext {
  const named = (slot: string) => (slot === EACH ? repeat.slot : slot);
  return {
    ...at(context, { ...context.moment, time: context.moment.time - late, each }),
    each: repeat.slot,
    words: (slot) => (slot === EACH && repeat.words ? repeat.words : context.words(named(slot))),
    isFilled: (slot) => slot === EACH || context.isFilled(slot),
    picture: (slot, window) => context.picture(named(slot), window),
    notice: (notice) => context.notice({ ...notice, slot: named(notice.slot) }),
  };
}
