import { LINEAR } from '../colour/light';
import type { Reel } from '../documents/reel';
import { changeText } from '../edit/reel';
import type { Size } from '../geometry/rect';
import { boundsOf } from '../geometry/rect';
import { everyLayer } from '../layers/registry';
import type { TextLayer } from '../layers/textSchema';
import { GraphicItem } from '../reel/graphicItem';
import type { ReelCheck, ReelScene } from '../reel/reelScene';
import { stretches } from '../time/clock';
import { convertFrames } from '../time/rate';

/** Straight sRGB pixels of a frame. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8ClampedArray;
}

/**
 * Least contrast of letters with what is next to them: of large ones, and of others (WCAG 2.2, 1.4.3). Large are those
 * from 18 points on, which are 24 of a page's pixels; a frame of 1080 lines counts as such a page.
 */
const LEAST_LARGE = 3;
const LEAST = 4.5;
const LARGE = 24;

/** Pixels of a frame's short side at which words are looked at: enough for letters, few enough for many frames. */
const SIDE = 810;

/** The size at which frames are looked at for their words. */
export function legibleSize({ width, height }: Size): Size {
  const scale = SIDE / Math.min(width, height);
  return { width: Math.round(width * scale), height: Math.round(height * scale) };
}

/** Parts of the hold at which words are looked at: what lies behind them moves. */
const MOMENTS = [0.1, 0.5, 0.9] as const;

/** Two colours that nothing but the ink of words takes: where they differ, there is ink. */
const MARKS = ['#ff00ff', '#00ff00'] as const;

/** Words that are looked at, in a frame of the reel. */
export interface LookedAt {
  readonly frame: number;
  readonly item: string;
  readonly slot: string;
  /** Frames of the graphic's own time. */
  readonly time: number;
}

/** When each text slot of each graphic is looked at: three times in its hold, or when it is best seen. */
export function wordMoments(scene: ReelScene): LookedAt[] {
  return scene.placed.flatMap(({ item, start, end, seen }) => {
    if (!seen || !(item instanceof GraphicItem)) return [];
    const { template, clock } = item.scene;
    const { holdStart, outStart } = stretches(clock);
    return template.slots.flatMap((slot) => {
      if (slot.kind !== 'text' || !marked(item).some((l) => slotOf(l) === slot.id)) return [];
      const best = item.scene.timeOf(slot.moment);
      const times =
        outStart - holdStart > 1 && best >= holdStart && best <= outStart
          ? MOMENTS.map((part) => holdStart + (outStart - holdStart) * part)
          : [best];
      return times.map((time) => {
        const frame = start + Math.round(convertFrames(time, item.rate, scene.reel.rate));
        return { frame: Math.min(frame, end - 1), item: item.id, slot: slot.id, time };
      });
    });
  });
}

/** Text layers of a graphic that have ink whose colour can be marked. */
function marked({ scene }: GraphicItem): TextLayer[] {
  return [...everyLayer(scene.layers)].filter(
    (l): l is TextLayer => l.kind === 'text' && slotOf(l) !== undefined && l.fill !== 'none',
  );
}

const slotOf = ({ words }: TextLayer) => ('slot' in words ? words.slot : undefined);

/** The reel with the ink of all its words in one of two marking colours; all else is as it was. */
export function inkMarked(scene: ReelScene, which: 0 | 1): Reel {
  const fill = { colour: MARKS[which] };
  return scene.placed.reduce((reel, { item }) => {
    if (!(item instanceof GraphicItem)) return reel;
    return marked(item).reduce((r, layer) => changeText(r, item.id, layer.id, { fill }), reel);
  }, scene.reel);
}

/**
 * Pixels beside a letter that count as next to it, and as around it: letters whose edge is of their own colour are read
 * against what is around that.
 */
