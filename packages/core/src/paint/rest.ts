import type { Effect } from '../effects/registry';
import {
  type Affine,
  affineOf,
  invertAffine,
  isAffine,
  multiplyAffine,
  planeAfter,
} from '../geometry/matrix';
import { isEmpty } from '../geometry/rect';
import { grownBy, opsBounds } from './bounds';
import type { Op } from './ops';

/**
 * A shadow of what breathes, sways or is carried along is hardly another one in the next frame. It is made of its content
 * at rest: at the nearest of some sizes, leans and turns, at the origin; and laid from there as the content lies. Its
 * place and outline are exact; its softness alone is off, by less than half a step. Which rest is nearest depends on the
 * frame alone, so a frame does not depend on those before it.
 */

type Open = Extract<Op, { op: 'open' }>;

/** A group at rest. */
export interface AtRest {
  readonly open: Open;
  readonly content: readonly Op[];
  /** How it lies in the frame. */
  readonly map: Affine;
  /** How far from its content it is laid. */
  readonly offset: readonly [number, number];
  /** Whether the content hides what is below it: a shadow is never seen there. */
  readonly cast: boolean;
  /** Least standard deviation of what it is made of, in frame units. */
  readonly softness: number;
}

/** How far apart sizes at rest are, as parts of each other, and leans and turns, in radians. */
const STEP = 0.03;

/** @returns the group at rest, where a shade alone is left of a few things that lie flat in the frame. */
export function atRest(open: Open, content: readonly Op[]): AtRest | undefined {
  const [effect, ...more] = open.effects;
  if (!effect || more.length > 0 || !isShade(effect)) return undefined;
  const first = content.find(isFlat);
  if (!first || !content.every((op) => op.op === 'unclip' || isFlat(op))) return undefined;
  const own = affineOf(first.plane);
  const still = settled(own);
  const away = still && invertAffine(still);
  const map = away && multiplyAffine(own, away);
  const back = map && invertAffine(map);
  if (!map || !back) return undefined;
  const by = Math.sqrt(Math.abs(map[0] * map[3] - map[1] * map[2]));
  const lying = content.map((op) => (isFlat(op) ? { ...op, plane: planeAfter(back, op.plane) } : op));
  const shade = shadeAtRest(effect, by);
  const bounds = grownBy(opsBounds(lying), [shade]);
  if (isEmpty(bounds)) return undefined;
  const cast = effect.effect === 'shadow';
  const offset = cast ? effect.offset : ([0, 0] as const);
  const softness = Math.min(...[shade, ...alongside(shade)].map(({ radius }) => radius));
  return { open: { ...open, bounds, effects: [shade] }, content: lying, map, offset, cast, softness };
}

type Shade = Extract<Effect, { effect: 'shadow' | 'inner-shadow' }>;

const isShade = (effect: Effect): effect is Shade =>
  (effect.effect === 'shadow' || effect.effect === 'inner-shadow') && effect.alone !== undefined;

const alongside = (shade: Shade): readonly Shade[] =>
  shade.effect === 'inner-shadow' ? (shade.alone ?? []) : [];

type Flat = Extract<Op, { op: 'path' | 'picture' | 'clip' }>;

const isFlat = (op: Op): op is Flat =>
  (op.op === 'path' || op.op === 'picture' || op.op === 'clip') && isAffine(op.plane);

/** The nearest rest of a map: a turn, a lean and a size for each axis, at the origin. Of what has no extent, nothing. */
function settled([a, b, c, d]: Affine): Affine | undefined {
  const wide = Math.hypot(a, b);
  const area = a * d - b * c;
  if (wide < 1e-6 || Math.abs(area) < 1e-9) return undefined;
  const high = area / wide;
  const lean = (a * c + b * d) / area;
  const turn = near(Math.atan2(b, a));
  const [w, h, k] = [size(wide), size(high), near(lean)];
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  return [cos * w, sin * w, (cos * k - sin) * h, (sin * k + cos) * h, 0, 0];
}

const near = (value: number) => Math.round(value / STEP) * STEP;

/** The nearest of the sizes at rest. */
const size = (value: number) =>
  value === 0 ? 0 : Math.sign(value) * Math.exp(near(Math.log(Math.abs(value))));

/** A shade of content that is seen `by` times as large. How far a shadow lies away is left to where it is laid. */
function shadeAtRest(shade: Shade, by: number): Shade {
  const radius = size(shade.radius / by);
  if (shade.effect === 'shadow') return { ...shade, offset: [0, 0], radius };
  const { offset, alone } = shade;
  const far = Math.hypot(...offset);
  const as = far > 0 ? size(far / by) / far : 0;
  return {
    ...shade,
    // The light comes from where it did, but for what a number of so many digits cannot say.
    offset: [told(offset[0] * as), told(offset[1] * as)],
    radius,
    ...(alone ? { alone: alone.map((each) => shadeAtRest(each, by) as typeof each) } : {}),
  };
}

const told = (value: number) => Math.round(value * 1e6) / 1e6;
