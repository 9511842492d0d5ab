import { mat4, vec4 } from 'gl-matrix';
import {
  type Affine,
  affineOf,
  depthOf,
  type Homography,
  inverse,
  invertAffine,
  isAffine,
  largestScale,
  multiply4,
  perspective4,
  planeInView,
  planeOf,
  planeTimes,
  project,
  scale4,
  skew4,
  translation4,
  turn4,
} from './matrix';

const close = (a: ArrayLike<number>, b: ArrayLike<number>) => {
  expect(a.length).toBe(b.length);
  for (let i = 0; i < a.length; i++) expect(a[i]).toBeCloseTo(b[i]!, 5);
};

describe('4×4 matrices against gl-matrix', () => {
  it('translate, scale and multiply', () => {
    const theirs = mat4.create();
    mat4.translate(theirs, theirs, [3, -4, 5]);
    mat4.scale(theirs, theirs, [2, 0.5, 1]);
    close(multiply4(translation4(3, -4, 5), scale4(2, 0.5)), theirs);
  });

  it.each([
    [30, 0, 0],
    [0, 50, 0],
    [0, 0, -70],
    [12, 34, 56],
  ])('turn %i %i %i', (x, y, z) => {
    // y points down and z away: against gl-matrix's axes that keeps x and z turns and reverses y ones.
    const theirs = mat4.create();
    const rad = Math.PI / 180;
    mat4.rotateZ(theirs, theirs, z * rad);
    mat4.rotateY(theirs, theirs, -y * rad);
    mat4.rotateX(theirs, theirs, -x * rad);
    close(turn4(x, y, z), theirs);
  });

  it('projects as a perspective camera does', () => {
    const [distance, cx, cy] = [1500, 960, 540];
    const ours = multiply4(
      perspective4(distance, cx, cy),
      multiply4(translation4(200, 100, 300), turn4(0, 40, 10)),
    );
    // The same camera in gl-matrix: eye at (0, 0, −distance) looking along z, field of view so that z = 0 keeps its size.
    const lens = mat4.perspective(mat4.create(), 2 * Math.atan(540 / distance), 960 / 540, 1, 10000);
    const view = mat4.lookAt(mat4.create(), [960, 540, -distance], [960, 540, 0], [0, -1, 0]);
    const model = mat4.create();
    mat4.translate(model, model, [200, 100, 300]);
    mat4.rotateZ(model, model, (10 * Math.PI) / 180);
    mat4.rotateY(model, model, (-40 * Math.PI) / 180);
    const all = mat4.multiply(mat4.create(), lens, mat4.multiply(mat4.create(), view, model));
    for (const [x, y] of [
      [0, 0],
      [300, 0],
      [300, 200],
      [-50, 120],
    ] as const) {
      const clip = vec4.transformMat4(vec4.create(), [x, y, 0, 1], all);
      const expected = [960 * (1 + clip[0] / clip[3]), 540 * (1 - clip[1] / clip[3])];
      // gl-matrix keeps 32-bit floats: about seven digits of a thousand.
      const [px, py] = project(planeOf(ours), x, y);
      expect(px).toBeCloseTo(expected[0]!, 2);
      expect(py).toBeCloseTo(expected[1]!, 2);
    }
  });
});

describe('planes', () => {
  it('facing the camera are affine, turned ones are not', () => {
    const lens = perspective4(2000, 960, 540);
    expect(isAffine(planeOf(multiply4(lens, translation4(10, 20, 500))))).toBe(true);
    expect(isAffine(planeOf(multiply4(lens, turn4(0, 0, 45))))).toBe(true);
    expect(isAffine(planeOf(multiply4(lens, turn4(0, 30, 0))))).toBe(false);
  });

  it('farther ones show smaller, about the middle of the frame', () => {
    const plane = planeOf(multiply4(perspective4(1000, 500, 500), translation4(0, 0, 1000)));
    expect(affineOf(plane)).toEqual([0.5, 0, 0, 0.5, 250, 250]);
  });

  it('a positive y turn sends the right side away', () => {
    const m = turn4(0, 30, 0);
    expect(depthOf(m, 100, 0)).toBeGreaterThan(0);
    expect(depthOf(m, -100, 0)).toBeLessThan(0);
  });

  it('a point behind the camera does not come back through it', () => {
    const plane = planeOf(multiply4(perspective4(100, 0, 0), turn4(0, 90, 0)));
    const [x] = project(plane, -500, 0);
    expect(Number.isFinite(x)).toBe(true);
  });
});

describe('planes', () => {
  const h = planeOf(multiply4(perspective4(800, 100, 100), turn4(20, 40, 10)));
  it('go back to where a point came from', () => {
    const back = inverse(h)!;
    for (const [x, y] of [
      [0, 0],
      [120, 30],
      [-50, 200],
    ] as const)
      close(project(back, ...project(h, x, y)), [x, y]);
    expect(inverse([1, 2, 0, 2, 4, 0, 0, 0, 1])).toBeUndefined();
    const map = [2, 1, -1, 3, 5, 7] as const;
    const undo = invertAffine(map)!;
    close(planeTimes([...rowsOf(undo)], map), [1, 0, 0, 0, 1, 0, 0, 0, 1]);
  });

  it('lean by an angle, tops to the right', () => {
    close(project(planeOf(skew4(45)), 0, -10), [10, -10]);
  });

  it('seen from coordinates of their own, and in a view, agree with their parts', () => {
    const place = [3, 0, 0, 3, 10, 20] as const;
    close(project(planeTimes(h, place), 4, 5), project(h, 22, 35));
    const [x, y] = project(h, 22, 35);
    close(project(planeInView(h, 2, -7, 9), 22, 35), [2 * x - 7, 2 * y + 9]);
  });

  it('enlarge most along the longer axis of the ellipse they make of a circle', () => {
    expect(largestScale(planeOf(multiply4(scale4(3, 0.5), turn4(0, 0, 30))), 5, 5)).toBeCloseTo(3, 9);
    const [a, b] = [project(h, 60, 60), project(h, 60.001, 60)];
    expect(largestScale(h, 60, 60)).toBeGreaterThanOrEqual(
      Math.hypot(b[0] - a[0], b[1] - a[1]) / 0.001 - 1e-6,
    );
  });
});

/** An affine map as a plane without perspective. */
function rowsOf([a, b, c, d, e, f]: Affine): Homography {
  return [a, c, e, b, d, f, 0, 0, 1];
}