const BESIDE = 4;
const AROUND = 12;
/** The same in parts of the letters' size, where those are large. */
const AROUND_LARGE = 0.3;
/**
 * Pixels a side of the parts in which contrast is measured, each for itself: bad in one place is bad. The same in parts
 * of the letters' size, where those are large.
 */
const PART = 32;
const PART_LARGE = 0.8;
/** Pixels of ink, and of what is beside it, without which a part tells nothing. */
const ENOUGH = 8;
/** The part of the words' box that their ink takes at least, however thin and wide apart the letters. */
const LEAST_INK = 0.01;
/** The part of all the parts that may be worse than what is told. */
const WORST = 0.15;

/** What was measured of some words. */
export interface Contrast {
  /** From 1 to 21 (WCAG 2.2, contrast ratio). */
  readonly ratio: number;
  /** Whether black stands out from the ink more than white does. */
  readonly light: boolean;
}

/** Relative luminance that ambient light adds to both of a pair (WCAG 2.2, contrast ratio). */
const FLARE = 0.05;

/** The relative luminance from which on black stands out from a colour more than white does. */
const MIDDLE = Math.sqrt((1 + FLARE) * FLARE) - FLARE;

/**
 * The contrast of ink with what is beside it as painted: outlines, shadows and plates count as what they are.
 * @param painted the frame as it is
 * @param marks the frame with its ink in the two marking colours
 * @param quad where the words lie, in units of which the frame is `units` wide
 * @param size of the letters, in the same
 * @returns nothing where there is no ink, or nothing solid behind it
 */
export function contrastBeside(
  painted: Pixels,
  marks: readonly [Pixels, Pixels],
  quad: readonly (readonly [number, number])[],
  units: number,
  size: number,
): Contrast | undefined {
  const { width, height, rgba } = painted;
  const scale = width / units;
  const reach = Math.max(AROUND, Math.round(size * scale * AROUND_LARGE));
  const box = boundsOf(quad.map(([x, y]) => [x * scale, y * scale] as const));
  const [left, top] = [Math.max(0, Math.floor(box.x) - reach), Math.max(0, Math.floor(box.y) - reach)];
  const right = Math.min(width, Math.ceil(box.x + box.width) + reach);
  const bottom = Math.min(height, Math.ceil(box.y + box.height) + reach);
  const [w, h] = [right - left, bottom - top];
  if (w < 1 || h < 1) return undefined;

  const ink = new Float32Array(w * h);
  let most = 0;
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const i = ((top + y) * width + left + x) * 4;
      let by = 0;
      for (let c = 0; c < 3; c++) by += Math.abs(marks[0].rgba[i + c]! - marks[1].rgba[i + c]!);
      ink[y * w + x] = by;
      most = Math.max(most, by);
    }
  }
  // Words that have hardly come, or are covered.
  if (most < 100) return undefined;
  const letters = Uint8Array.from(ink, (by) => (by > most * 0.8 ? 1 : 0));
  // Letters whose faces are pictures, or that are cut out of something, take no mark.
  if (letters.reduce((sum, v) => sum + v, 0) < w * h * LEAST_INK) return undefined;
  const beside = spread(letters, w, h, BESIDE);
  const around = spread(letters, w, h, reach);

  const side = Math.max(PART, Math.round(size * scale * PART_LARGE));
  const columns = Math.ceil(w / side);
  const parts = Array.from({ length: columns * Math.ceil(h / side) }, () => ({
    ink: [] as number[],
    beside: [] as number[],
    around: [] as number[],
  }));
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const i = ((top + y) * width + left + x) * 4;
      // What lies under what is transparent nobody knows yet.
      if (rgba[i + 3]! < 200) continue;
      const part = parts[Math.floor(y / side) * columns + Math.floor(x / side)]!;
      const at = y * w + x;
      const value = luminance(rgba, i);
      if (letters[at]) part.ink.push(value);
      else if (ink[at]! < most * 0.1) {
        if (beside[at]) part.beside.push(value);
        else if (around[at]) part.around.push(value);
      }
    }
  }
  const all = parts.flatMap((part): Contrast[] => {
    const { ink: values } = part;
    const grounds = [part.beside, part.around].filter((ground) => ground.length >= ENOUGH);
    if (values.length < ENOUGH || grounds.length === 0) return [];
    return [
      {
        ratio: Math.max(...grounds.map((ground) => ratioOf(values, meanOf(ground)))),
        light: meanOf(values) > MIDDLE,
      },
    ];
  });
  return all.sort((p, q) => p.ratio - q.ratio)[Math.floor(all.length * WORST)];
}

