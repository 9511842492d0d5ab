import type { NodeStudio } from '@fresh-reel/node-host';
import fc from 'fast-check';
import { mat4, vec4 } from 'gl-matrix';
import { STROKE_NUMBERS } from '../canvas/strokes';
import type { Op } from '../paint/ops';
import { sceneOf, templateOf, testStudio, textSlot } from '../testing/studio';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const layer = (part: Record<string, unknown>) => ({
  id: 'p',
  kind: 'points',
  size: [800, 400],
  at: [0.5, 0.5],
  origin: [0.5, 0.5],
  form: { kind: 'grid', across: 3, down: 2 },
  points: { across: 10, colour: '#FFFFFF' },
  ...part,
});
const scene = (part: Record<string, unknown>, words = '') =>
  sceneOf(studio, templateOf([layer(part)], { slots: [textSlot('list', words)] }));
type Strokes = Extract<Op, { op: 'strokes' }>;
const rowsOf = (ops: readonly Op[]) => {
  const found = ops.find((op): op is Strokes => op.op === 'strokes');
  if (!found) return [];
  return Array.from({ length: found.rows.length / STROKE_NUMBERS }, (_, i) => [
    ...found.rows.slice(i * STROKE_NUMBERS, (i + 1) * STROKE_NUMBERS),
  ]);
};
const isDot = ([x0, y0, , x1, y1]: number[]) => x0 === x1 && y0 === y1;
const WORDS = { slot: 'list', family: 'Figtree', colour: '#FFFFFF' };

