import { mat4, vec4 } from 'gl-matrix';
import {
  affineOf,
  depthOf,
  isAffine,
  multiply4,
  multiplyAffine,
  perspective4,
  planeOf,
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

describe('affine maps', () => {
  it('multiply as their 4×4 forms do', () => {
    const a = multiply4(translation4(5, 6, 0), turn4(0, 0, 30));
    const b = multiply4(scale4(2, 3), skew4(20));
    close(multiplyAffine(affineOf(planeOf(a)), affineOf(planeOf(b))), affineOf(planeOf(multiply4(a, b))));
  });
});
