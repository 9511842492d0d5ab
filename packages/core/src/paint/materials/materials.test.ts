import { createNodePath, createNodeSurface, type NodeStudio } from '@fresh-reel/node-host';
import fc from 'fast-check';
import { layoutFrame } from '../../documents/reel';
import type { Homography } from '../../geometry/matrix';
import { IDENTITY_PLANE } from '../../geometry/matrix';
import { rectanglePath } from '../../geometry/path';
import { corners } from '../../geometry/rect';
import { testStudio } from '../../testing/studio';
import type { Material, Op, Paint } from '../ops';
import { TILE } from './grid';
import { MATERIALS, type MaterialName, SHADES } from './kinds';
import { Patterns } from './patterns';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const SIZE = { width: 320, height: 180 };
const FRAME = layoutFrame(SIZE);

const of = (material: MaterialName, strength = 1): Paint => ({
  kind: 'solid',
  colour: '#808080',
  material: { of: material, strength, map: [1.4, 0, 0, 1.4, 0, 0] },
});

const area = (fill: Paint, more: Partial<Extract<Op, { op: 'path' }>> = {}): Op => ({
  op: 'path',
  path: rectanglePath({ x: 101.5, y: 99.3, width: 1000, height: 700 }),
  plane: IDENTITY_PLANE,
  fill,
  opacity: 1,
  ...more,
});

function painted(ops: readonly Op[]): Uint8ClampedArray {
  const surface = createNodeSurface(SIZE.width, SIZE.height);
  studio.painter.paint(ops, surface, FRAME);
  return surface.context.getImageData(0, 0, SIZE.width, SIZE.height).data;
}

const alphas = (data: Uint8ClampedArray) => data.filter((_, i) => i % 4 === 3);
const reds = (data: Uint8ClampedArray) => data.filter((_, i) => i % 4 === 0);

describe.each(MATERIALS.map((m) => [m] as const))('%s', (material) => {
  const shade = SHADES[material](1);

  it('leaves the colour as it is on the whole, and is seen', () => {
    const mean = shade.reduce((sum, s) => sum + s, 0) / shade.length;
    const spread = Math.sqrt(shade.reduce((sum, s) => sum + (s - mean) ** 2, 0) / shade.length);
    expect(Math.abs(mean)).toBeLessThan(0.12);
    expect(spread).toBeGreaterThan(0.02);
    expect(spread).toBeLessThan(0.25);
  });

  it('goes on where its tile ends: no seam stands out from any other line of it', () => {
    const step = (a: number, b: number, across: boolean) => {
      let sum = 0;
      for (let i = 0; i < TILE; i++) {
        const at = (n: number) => shade[across ? i * TILE + n : n * TILE + i]!;
        sum += Math.abs(at(a) - at(b));
      }
      return sum / TILE;
    };
    for (const across of [true, false]) {
      const steps = Array.from({ length: TILE - 1 }, (_, n) => step(n, n + 1, across));
      expect(step(TILE - 1, 0, across)).toBeLessThanOrEqual(Math.max(...steps) * 1.05);
    }
  });

  it('is the same each time, and another from another seed', () => {
    const same = (seed: number) => {
      const other = SHADES[material](seed);
      return shade.every((s, i) => s === other[i]);
    };
    expect([same(1), same(2)]).toEqual([true, false]);
  });
});

