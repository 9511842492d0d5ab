import { boundsOf, type Rect, TITLE_SAFE } from '@fresh-reel/core';

/** A thin line that shows to what something snapped: at a place across or down the frame, in frame units. */
export interface Guide {
  readonly axis: 'x' | 'y';
  readonly at: number;
}

interface Frame {
  readonly width: number;
  readonly height: number;
}

type Quad = readonly (readonly [number, number])[];

const edges = (from: number, length: number) => [from, from + length / 2, from + length];

/** Places worth meeting: the middle, the thirds, the title-safe edges, and edges and middles of other layers. */
function places(axis: 'x' | 'y', frame: Frame, others: readonly Quad[]): number[] {
  const length = axis === 'x' ? frame.width : frame.height;
  const boxes = others.map((q) => boundsOf(q));
  return [
    length / 2,
    length / 3,
    (2 * length) / 3,
    length * TITLE_SAFE,
    length * (1 - TITLE_SAFE),
    ...boxes.flatMap((b) => (axis === 'x' ? edges(b.x, b.width) : edges(b.y, b.height))),
  ];
}

/**
 * Moves a box so that one of its edges or its middle meets a place near it.
 * @param reach how near, in frame units
 * @returns the move with what was added, and the lines it met
 */
export function snapMove(
  box: Rect,
  move: readonly [number, number],
  frame: Frame,
  others: readonly Quad[],
  reach: number,
): { move: [number, number]; guides: Guide[] } {
  const guides: Guide[] = [];
  const along = (axis: 'x' | 'y', from: number, length: number, by: number) => {
    let best: { by: number; at: number } | undefined;
    for (const at of places(axis, frame, others)) {
      for (const edge of edges(from + by, length)) {
        const gap = at - edge;
        if (Math.abs(gap) <= reach && (!best || Math.abs(gap) < Math.abs(best.by))) best = { by: gap, at };
      }
    }
    if (best) guides.push({ axis, at: best.at });
    return by + (best?.by ?? 0);
  };
  const x = along('x', box.x, box.width, move[0]);
  const y = along('y', box.y, box.height, move[1]);
  return { move: [x, y], guides };
}

/** Degrees that a turn rests at when it is near. */
const QUARTER = 45;
const NEAR = 3;

export function snapTurn(degrees: number): number {
  const rest = Math.round(degrees / QUARTER) * QUARTER;
  return Math.abs(degrees - rest) <= NEAR ? rest : Math.round(degrees * 10) / 10;
}
