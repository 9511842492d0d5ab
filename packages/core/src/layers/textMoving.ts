import type { Effect } from '../effects/registry';
import { type Matrix4, multiply4, planeOf, translation4 } from '../geometry/matrix';
import { rectanglePath } from '../geometry/path';
import type { Rect } from '../geometry/rect';
import { faded, grouped } from '../paint/compose';
import type { Op, Paint } from '../paint/ops';
import type { PlacedGlyph, TextLayout, Unit } from '../text/textLayout';
import type { Side } from './motionSchema';
import { type Ink, inkGlyph } from './textInk';
import { type Into, indexOf, stateMatrix, type TextMoment } from './textMoment';
import type { TextFill } from './textStyle';
import type { UnitState } from './unitState';

/** Neighbours that fade alike. */
interface Faded {
  readonly opacity: number;
  readonly below: Op[];
  readonly above: Op[];
  /** All that the letters cover and a little more. */
  readonly covered: Op[];
}

/** Neighbours that are blurred alike, on their way into one group: a group a letter would cost many times more. */
interface Alike {
  readonly fill: TextFill;
  readonly line: number;
  readonly radius: number;
  readonly parts: Faded[];
}

/** Letters that may move one by one in a frame. */
const MOST_MOVING = 20_000;

/** Radii differ by an eighth from one step to the next, which nobody sees in letters that are on their way. */
const SOFTER = 1.125;
export const stepOf = (radius: number) =>
  radius <= 0.05 ? 0 : SOFTER ** Math.round(Math.log(radius) / Math.log(SOFTER));

/**
 * Paints words glyph by glyph, each with what its units' motions do to it. Letters of one unit fade as one, also where
 * they are joined.
 * @returns what takes away from outlined letters that fade, once all are painted
 */
export function paintMoving(
  moment: TextMoment,
  inkOf: (g: PlacedGlyph) => [TextFill, Ink],
  into: Into,
): Op[] {
  const fades: Op[] = [];
  let alike: Alike | undefined;
  const flush = () => {
    if (!alike) return;
    const { radius, parts } = alike;
    const { below, above } = into(alike.fill);
    if (radius > 0) {
      const effects: Effect[] = [{ effect: 'blur', radius: radius * moment.tools.scale }];
      above.push(
        ...grouped(
          parts.flatMap((p) => faded([...p.below, ...p.above], p.opacity)),
          { effects },
        ),
      );
    } else {
      for (const part of parts) {
        // What lies below all fills cannot fade with one of them: both are painted whole, and taken away from after.
        const late = part.opacity < 1 && part.below.length > 0;
        below.push(...part.below);
        above.push(...(late ? part.above : faded(part.above, part.opacity)));
        if (late)
          fades.push(...grouped(part.covered, { opacity: 1 - part.opacity, composite: 'keep-outside' }));
      }
    }
    alike = undefined;
  };
  const letters = moment.layout.glyphs;
  if (letters.length > MOST_MOVING) moment.tools.notice({ kind: 'too-much', slot: '' });
  for (const g of letters.slice(0, MOST_MOVING)) {
    const [fill, ink] = inkOf(g);
    const painted = paintMovingGlyph(g, moment, ink);
    if (!painted) continue;
    const radius = stepOf(painted.blur);
    if (alike?.radius !== radius || alike.line !== g.line || alike.fill !== fill) flush();
    alike ??= { fill, line: g.line, radius, parts: [] };
    const { opacity } = painted;
    let part = alike.parts.at(-1);
    if (part?.opacity !== opacity) {
      part = { opacity, below: [], above: [], covered: [] };
      alike.parts.push(part);
    }
    part.below.push(...painted.below);
    part.above.push(...painted.above);
    if (opacity < 1 && painted.below.length > 0) part.covered.push(...painted.covered());
  }
  flush();
  return fades;
}

interface Painted {
  readonly below: Op[];
  readonly above: Op[];
  readonly blur: number;
  readonly opacity: number;
  /** All that the letter covers and a little more. */
  covered(): Op[];
}

/** A letter as its units' motions have it. */
export interface MovedGlyph {
  /** From the text's own coordinates to the camera's, projection included. */
  readonly matrix: Matrix4;
  readonly opacity: number;
  /** Frame units. */
  readonly blur: number;
  /** What it shows other than itself. */
  readonly change: NonNullable<Parameters<typeof inkGlyph>[4]>;
  /** Boxes outside which nothing of it shows. */
  readonly clips: readonly { readonly box: Rect; readonly matrix: Matrix4 }[];
}