const meanOf = (values: readonly number[]) => values.reduce((sum, v) => sum + v, 0) / values.length;

/** Each pixel of ink for itself: letters that are cut into something are read by the light and dark of their sides. */
function ratioOf(ink: readonly number[], ground: number): number {
  const logs = ink.reduce((sum, v) => sum + Math.abs(Math.log((v + FLARE) / (ground + FLARE))), 0);
  return Math.exp(logs / ink.length);
}

/** What is set, and what lies up to `by` pixels from it along the rows and columns. */
function spread(from: Uint8Array, width: number, height: number, by: number): Uint8Array {
  let now = from;
  for (const [step, count] of [
    [1, width],
    [width, height],
  ] as const) {
    const next = now.slice();
    for (let i = 0; i < now.length; i++) {
      if (!now[i]) continue;
      const at = step === 1 ? i % width : Math.floor(i / width);
      for (let k = Math.max(-by, -at); k <= Math.min(by, count - 1 - at); k++) next[i + k * step] = 1;
    }
    now = next;
  }
  return now;
}

const luminance = (rgba: Uint8ClampedArray, i: number) =>
  0.2126 * LINEAR[rgba[i]!]! + 0.7152 * LINEAR[rgba[i + 1]!]! + 0.0722 * LINEAR[rgba[i + 2]!]!;

/** Gathers the least contrast of each slot. */
export class Legibility {
  private readonly least = new Map<string, ReelCheck & { readonly kind: 'contrast' }>();

  constructor(
    private readonly scene: ReelScene,
    private readonly moments: readonly LookedAt[],
  ) {}

  /** Takes a frame in which words are looked at, painted three times at the same size: as it is, and with marked ink. */
  add(frame: number, painted: Pixels, marks: readonly [Pixels, Pixels]): void {
    const { scene } = this;
    const { regions } = scene.frameAt(frame, scene.reel.rate);
    for (const { item, slot, time } of this.moments.filter((m) => m.frame === frame)) {
      // Words that several layers show are read in the one that stands out most.
      const [best] = regions
        .filter((r) => r.item === item && r.slot === slot && r.opacity >= 0.9)
        .flatMap(({ layer, quad }) => {
          const size = this.sizeOf(item, layer);
          const measured = contrastBeside(painted, marks, quad, scene.frame.width, size);
          return measured ? [{ layer, size, ...measured }] : [];
        })
        .sort((a, b) => b.ratio - a.ratio);
      const key = `${item}/${slot}`;
      const before = this.least.get(key);
      if (!best || (before && before.ratio <= best.ratio)) continue;
      const wanted = best.size >= LARGE ? LEAST_LARGE : LEAST;
      this.least.set(key, { kind: 'contrast', slot, wanted, ...best, item, frame, time });
    }
  }

  private sizeOf(id: string, layer: string): number {
    const placed = this.scene.placed.find((p) => p.item.id === id);
    if (!(placed?.item instanceof GraphicItem)) return 0;
    const { scene } = placed.item;
    const text = scene.textLayer(layer);
    return text ? scene.valueAt(text.size, scene.timeOf({ at: 0, of: 'hold' })) : 0;
  }

  /** Words that stand out too little. */
  found(): ReelCheck[] {
    return [...this.least.values()].filter(({ ratio, wanted }) => ratio < wanted);
  }
}
