import type { Framing } from '../documents/item';
import { movedEffect } from '../effects/registry';
import type { Region } from '../evaluate/paintPass';
import { type Affine, IDENTITY_PLANE, multiplyAffine, planeAfter } from '../geometry/matrix';
import { rectanglePath } from '../geometry/path';
import { planeBounds } from '../geometry/plane';
import type { LetterMap, Size } from '../layers/kind';
import { fadedOver, grouped } from '../paint/compose';
import type { Composite, Op } from '../paint/ops';
import type { Clock } from '../time/clock';
import { LONGEST_REEL } from '../values/limits';
import { type Moment, type Property, type Value, valueAt } from '../values/property';

/** How an item lies in the frame at one moment. */
export interface Framed {
  readonly matrix: Affine;
  /** Frame units to the right and down. */
  readonly move: readonly [number, number];
  /** Degrees. */
  readonly turn: number;
  /** How much larger it shows. */
  readonly scale: number;
  /** 0..1 */
  readonly opacity: number;
  readonly blend: Composite;
  /** Parts cut off on the left, above, on the right and below. */
  readonly crop: readonly number[];
}

const NO_CROP = [0, 0, 0, 0] as const;

/** The clock of what counts on without end: a key stays where it is, also when its item ends before it. */
const ENDLESS: Clock = { in: LONGEST_REEL, hold: 0, out: 0, pace: 1 };

/** A moment of an item, whose keys count in frames of the reel from where it begins. */
export function itemMoment(time: number, frame: Size): Moment {
  return { clock: ENDLESS, time, controls: {}, frame };
}

/**
 * An item's framing at a time.
 * @param time frames of the reel from where the item begins
 */
export function framedAt(framing: Framing | undefined, time: number, frame: Size): Framed {
  const moment = itemMoment(time, frame);
  const value = <T extends Value>(held: unknown, otherwise: T): T =>
    held === undefined ? otherwise : valueAt(held as Property<T>, moment);
  const { move, scale, turn, opacity, crop, blend = 'normal' } = framing ?? {};
  const [dx, dy] = value<readonly number[]>(move, [0, 0]) as [number, number];
  const k = value(scale, 1);
  const turned = value(turn, 0);
  const angle = (turned * Math.PI) / 180;
  const [c, s] = [k * Math.cos(angle), k * Math.sin(angle)];
  const [mx, my] = [frame.width / 2, frame.height / 2];
  return {
    matrix: multiplyAffine([c, s, -s, c, mx + dx, my + dy], [1, 0, 0, 1, -mx, -my]),
    move: [dx, dy],
    turn: turned,
    scale: k,
    opacity: value(opacity, 1),
    blend,
    crop: value<readonly number[]>(crop, NO_CROP),
  };
}

/**
 * How much of an item shows while it comes and goes.
 * @param time frames of the reel from where it begins
 * @returns 0..1, 1 between its fades
 */
export function fadeAt(
  { fadeIn = 0, fadeOut = 0 }: { readonly fadeIn?: number; readonly fadeOut?: number },
  time: number,
  length: number,
): number {
  // A frame shows what its middle has: the first and the last of a fade are neither all nor nothing.
  const comes = fadeIn > 0 ? (time + 0.5) / fadeIn : 1;
  const goes = fadeOut > 0 ? (length - time - 0.5) / fadeOut : 1;
  return Math.min(1, Math.max(0, Math.min(comes, goes)));
}

/** Whether an item is made smaller at any time. */
export function isMadeSmaller(framing: Framing | undefined): boolean {
  const { scale = 1 } = framing ?? {};
  return typeof scale === 'number' ? scale < 1 : scale.keys.some((key) => key.value < 1);
}

/**
 * What an item paints, as it lies in the frame.
 * @param ends whether it ends where its own frame does
 */
export function framedOps(
  ops: readonly Op[],
  framed: Framed,
  fade: number,
  frame: Size,
  ends = false,
): readonly Op[] {
  const { matrix, crop, blend } = framed;
  const opacity = framed.opacity * fade;
  if (opacity <= 0) return [];
  let placed = ops;
  const [left, top, right, bottom] = crop as [number, number, number, number];
  if (ends || left + top + right + bottom > 0) {
    const [width, height] = [frame.width * (1 - left - right), frame.height * (1 - top - bottom)];
    if (width <= 0 || height <= 0) return [];
    const path = rectanglePath({ x: frame.width * left, y: frame.height * top, width, height });
    placed = [{ op: 'clip', path, plane: IDENTITY_PLANE }, ...placed, { op: 'unclip' }];
  }
  placed = moved(placed, matrix, framed.scale);
  if (blend !== 'normal') return grouped(placed, { opacity, composite: blend });
  return opacity < 1 ? fadedOver(placed, opacity) : placed;
}

const isStill = (m: Affine) => m.every((v, i) => Math.abs(v - (i === 0 || i === 3 ? 1 : 0)) < 1e-9);

/** Operations in another place of the frame; effects go with their size. */
function moved(ops: readonly Op[], matrix: Affine, scale: number): readonly Op[] {
  if (isStill(matrix)) return ops;
  return ops.map((op): Op => {
    if (op.op === 'open')
      return {
        ...op,
        bounds: planeBounds(planeAfter(matrix, IDENTITY_PLANE), op.bounds),
        effects: op.effects.map((effect) => movedEffect(effect, matrix, scale)),
      };
    if (op.op === 'unclip' || op.op === 'close') return op;
    if (op.op === 'grain')
      return { ...op, size: op.size * scale, area: planeBounds(planeAfter(matrix, IDENTITY_PLANE), op.area) };
    return { ...op, plane: planeAfter(matrix, op.plane) };
  });
}

type Point = readonly [number, number];

/** Where a point of an item is, as it lies in the frame. */
export const onFrame = ([a, b, c, d, e, f]: Affine, [x, y]: Point): Point => [
  a * x + c * y + e,
  b * x + d * y + f,
];

/** Where letters stand, as their item lies in the frame. */
export function framedLetters(map: LetterMap, { matrix }: Framed): LetterMap {
  return {
    ...map,
    letters: map.letters.map((letter) => ({
      ...letter,
      quad: letter.quad.map((p) => onFrame(matrix, p)),
      ...(letter.way ? { way: letter.way.map((p) => onFrame(matrix, p)) } : {}),
    })),
  };
}

/** Where a region shows, as its item lies in the frame. */
export function framedRegion(region: Region, { matrix, opacity }: Framed, fade: number): Region {
  const [a, b, c, d] = matrix;
  const [rx, ry, dx, dy] = region.unit;
  return {
    ...region,
    quad: region.quad.map((p) => onFrame(matrix, p)),
    unit: [a * rx + c * ry, b * rx + d * ry, a * dx + c * dy, b * dx + d * dy],
    opacity: region.opacity * opacity * fade,
  };
}
