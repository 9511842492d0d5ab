import { type Matrix4, multiply4, scale4, translation4, turn4 } from '../geometry/matrix';
import type { Rect } from '../geometry/rect';
import type { Op } from '../paint/ops';
import type { PlacedGlyph, TextLayout, Unit } from '../text/textLayout';
import type { PaintTools } from './kind';
import type { TextLayer } from './textSchema';
import type { TextFill } from './textStyle';
import type { UnitState } from './unitState';

/** A motion at this moment: the state of every unit of its kind. */
export interface Move {
  readonly unit: Unit;
  readonly pivot: readonly [number, number, number];
  readonly behind: boolean;
  readonly states: readonly (UnitState | undefined)[];
}

/** Everything about one text at one moment that painting its parts needs. */
export interface TextMoment {
  readonly layer: TextLayer;
  readonly layout: TextLayout;
  readonly tools: PaintTools;
  readonly moves: readonly Move[];
  /** Whether a glyph is in a marked run. */
  isMarked(g: PlacedGlyph): boolean;
  /** From the straight text's coordinates to the layer's, for one glyph at rest: what a bend does. */
  restOf(g: PlacedGlyph): Matrix4;
  /** From the straight text's coordinates to the camera's, for one glyph at rest. */
  baseOf(g: PlacedGlyph): Matrix4;
}

/** Number of the unit a glyph belongs to. */
export const indexOf = (g: PlacedGlyph, unit: Unit) => (unit === 'whole' ? 0 : g[unit]);

/** The matrix of a unit's state, in the text's coordinates. Moves are parts of an em. */
export function stateMatrix(
  state: UnitState,
  pivot: readonly [number, number, number],
  box: Rect,
  size: number,
): Matrix4 {
  const [px, py, pz] = [box.x + pivot[0] * box.width, box.y + pivot[1] * box.height, pivot[2] * size];
  let m = translation4(px + state.move[0] * size, py + state.move[1] * size, pz + state.move[2] * size);
  if (state.turn.some((t) => t !== 0)) m = multiply4(m, turn4(...state.turn));
  if (state.scale[0] !== 1 || state.scale[1] !== 1) m = multiply4(m, scale4(...state.scale));
  return multiply4(m, translation4(-px, -py, -pz));
}

/** From the straight text's coordinates to the camera's, for one glyph as some motions have it. */
export function glyphMatrix({ layout, baseOf }: TextMoment, moves: readonly Move[], g: PlacedGlyph): Matrix4 {
  let matrix = baseOf(g);
  for (const { unit, pivot, states } of moves) {
    const index = indexOf(g, unit);
    const state = states[index];
    if (!state) continue;
    matrix = multiply4(matrix, stateMatrix(state, pivot, layout.units[unit][index]!, layout.size));
  }
  return matrix;
}

/** Where the operations of one fill go: what lies below all fills, and the rest. */
export type Into = (fill: TextFill) => { below: Op[]; above: Op[] };
