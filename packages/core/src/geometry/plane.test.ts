import { multiply4, perspective4, planeOf, project, translation4, turn4 } from './matrix';
import { ellipsePath, type Path, rectanglePath } from './path';
import { clipToNear, flatMap, flatten, planeBounds, projectPath } from './plane';

const lens = perspective4(2000, 960, 540);
/** A plane about its middle, turned about x, y and z there. */
const turned = (x: number, y: number, z: number, width: number, height: number) =>
  planeOf(
    multiply4(
      lens,
      multiply4(
        translation4(960, 540, 0),
        multiply4(turn4(x, y, z), translation4(-width / 2, -height / 2, 0)),
      ),
    ),
  );

/** Farthest the lines of a projected path lie from the projections of its curves' points. */
function farthest(path: Path, h: ReturnType<typeof planeOf>, curves: Path): number {
  const lines = path.commands.flatMap((c) => (c[0] === 'Z' ? [] : [[c[1], c[2]] as const]));
  let [most, px, py] = [0, 0, 0];
  const points = curves.commands.flatMap((c): (readonly [number, number])[] => {
    if (c[0] !== 'C') {
      if (c[0] !== 'Z') [px, py] = [c[1], c[2]];
      return [];
    }
    const [sx, sy] = [px, py];
    [px, py] = [c[5], c[6]];
    return Array.from({ length: 600 }, (_, i) => {
      const [t, u] = [i / 600, 1 - i / 600];
      const [a, b, d, e] = [u ** 3, 3 * u * u * t, 3 * u * t * t, t ** 3];
      return [a * sx + b * c[1] + d * c[3] + e * c[5], a * sy + b * c[2] + d * c[4] + e * c[6]];
    });
  });
  for (const point of points) {
    const [x, y] = project(h, ...point);
    const distance = lines.reduce((least, [ax, ay], j) => {
      const [bx, by] = lines[(j + 1) % lines.length]!;
      const length = (bx - ax) ** 2 + (by - ay) ** 2;
      const t =
        length > 0 ? Math.min(1, Math.max(0, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / length)) : 0;
      return Math.min(least, Math.hypot(ax + t * (bx - ax) - x, ay + t * (by - ay) - y));
    }, Number.POSITIVE_INFINITY);
    most = Math.max(most, distance);
  }
  return most;
}

describe('curves through a plane', () => {
  it.each([500, 2000])('an ellipse of radius %i keeps to its tolerance, however large', (r) => {
    const plane = turned(20, 40, 10, 2 * r, 2 * r);
    const path = ellipsePath({ x: 0, y: 0, width: 2 * r, height: 2 * r });
    expect(farthest(projectPath(path, plane, 0.1), plane, path)).toBeLessThan(0.11);
  });

  it('take no more lines than they need', () => {
    const circle = ellipsePath({ x: 0, y: 0, width: 20, height: 20 });
    expect(flatten(circle, turned(0, 0, 0, 20, 20), 0.1)[0]!.points.length).toBeLessThan(40);
  });

  it('straight lines stay as they are, and parts stay apart', () => {
    const box = rectanglePath({ x: 0, y: 0, width: 10, height: 10 });
    const two = { commands: [...box.commands, ...box.commands] };
    const lines = flatten(two, turned(0, 30, 0, 10, 10), 0.1);
    expect(lines.map((l) => l.points.length)).toEqual([4, 4]);
    expect(lines.every((l) => l.closed)).toBe(true);
  });
});

describe('the near plane', () => {
  const tall = turned(75, 0, 0, 400, 6000);

  it('cuts a plane that passes the camera, and does not shear it', () => {
    // By hand: where the plane crosses the bottom of the frame, d/(d+z) of its half width 200 shows.
    // y·cos 75°·2000/(2000 − y·sin 75°) = 540 gives y = 1038.5, so the span is 960 ± 200·2000/(2000 − 1003.1).
    const path = projectPath(rectanglePath({ x: 0, y: 0, width: 400, height: 6000 }), tall, 0.1);
    const points = path.commands.flatMap((c) => (c[0] === 'Z' ? [] : [[c[1], c[2]] as const]));
    const crossings = points.flatMap(([x, y], i) => {
      const [nx, ny] = points[(i + 1) % points.length]!;
      return y > 1080 !== ny > 1080 ? [x + ((nx - x) * (1080 - y)) / (ny - y)] : [];
    });
    expect(crossings).toHaveLength(2);
    const [left, right] = [...crossings].sort((a, b) => a - b);
    expect(left).toBeCloseTo(558.8, 0);
    expect(right).toBeCloseTo(1361.2, 0);
  });

  it('leaves nothing of what lies behind the camera', () => {
    const behind = planeOf(multiply4(lens, translation4(0, 0, -2500)));
    expect(planeBounds(behind, { x: 0, y: 0, width: 100, height: 100 }).width).toBe(0);
    expect(projectPath(ellipsePath({ x: 0, y: 0, width: 9, height: 9 }), behind, 0.1).commands).toEqual([]);
  });

  it('keeps the corners that are seen', () => {
    const corner = clipToNear(
      [
        [0, 0],
        [400, 0],
        [400, 6000],
        [0, 6000],
      ],
      tall,
    );
    expect(corner.slice(0, 2)).toEqual([
      [0, 0],
      [400, 0],
    ]);
    expect(corner).toHaveLength(4);
  });
});

describe('the affine map that stands in for a plane', () => {
  it('is the plane itself where it has no perspective, and none where the eye would tell', () => {
    const box = { x: 0, y: 0, width: 300, height: 100 };
    expect(flatMap(turned(0, 0, 30, 300, 100), box, 0)).toBeDefined();
    expect(flatMap(turned(0, 40, 0, 300, 100), box, 0.4)).toBeUndefined();
    expect(flatMap(turned(0, 40, 0, 10, 10), { x: 0, y: 0, width: 10, height: 10 }, 0.4)).toBeDefined();
  });
});
