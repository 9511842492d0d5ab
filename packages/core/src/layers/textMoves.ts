import type { PlacedGlyph, TextLayout, Unit } from '../text/textLayout';
import type { PaintTools } from './kind';
import { duringStates } from './textDuring';
import { indexOf, type Move } from './textMoment';
import { unitStates } from './textMotion';
import type { TextLayer } from './textSchema';
import type { UnitState } from './unitState';

/** The bar that stands after what has been typed. */
export interface Cursor {
  /** Letter the cursor stands after; −1 before the first. */
  readonly after: number;
}

/** The motions that do something at this moment. */
export function movesAt(
  layer: TextLayer,
  layout: TextLayout,
  tools: PaintTools,
  isMarked: (g: PlacedGlyph) => boolean,
): { moves: Move[]; cursor: Cursor | undefined } {
  const moves: Move[] = [];
  let cursor: Cursor | undefined;
  const { value } = tools;
  const { clock, time } = tools.moment;
  const add = (
    unit: Unit,
    m: { pivot: readonly [number, number, number]; behind?: boolean },
    states: readonly (UnitState | undefined)[],
  ) => {
    if (states.some((s) => s)) moves.push({ unit, pivot: m.pivot, behind: m.behind ?? false, states });
  };
  for (const goes of ['in', 'out'] as const) {
    for (const m of layer.motion[goes]) {
      const unit = value(m.unit);
      const taking = unitsTaking(layout, unit, m.only, isMarked);
      const count = taking?.length ?? layout.units[unit].length;
      const ends = m.away.typing ? wordEnds(layout) : undefined;
      const found = unitStates(m, goes, count, tools, ends);
      add(unit, m, spreadOut(found.states, taking, layout.units[unit].length));
      const typing = found.cursor !== undefined && (goes === 'in' ? time < clock.in + clock.hold : true);
      const begun = goes === 'in' || found.states.some((s) => s);
      // A cursor that waits blinks, half a second on and half off (common practice).
      const waits = found.cursor === count && Math.floor(time / 30) % 2 === 1;
      if (typing && begun && !waits) cursor = { after: found.cursor! - 1 };
    }
  }
  for (const d of layer.motion.during) {
    const unit = value(d.unit);
    const all = layout.units[unit].length;
    const taking = unitsTaking(layout, unit, d.only, isMarked);
    add(unit, d, spreadOut(duringStates(d, taking?.length ?? all, tools), taking, all));
  }
  return { moves, cursor };
}

/** Units a motion is limited to, in reading order; nothing when it takes all. */
function unitsTaking(
  layout: TextLayout,
  unit: Unit,
  only: 'marked' | 'unmarked' | undefined,
  isMarked: (g: PlacedGlyph) => boolean,
): number[] | undefined {
  if (!only) return undefined;
  const units = new Set<number>();
  for (const g of layout.glyphs) if (isMarked(g) === (only === 'marked')) units.add(indexOf(g, unit));
  return [...units].sort((a, b) => a - b);
}

function spreadOut(
  states: readonly (UnitState | undefined)[],
  taking: readonly number[] | undefined,
  count: number,
): readonly (UnitState | undefined)[] {
  if (!taking) return states;
  const all = new Array<UnitState | undefined>(count).fill(undefined);
  taking.forEach((unit, i) => {
    all[unit] = states[i];
  });
  return all;
}

function wordEnds(layout: TextLayout): (letter: number) => boolean {
  const wordOf = new Map(layout.glyphs.map((g) => [g.letter, g.word]));
  return (letter) => wordOf.get(letter) !== wordOf.get(letter + 1);
}
