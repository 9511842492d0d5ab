import type { Template } from '../documents/template';
import { boundsOf, intersection, isEmpty } from '../geometry/rect';
import { EACH } from '../layers/common';
import type { FoundPicture, LayerContext, Size, Words } from '../layers/kind';
import { everyLayer, type Layer, slotsOf } from '../layers/registry';
import type { Memo } from '../memo';
import type { LayoutCache } from '../text/cache';
import type { Moment, Property, Value } from '../values/property';
import { valueAt } from '../values/property';
import { arrange } from './arrange';
import { cameraMatrix } from './camera';
import { PaintPass, type Region } from './paintPass';
import { repeatsOf } from './repeats';
import type { SlotFills } from './slotFills';

/** Moments looked at first, evenly spread; what shows for less than the time between two may be missed. */
const LOOKS = 96;

const NO_WORDS: Words = { text: '', runs: [] };
const NO_LAYOUT = { glyphs: [], fit: { scale: 1, cut: '' }, missing: [], width: 0, height: 0 };
/** A square that stands for any picture: where it lies hardly depends on its shape. */
const ANY: FoundPicture = {
  ...{ media: 'any', id: 'any', width: 1000, height: 1000 },
  ...{ focus: [0.5, 0.5], scale: 1, turn: 0 },
};

/** When a slot is in view, in actual frames, and for how many of them it fades in and out. */
export interface Seen {
  readonly span: readonly [from: number, to: number];
  readonly fades: readonly [coming: number, going: number];
}

/** A picture that shows as much of its most as this is there. */
const THERE = 0.95;

/**
 * The layers in which some slots lie, with all that says where: the groups around them, what stands beside them in a row,
 * and what a shape hugs. All others change nothing about where they lie.
 */
export function layersWith(layers: readonly Layer[], isWanted: (slot: string) => boolean): Layer[] {
  const kept = new Map<string, Layer>();
  const keep = (layer: Layer, whole: boolean): void => {
    if (kept.has(layer.id)) return;
    const inside =
      layer.kind === 'group' && !whole && !layer.row
        ? { ...layer, layers: layersWith(layer.layers, isWanted) as typeof layer.layers }
        : layer;
    kept.set(layer.id, inside as Layer);
    const beside = [
      ...(layer.kind === 'shape' && layer.hug ? layer.hug.layers : []),
      ...(layer.matte ? [layer.matte.layer] : []),
    ];
    for (const id of beside) {
      const other = layers.find((l) => l.id === id);
      if (other) keep(other, true);
    }
  };
  const holds = (layer: Layer): boolean =>
    slotsOf(layer).some((slot) => slot === EACH || isWanted(slot)) ||
    (layer.kind === 'group' && layer.layers.some(holds));
  for (const layer of layers) if (holds(layer)) keep(layer, false);
  return layers.flatMap((layer) => kept.get(layer.id) ?? []);
}

/**
 * When each slot of a picture is in view, in actual frames: the first and the last frame in which any of its layers
 * lies in the picture. It follows from the document alone: words are left out, so that no font is needed.
 */
