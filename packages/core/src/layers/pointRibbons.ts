import { mixColours, withAlpha } from '../colour/colour';
import { IDENTITY_PLANE } from '../geometry/matrix';
import type { Op } from '../paint/ops';
import type { PaintTools } from './kind';
import type { Far, PointsLayer, Shown } from './pointsSchema';

/** Ribbons at most: each is many faces. */
const MOST = 600;
/** Faces of a ribbon from one end to the other. */
const FACES = 10;
/** How much darker a ribbon is where it is turned away. */
const FOLD = 0.45;

/**
 * Links as ribbons, the farthest first: bands that are widest in their middle, bow upwards, and turn over once on their
 * way, lighter on the side that shows first.
 */
export function paintRibbons(
  links: NonNullable<PointsLayer['links']>,
  pairs: readonly (readonly [Shown, Shown])[],
  far: Far,
  { value, scale, notice }: PaintTools,
): Op[] {
  if (pairs.length > MOST) notice({ kind: 'too-much', slot: '' });
  const [half, opacity, bow, colour] = [
    value(links.width) / 2,
    value(links.opacity),
    value(links.bow),
    value(links.colour),
  ];
  const order = [...pairs.slice(0, MOST)].sort((a, b) => b[0].depth + b[1].depth - a[0].depth - a[1].depth);
  const points: number[] = [];
  const colours: string[] = [];
  for (const [a, b] of order) {
    const end = Math.min(a.come, b.come);
    const away = (a.away + b.away) / 2;
    const own = withAlpha(
      far.darker > 0 ? mixColours(colour, far.dark, far.darker * away) : colour,
      1 - far.fainter * away,
    );
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    const length = Math.hypot(dx, dy) || 1;
    const side = dx >= 0 ? 1 : -1;
    /** The two edges of the ribbon at a part of its way, and which side of it shows. */
    const at = (t: number) => {
      const lift = 4 * t * (1 - t) * bow * side;
      const [x, y] = [a.x + dx * t + dy * lift, a.y + dy * t - dx * lift];
      const turn = Math.cos(Math.PI * t);
      const wide = half * scale * (a.scale + (b.scale - a.scale) * t) * Math.sin(Math.PI * (0.08 + 0.84 * t));
      // Never thinner than a line, so that it does not break where it turns over.
      const reach = wide * (Math.abs(turn) < 0.12 ? 0.12 : turn);
      return { x, y, nx: (-dy / length) * reach, ny: (dx / length) * reach, turn };
    };
    for (let i = 0; i < FACES; i++) {
      const [p, q] = [at((i / FACES) * end), at(((i + 1) / FACES) * end)];
      const corners = [
        p.x + p.nx,
        p.y + p.ny,
        q.x + q.nx,
        q.y + q.ny,
        q.x - q.nx,
        q.y - q.ny,
        p.x - p.nx,
        p.y - p.ny,
      ];
      points.push(...corners);
      colours.push(mixColours(own, '#000000', p.turn > 0 ? 0.1 * (1 - p.turn) : FOLD * (0.4 - 0.6 * p.turn)));
    }
  }
  if (colours.length === 0) return [];
  return [{ op: 'faces', plane: IDENTITY_PLANE, points: Float32Array.from(points), colours, opacity }];
}