describe('linked points', () => {
  it('of an outline lie on it, wherever their layer is put', () => {
    const form = { kind: 'outline', outline: { kind: 'rectangle' }, count: 40 };
    const dots = rowsOf(scene({ form }).evaluate(0).ops);
    const side = (at: number) => dots.map((row) => row[at]!);
    expect([Math.min(...side(0)), Math.max(...side(0))].map(Math.round)).toEqual([560, 1360]);
    expect([Math.min(...side(1)), Math.max(...side(1))].map(Math.round)).toEqual([340, 740]);
  });

  it('show where a pinhole camera sees them, the farthest first (gl-matrix)', () => {
    const ops = scene({ form: { kind: 'sphere', count: 200 }, deep: 400, turn: [20, 30, 10] }).evaluate(
      0,
    ).ops;
    const dots = rowsOf(ops);
    expect(dots).toHaveLength(200);
    const model = mat4.create();
    mat4.translate(model, model, [960, 540, 0]);
    const turn = (axis: [number, number, number], degrees: number) =>
      mat4.rotate(model, model, (degrees * Math.PI) / 180, axis);
    // Positive turns send the right side away and the bottom towards the viewer, from whom z points away.
    turn([0, 0, 1], 10);
    turn([0, 1, 0], -30);
    turn([1, 0, 0], -20);
    const golden = Math.PI * (3 - Math.sqrt(5));
    const seen = Array.from({ length: 200 }, (_, i) => {
      const y = 1 - (2 * i + 1) / 200;
      const r = Math.sqrt(1 - y * y);
      const p = vec4.fromValues(400 * r * Math.cos(i * golden), -200 * y, 200 * r * Math.sin(i * golden), 1);
      vec4.transformMat4(p, p, model);
      const k = 2000 / (2000 + p[2]!);
      return { x: 960 + (p[0]! - 960) * k, y: 540 + (p[1]! - 540) * k, z: p[2]!, k };
    }).sort((a, b) => b.z - a.z);
    seen.forEach(({ x, y, k }, i) => {
      expect(dots[i]![0]).toBeCloseTo(x, 2);
      expect(dots[i]![1]).toBeCloseTo(y, 2);
      expect(dots[i]![2]).toBeCloseTo(5 * k, 3);
    });
  });

  it('what is far is as small, faint and dark as is wanted', () => {
    const at = (far: object) => {
      const { ops } = scene({
        form: { kind: 'grid', across: 1, down: 1, deep: 2 },
        deep: 1000,
        far,
      }).evaluate(0);
      const op = ops.find((o): o is Strokes => o.op === 'strokes')!;
      return rowsOf(ops).map((r) => ({ size: r[2]!, opacity: r[7]!, colour: op.colours[r[6]!] }));
    };
    const [back, front] = at({ smaller: 0, fainter: 0, darker: 0 });
    expect(back).toEqual(front);
    expect(back!.size).toBe(5);
    const [small, large] = at({ smaller: 1, fainter: 0, darker: 0 });
    expect(small!.size / large!.size).toBeCloseTo(1500 / 2500, 5);
    const [faint, full] = at({ fainter: 0.8 });
    expect(faint!.opacity).toBeCloseTo(0.2, 5);
    expect(full!.opacity).toBeCloseTo(1, 5);
    expect(at({ darker: 1, dark: '#102030' })[0]!.colour).toBe('#102030');
  });

  it('one value draws points, lines and words from nothing to all', () => {
    const ops = (drawn: number) =>
      scene({ drawn, links: { by: 'order', colour: '#FFFFFF' }, words: WORDS }, 'One\nTwo').evaluate(0).ops;
    expect(ops(0)).toEqual([]);
    const all = ops(1);
    expect(rowsOf(all).filter(isDot)).toHaveLength(6);
    expect(rowsOf(all).filter((r) => !isDot(r))).toHaveLength(7);
    expect(all.filter((op) => op.op === 'path')).toHaveLength(2);
    let before = 0;
    for (const drawn of [0.1, 0.3, 0.5, 0.7, 0.9, 1]) {
      const length = rowsOf(ops(drawn)).reduce((sum, r) => sum + Math.hypot(r[3]! - r[0]!, r[4]! - r[1]!), 0);
      expect(length).toBeGreaterThanOrEqual(before);
      before = length;
    }
  });

  it('words stand at points of their own, from the one that comes first on, round and round', () => {
    const shown = (first: number, list: string, most = 200) =>
      scene({ words: { ...WORDS, first, most } }, list)
        .evaluate(0)
        .ops.filter((op) => op.op === 'path').length;
    expect(shown(1, 'One\nTwo\nThree')).toBe(3);
    expect(shown(1, 'One\nTwo\nThree', 2)).toBe(2);
    expect(shown(1, Array.from({ length: 50 }, (_, i) => `Word ${i}`).join('\n'))).toBe(6);
    const of = (first: number) =>
      scene({ form: { kind: 'line', count: 2 }, words: { ...WORDS, first } }, 'I\nWWWWWW')
        .evaluate(0)
        .ops.flatMap((op) => (op.op === 'path' ? [op] : []));
    const [a, b] = [of(1), of(2)];
    expect(a).toHaveLength(2);
    // The first point has the first word, or the second.
    const left = (ops: typeof a) => [...ops].sort((p, q) => p.plane[2] - q.plane[2])[0]!.path;
    expect(left(a)).not.toEqual(left(b));
    expect(shown(1, '')).toBe(0);
  });

  it('places of a list lie as on a map; lines without a place are told', () => {
    const map = scene(
      { form: { kind: 'places', slot: 'list' }, words: WORDS, links: { by: 'order', colour: '#FFFFFF' } },
      'Marram | 0 | 0\nNess | 2000 | 1000\nNowhere\nQuay | 1000 | 500',
    );
    const { ops, notices } = map.evaluate(0);
    const dots = rowsOf(ops).filter(isDot);
    const places = dots.map(([x, y]) => [Math.round(x!), Math.round(y!)]).sort((p, q) => p[0]! - q[0]!);
    expect(places).toEqual([
      [560, 740],
      [960, 540],
      [1360, 340],
    ]);
    expect(notices).toContainEqual({ kind: 'no-place', slot: 'list', words: 'Nowhere' });
    expect(rowsOf(ops).filter((r) => !isDot(r))).toHaveLength(2);
  });

  it('turns as fast as it is told, and comes back to where it was', () => {
    const spun = scene({ form: { kind: 'ring', count: 5 }, deep: 400, spin: [0, 2, 0] });
    const at = (t: number) => rowsOf(spun.evaluate(t).ops);
    expect(at(45)).not.toEqual(at(0));
    at(180).forEach((r, i) => {
      for (const [k, v] of r.entries()) expect(v).toBeCloseTo(at(0)[i]![k]!, 2);
    });
  });

  it('curves and ribbons end where straight lines do', () => {
    const links = (shape: string) =>
      scene({
        points: undefined,
        links: { by: 'order', shape, bow: 0.3, colour: '#FFFFFF' },
        form: { kind: 'line', count: 2 },
      }).evaluate(0).ops;
    const [straight] = rowsOf(links('straight'));
    const curved = rowsOf(links('curved'));
    expect(curved.length).toBeGreaterThan(4);
    expect(curved[0]!.slice(0, 2)).toEqual(straight!.slice(0, 2));
    expect(curved.at(-1)![3]).toBeCloseTo(straight![3]!, 3);
    // Upwards.
    expect(Math.min(...curved.map((r) => r[1]!))).toBeLessThan(straight![1]! - 100);
    const [ribbon] = links('ribbon');
    expect(ribbon).toMatchObject({ op: 'faces' });
  });

  it('any frame first, the same', () => {
    const part = {
      form: { kind: 'wave', across: 12, deep: 9 },
      deep: 600,
      sway: { size: [10, 20, 30], every: 70 },
      spin: [0, 1, 0],
      links: { by: 'nearness', near: 3, colour: '#FF0000' },
      order: 'random',
      drawn: 0.6,
    };
    const [forwards, backwards] = [scene(part), scene(part)];
    const times = [0, 33, 59, 120];
    const one = times.map((t) => forwards.evaluate(t).ops);
    const other = [...times]
      .reverse()
      .map((t) => backwards.evaluate(t).ops)
      .reverse();
    expect(one).toEqual(other);
  });

  it('any amounts paint finite strokes, or are refused by name', () => {
    fc.assert(
      fc.property(
        fc.record({
          form: fc.constantFrom<Record<string, unknown>>(
            { kind: 'ring', count: 7 },
            { kind: 'spiral', count: 30, turns: 60 },
            { kind: 'wave', across: 4, deep: 5, crests: 40 },
            { kind: 'outline', outline: { kind: 'ellipse' }, count: 9 },
          ),
          deep: fc.double({ min: 0, max: 100000, noNaN: true }),
          turn: fc.tuple(...[0, 1, 2].map(() => fc.double({ min: -180, max: 180, noNaN: true }))),
          drawn: fc.double({ min: 0, max: 1, noNaN: true }),
          by: fc.constantFrom('order', 'nearness', 'middle', 'distance'),
          shape: fc.constantFrom('straight', 'curved', 'ribbon'),
        }),
        ({ by, shape, ...part }) => {
          const links = { by, shape, colour: '#FFFFFF', within: 100000 };
          for (const row of rowsOf(scene({ ...part, links }).evaluate(30).ops))
            for (const v of row) expect(Number.isFinite(v)).toBe(true);
        },
      ),
      { numRuns: 60 },
    );
    for (const bad of [
      { form: { kind: 'ring', count: 1e6 } },
      { form: { kind: 'ring', count: 0 } },
      { drawn: 2 },
      { deep: Number.NaN },
    ])
      expect(() => scene(bad)).toThrow();
  });
});