describe('a material on a paint', () => {
  it('changes colours and no alpha, at edges between pixels too', () => {
    const [plain, wood] = [
      painted([area({ kind: 'solid', colour: '#808080' })]),
      painted([area(of('wood'))]),
    ];
    expect(alphas(wood)).toEqual(alphas(plain));
    expect(reds(wood)).not.toEqual(reds(plain));
  });

  it('fades as one with its colour, whatever it is and however it blends', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...MATERIALS),
        fc.double({ min: 0.2, max: 0.9, noNaN: true }),
        fc.boolean(),
        (material, opacity, stroked) => {
          const stroke = { paint: of('linen'), width: 40, join: 'round', cap: 'round' } as const;
          const more = stroked ? { stroke } : {};
          const whole = painted([area(of(material), more)]);
          const faded = painted([area(of(material), { ...more, opacity })]);
          for (let i = 0; i < whole.length; i += 4 * 37) {
            expect(Math.abs(faded[i + 3]! - whole[i + 3]! * opacity)).toBeLessThanOrEqual(2);
            if (whole[i + 3] === 255) expect(Math.abs(faded[i]! - whole[i]!)).toBeLessThanOrEqual(3);
          }
        },
      ),
      { numRuns: 8 },
    );
  });

  it('lies in its plane: in perspective it covers what the colour does, and nothing more', () => {
    const leaning: Homography = [0.9, 0.1, 80, 0, 0.8, 60, 0.0002, 0.0003, 1];
    const plain = painted([area({ kind: 'solid', colour: '#808080' }, { plane: leaning })]);
    const brick = painted([area(of('brick'), { plane: leaning })]);
    const [a, b] = [alphas(plain), alphas(brick)];
    // The two are drawn in different ways; only pixels at the edge may differ.
    expect(a.filter((v, i) => Math.abs(v - b[i]!) > 40).length).toBeLessThan(a.length * 0.01);
    expect(new Set(reds(brick)).size).toBeGreaterThan(10);
  });

  it('makes one pattern a path, in however many pieces its plane is drawn', () => {
    const leaning: Homography = [0.9, 0.1, 80, 0, 0.8, 60, 0.0002, 0.0003, 1];
    const surface = createNodeSurface(SIZE.width, SIZE.height);
    const [made, filled] = [
      jest.spyOn(surface.context, 'createPattern'),
      jest.spyOn(surface.context, 'fill'),
    ];
    studio.painter.paint([area(of('slate'), { plane: leaning })], surface, FRAME);
    expect(made).toHaveBeenCalledTimes(1);
    // The colour and its shade, piece by piece.
    expect(filled.mock.calls.length).toBeGreaterThan(8);
  });

  it('looks the same as a pattern would, turned and scaled, across the edges of its tiles', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -Math.PI, max: Math.PI, noNaN: true }),
        fc.double({ min: 0.3, max: 5, noNaN: true }),
        fc.integer({ min: -2000, max: 2000 }),
        (turn, times, shift) => {
          const [cos, sin] = [Math.cos(turn) * times, Math.sin(turn) * times];
          const map = [cos, sin, -sin, cos, shift, -shift] as const;
          const material: Material = { of: 'stone', strength: 1, map };
          const whole = { x: 0, y: 0, width: SIZE.width, height: SIZE.height };
          const path = createNodePath();
          for (const [x, y] of corners(whole)) path.lineTo(x, y);
          const [laid, filled] = [0, 1].map(() => createNodeSurface(SIZE.width, SIZE.height));
          const patterns = new Patterns({ createSurface: createNodeSurface });
          patterns.lay(material, times, path, whole, laid!.context);
          filled!.context.fillStyle = patterns.styleOf(material, times, filled!.context);
          filled!.context.fill(path);
          const [a, b] = [laid!, filled!].map(
            ({ context }) => context.getImageData(0, 0, SIZE.width, SIZE.height).data,
          );
          expect(new Set(alphas(a!)).size).toBeGreaterThan(5);
          const off = a!.filter((v, i) => i % 4 === 3 && Math.abs(v - b![i]!) > 12).length;
          expect(off).toBeLessThan(SIZE.width * SIZE.height * 0.005);
        },
      ),
      { numRuns: 12 },
    );
  });

  it('of no strength is its colour alone', () => {
    expect(painted([area(of('turf', 0))])).toEqual(painted([area({ kind: 'solid', colour: '#808080' })]));
  });
});
