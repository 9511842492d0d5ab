import { multiply4, planeOf } from '../geometry/matrix';
import { roundedPath } from '../geometry/path';
import { type Rect, union } from '../geometry/rect';
import { easingFunction } from '../motion/easing';
import { fittingStagger } from '../motion/stagger';
import type { Op } from '../paint/ops';
import type { PlacedGlyph } from '../text/textLayout';
import { markTime } from '../time/clock';
import { resolveMargin, resolvePaint } from './common';
import { indexOf, stateMatrix, type TextMoment } from './textMoment';
import type { TextPlate } from './textStyle';

/** What one plate lies behind: its box in the text's coordinates, and its glyphs. */
interface Backed {
  readonly box: Rect;
  readonly glyphs: readonly PlacedGlyph[];
}

/** Letters that the plate takes together: those of a unit, or a marked stretch on one line. */
function backed({ layout, isMarked }: TextMoment, plate: TextPlate): Backed[] {
  const groups = new Map<string, PlacedGlyph[]>();
  for (const g of layout.glyphs) {
    if (plate.behind === 'marked' && !isMarked(g)) continue;
    const key =
      plate.behind === 'whole'
        ? ''
        : plate.behind === 'marked'
          ? `${g.run}/${g.line}`
          : String(g[plate.behind]);
    const group = groups.get(key);
    if (group) group.push(g);
    else groups.set(key, [g]);
  }
  return [...groups.values()].flatMap((glyphs) => {
    const boxes = glyphs.filter((g) => !isBlank(g)).map((g) => boxOf(g, layout));
    return boxes.length === 0 ? [] : [{ glyphs, box: boxes.reduce(union) }];
  });
}

function isBlank(g: PlacedGlyph): boolean {
  return g.picture === undefined && g.face.outline(g.glyph).commands.length === 0;
}

/** From capitals' height to baseline: margins then look even, whatever the letters. */
function boxOf(g: PlacedGlyph, { lines, size }: TextMoment['layout']): Rect {
  const { baseline } = lines[g.line]!;
  const cap = g.face.capHeight * size;
  return { x: g.x, y: baseline - cap, width: Math.max(g.advance, 1e-3), height: cap };
}

/** Paints the plates and borders behind a text, first those listed first. */
export function paintPlates(moment: TextMoment): Op[] {
  return moment.layer.plates.flatMap((plate) => {
    const all = backed(moment, plate);
    return all.flatMap((b, i) => paintPlate(plate, b, i, all.length, moment));
  });
}

function paintPlate(plate: TextPlate, b: Backed, index: number, count: number, moment: TextMoment): Op[] {
  const { value } = moment.tools;
  const [first] = b.glyphs;
  const letters = averages(b, moment);
  let opacity = letters.opacity;
  let [shown, fromEnd] = [letters.shown, false];
  if (plate.grow) {
    ({ shown, fromEnd } = grown(plate.grow, index, count, moment));
    if (!plate.grow.leave && moment.tools.moment.time < hold(moment)) opacity = 1;
  }
  if (shown <= 0 || opacity <= 0.002) return [];

  const [top, right, bottom, left] = resolveMargin(plate.margin, value);
  const whole = {
    x: b.box.x - left,
    y: b.box.y - top,
    width: b.box.width + left + right,
    height: b.box.height + top + bottom,
  };
  const width = whole.width * Math.min(1, shown);
  const box = { ...whole, x: fromEnd ? whole.x + whole.width - width : whole.x, width };
  const path = roundedPath(box, value(plate.corner));

  // The plate goes with motions of units as large as it or larger; smaller ones move letters before it.
  let matrix = moment.baseOf(first!);
  for (const { unit, pivot, states } of moment.moves) {
    const at = indexOf(first!, unit);
    const together = b.glyphs.every((g) => indexOf(g, unit) === at);
    const state = states[at];
    if (together && state) {
      matrix = multiply4(
        matrix,
        stateMatrix(state, pivot, moment.layout.units[unit][at]!, moment.layout.size),
      );
    }
  }
  const strokeWidth = plate.stroke ? value(plate.stroke.width) : 0;
  return [
    {
      op: 'path',
      path,
      plane: planeOf(matrix),
      opacity,
      ...(plate.fill ? { fill: resolvePaint(plate.fill, whole, value) } : {}),
      ...(plate.stroke && strokeWidth > 0
        ? {
            stroke: {
              paint: resolvePaint(plate.stroke.paint, whole, value),
              width: strokeWidth,
              join: 'miter' as const,
              cap: 'butt' as const,
            },
          }
        : {}),
    },
  ];
}

function hold({ tools }: TextMoment): number {
  return tools.moment.clock.in + tools.moment.clock.hold;
}

/** How much of a plate's letters has come: the part that shows, and the opacity of the clearest of them. */
function averages({ glyphs }: Backed, { moves }: TextMoment): { shown: number; opacity: number } {
  if (moves.length === 0) return { shown: 1, opacity: 1 };
  let [shown, opacity] = [0, 0];
  for (const g of glyphs) {
    let [s, o] = [1, 1];
    for (const { unit, states } of moves) {
      const state = states[indexOf(g, unit)];
      if (!state) continue;
      s = Math.min(s, state.shown);
      o *= state.opacity;
    }
    shown += s;
    opacity = Math.max(opacity, o);
  }
  return { shown: shown / glyphs.length, opacity };
}

/** How far a plate with a time of its own has grown, and from which end it is drawn. */
function grown(
  grow: NonNullable<TextPlate['grow']>,
  index: number,
  count: number,
  { tools }: TextMoment,
): { shown: number; fromEnd: boolean } {
  const { clock, time } = tools.moment;
  const progress = (start: number, length: number) =>
    length > 0 ? Math.min(1, Math.max(0, (time - start) / length)) : time >= start ? 1 : 0;
  const start = markTime(clock, grow.start);
  const length = tools.value(grow.length);
  const ranks = Array.from({ length: count }, (_, i) => i);
  const available = clock.in + clock.hold + clock.out - start;
  const stagger = fittingStagger(tools.value(grow.stagger), ranks, length, available);
  const curve = easingFunction(grow.ease);
  if (grow.leave) {
    const left = progress(markTime(clock, grow.leave.start), tools.value(grow.leave.length));
    if (left > 0) return { shown: 1 - curve(left), fromEnd: true };
  }
  return { shown: curve(progress(start + index * stagger, length)), fromEnd: false };
}