export function seenSpans(
  layers: readonly Layer[],
  camera: Template['camera'],
  frame: Size,
  length: number,
  memo: Memo,
  slots: SlotFills,
  momentAt: (time: number) => Moment,
): ReadonlyMap<string, Seen> {
  const whole = { x: 0, y: 0, ...frame };
  /** How much shows at a moment of each slot that lies in some layers. */
  const shownIn = (own: readonly Layer[], time: number): ReadonlyMap<string, number> => {
    const shown = new Map<string, number>();
    for (const { slot, quad, opacity } of wordlessRegions(own, camera, frame, momentAt(time), memo, slots)) {
      if (isEmpty(intersection(boundsOf(quad), whole))) continue;
      shown.set(slot, Math.max(opacity, shown.get(slot) ?? 0));
    }
    return shown;
  };
  const last = Math.max(0, Math.ceil(length) - 1);
  const step = Math.max(1, Math.floor(last / LOOKS));
  const looks = Array.from({ length: Math.floor(last / step) + 1 }, (_, i) => i * step);
  if (looks.at(-1) !== last) looks.push(last);
  const seen = looks.map((time) => shownIn(layers, time));
  const among = new Map<string, Map<number, ReadonlyMap<string, number>>>();
  const found = new Map<string, Seen>();
  for (const slot of new Set(seen.flatMap((shown) => [...shown.keys()]))) {
    // Where it comes and goes is looked for among its own layers alone, which a repeated part's have in common.
    const own = layersWith(layers, (other) => other === slot);
    const ids = [...everyLayer(own)].map((layer) => layer.id).join();
    const kept = among.get(ids) ?? new Map(looks.map((time, i) => [time, seen[i]!] as const));
    among.set(ids, kept);
    const shows = (time: number): number | undefined => {
      const shown = kept.get(time) ?? shownIn(own, time);
      kept.set(time, shown);
      return shown.get(slot);
    };
    const isSeen = (time: number) => shows(time) !== undefined;
    const first = looks.findIndex(isSeen);
    const final = looks.findLastIndex(isSeen);
    const from = edge(looks[first]!, looks[first - 1] ?? looks[first]!, isSeen);
    const to = edge(looks[final]!, looks[final + 1] ?? looks[final]!, isSeen);
    const most = Math.max(...looks.map((time) => shows(time) ?? 0));
    const isThere = (time: number) => (shows(time) ?? 0) >= THERE * most;
    const full = looks.filter(isThere);
    const [up, down] = [full[0]!, full.at(-1)!];
    const fades = [
      edge(up, Math.min(up, from), isThere) - from,
      to - edge(down, Math.max(down, to), isThere),
    ] as const;
    found.set(slot, { span: [from, Math.min(length, to + 1)], fades });
  }
  return found;
}

/**
 * Where the pictures of slots lie at a moment, all slots filled. It follows from the document alone: words are left out,
 * so that no font is needed.
 * @param picture what stands in every slot
 */
export function wordlessRegions(
  layers: readonly Layer[],
  camera: Template['camera'],
  frame: Size,
  moment: Moment,
  memo: Memo,
  slots: SlotFills,
  picture: FoundPicture = ANY,
): readonly Region[] {
  const value = <T extends Value>(p: Property<T>) => valueAt(p, moment);
  const context: LayerContext = {
    moment,
    value,
    words: () => NO_WORDS,
    textLayer: () => undefined,
    isFilled: () => true,
    repeats: (over) => repeatsOf(over, slots),
    picture: () => picture,
    standIn: () => undefined,
    media: () => undefined,
    layouts: { layout: () => NO_LAYOUT } as unknown as LayoutCache,
    memo,
    notice: () => undefined,
  };
  const pass = new PaintPass(context, undefined, 'places');
  pass.paintAll(arrange(layers, frame, context), cameraMatrix(camera, frame, value));
  return pass.regions;
}

/**
 * The box that the picture of a slot fills at a moment, where it is largest: its size before it is turned, frame units.
 * Undefined where it takes the picture's own shape, or none is seen.
 */
export function windowAt(
  slot: string,
  regionsWith: (picture: FoundPicture) => readonly Region[],
): Size | undefined {
  const largest = ({ width, height }: Size) =>
    regionsWith({ ...ANY, width, height })
      .filter((r) => r.slot === slot && r.kind === 'picture' && r.box.width * r.box.height > 0)
      .map((r) => r.box)
      .sort((a, b) => b.width * b.height - a.width * a.height)[0];
  const [wide, tall] = [largest({ width: 2000, height: 1000 }), largest({ width: 1000, height: 2000 })];
  if (!wide || !tall) return undefined;
  const takesShape = Math.abs(wide.width / wide.height - tall.width / tall.height) > 1e-6;
  return takesShape ? undefined : wide;
}

/** The frame nearest to `outside` in which something holds that holds at `inside`. */
function edge(inside: number, outside: number, holds: (time: number) => boolean): number {
  let [yes, no] = [inside, outside];
  while (Math.abs(yes - no) > 1) {
    const middle = Math.trunc((yes + no) / 2);
    if (holds(middle)) yes = middle;
    else no = middle;
  }
  return yes;
}