/** What the motions do to a letter at this moment, or nothing when nothing of it shows. */
export function movedGlyph(g: PlacedGlyph, moment: TextMoment): MovedGlyph | undefined {
  const { layout, moves } = moment;
  const { size } = layout;
  let matrix = moment.baseOf(g);
  const rest = matrix;
  let [opacity, blur] = [1, 0];
  let other: number | undefined;
  let draw: { pen: number; part: number } | undefined;
  const clips: { box: Rect; matrix: Matrix4 }[] = [];
  for (const { unit, pivot, behind, states } of moves) {
    const index = indexOf(g, unit);
    if (behind) clips.push({ box: edgeOf(layout, g.line), matrix: rest });
    const state = states[index];
    if (!state) continue;
    opacity *= state.opacity;
    if (opacity <= 0.002) return undefined;
    blur = Math.max(blur, state.blur);
    other ??= state.other;
    if (state.draw !== undefined) draw = { pen: state.draw, part: state.shown };
    matrix = multiply4(matrix, stateMatrix(state, pivot, layout.units[unit][index]!, size));
    if (state.spread !== 0) matrix = multiply4(matrix, translation4(spreadOf(g, unit, state, layout), 0, 0));
    if (state.wipe) {
      const box = wiped(layout.units[unit][index]!, state.wipe, state.shown, size);
      if (box.width <= 0 || box.height <= 0) return undefined;
      clips.push({ box, matrix });
    }
  }
  const change = { ...(other === undefined ? {} : otherGlyph(g, layout, other)), ...(draw ? { draw } : {}) };
  return { matrix, opacity, blur, change, clips };
}

/** Operations within the boxes outside which nothing of a letter shows. */
export function clippedTo(ops: Op[], clips: MovedGlyph['clips']): Op[] {
  return ops.length === 0 ? ops : clips.reduce(clipped, ops);
}

function paintMovingGlyph(g: PlacedGlyph, moment: TextMoment, ink: Ink): Painted | undefined {
  const moved = movedGlyph(g, moment);
  if (!moved) return undefined;
  const { matrix, opacity, blur, change, clips } = moved;
  const { size } = moment.layout;
  const { below, above } = inkGlyph(g, size, ink, matrix, change);
  return {
    below: clippedTo(below, clips),
    above: clippedTo(above, clips),
    blur,
    opacity,
    covered: () => coveredBy(g, size, ink, matrix, change),
  };
}

/** Frame units by which what takes a letter away is wider than the letter, so that no edge of it stays. */
const WIDER = 2;

function coveredBy(
  g: PlacedGlyph,
  size: number,
  ink: Ink,
  matrix: Matrix4,
  change: Parameters<typeof inkGlyph>[4],
): Op[] {
  const paint: Paint = { kind: 'solid', colour: '#ffffff' };
  const widest = Math.max(0, ...ink.outlines.map((o) => o.width * (o.side === 'outside' ? 1 : 0.5)));
  const all: Ink = {
    ...ink,
    fill: paint,
    outlines: [{ paint, width: 2 * (widest + WIDER), side: 'centre' }],
  };
  return inkGlyph(g, size, all, matrix, change).above;
}

/** How far a letter stands from its place when its unit is spread: letters from the middle of their line. */
function spreadOf(g: PlacedGlyph, unit: Unit, state: UnitState, layout: TextLayout): number {
  const holder = unit === 'letter' ? layout.units.line[g.line]! : layout.units[unit][indexOf(g, unit)]!;
  return state.spread * (g.x + g.advance / 2 - (holder.x + holder.width / 2));
}

/** Room beyond a unit's box for overhanging ink, in ems, so that a wipe cuts only at its edge. */
const OVERHANG = 0.3;

/** The part of a unit that a wipe has uncovered. */
function wiped(box: Rect, side: Side, shown: number, size: number): Rect {
  const pad = OVERHANG * size;
  const all = { x: box.x - pad, y: box.y - pad, width: box.width + 2 * pad, height: box.height + 2 * pad };
  const [w, h] = [all.width * shown, all.height * shown];
  switch (side) {
    case 'left':
      return { ...all, width: w };
    case 'right':
      return { ...all, x: all.x + all.width - w, width: w };
    case 'top':
      return { ...all, height: h };
    case 'bottom':
      return { ...all, y: all.y + all.height - h, height: h };
    case 'middle-across':
      return { ...all, x: all.x + (all.width - w) / 2, width: w };
    case 'middle-down':
      return { ...all, y: all.y + (all.height - h) / 2, height: h };
  }
}

/** The edges a line comes from behind. */
function edgeOf(layout: TextLayout, lineNumber: number): Rect {
  const line = layout.lines[lineNumber]!;
  return {
    x: -layout.size,
    y: line.top,
    width: layout.width + 2 * layout.size,
    height: line.bottom - line.top,
  };
}

function clipped(ops: Op[], { box, matrix }: MovedGlyph['clips'][number]): Op[] {
  return [{ op: 'clip', path: rectanglePath(box), plane: planeOf(matrix) }, ...ops, { op: 'unclip' }];
}

const LETTERS = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'];

/** Another letter in a letter's place, set on its middle: from the same font and of the same case. */
function otherGlyph(
  g: PlacedGlyph,
  layout: TextLayout,
  seed: number,
): { glyph: number; dx: number } | object {
  if (g.picture !== undefined) return {};
  const upper = g.face.ink(g.glyph).top < -g.face.capHeight * 0.92;
  const picked = LETTERS[Math.abs(Math.imul(seed, 2654435761)) % LETTERS.length]!;
  const letter = upper ? picked : picked.toLowerCase();
  if (!g.face.covers(letter)) return {};
  const [shaped] = g.face.shape(letter, 'ltr');
  return { glyph: shaped!.g, dx: (g.advance - g.face.ems(shaped!.ax) * layout.size) / 2 };
}
