import { createNodePath, createNodeSurface, type NodeStudio } from '@fresh-reel/node-host';
import fc from 'fast-check';
import type { Context2D } from '../../canvas/surface';
import { type Affine, type Homography, IDENTITY, IDENTITY_PLANE } from '../../geometry/matrix';
import { rectanglePath } from '../../geometry/path';
import { corners } from '../../geometry/rect';
import { testStudio } from '../../testing/studio';
import { layoutFrame } from '../../values/frame';
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
            // Of eight bits that are times their alpha: what is fainter is told in coarser steps.
            const seen = (Math.abs(faded[i]! - whole[i]!) * faded[i + 3]!) / 255;
            if (whole[i + 3] === 255) expect(seen).toBeLessThanOrEqual(1.5);
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

  const WHOLE = { x: 0, y: 0, width: SIZE.width, height: SIZE.height };
  const everywhere = () => {
    const path = createNodePath();
    for (const [x, y] of corners(WHOLE)) path.lineTo(x, y);
    return path;
  };
  const pixels = (paint: (context: Context2D) => void): Uint8ClampedArray => {
    const { context } = createNodeSurface(SIZE.width, SIZE.height);
    paint(context);
    return context.getImageData(0, 0, SIZE.width, SIZE.height).data;
  };
  const filledWith = (patterns: Patterns, material: Material, times: number) =>
    pixels((context) => {
      context.fillStyle = patterns.styleOf(material, times, context);
      context.fill(everywhere());
    });
  const expectAlike = (a: Uint8ClampedArray, b: Uint8ClampedArray) => {
    expect(new Set(alphas(a)).size).toBeGreaterThan(5);
    const off = a.filter((v, i) => i % 4 === 3 && Math.abs(v - b[i]!) > 12).length;
    expect(off).toBeLessThan(SIZE.width * SIZE.height * 0.005);
  };
  /** How far blocks of two pictures differ at most, in their mean alpha: a pixel's shift hardly shows in it. */
  const farthest = (a: Uint8ClampedArray, b: Uint8ClampedArray, block = 20): number => {
    const means = (data: Uint8ClampedArray) => {
      const sums = new Float64Array((SIZE.width / block) * (SIZE.height / block));
      for (let i = 3; i < data.length; i += 4) {
        const [x, y] = [((i - 3) / 4) % SIZE.width, Math.floor((i - 3) / 4 / SIZE.width)];
        sums[Math.floor(y / block) * (SIZE.width / block) + Math.floor(x / block)]! += data[i]! / block ** 2;
      }
      return sums;
    };
    const other = means(b);
    return means(a).reduce((most, mean, i) => Math.max(most, Math.abs(mean - other[i]!)), 0);
  };
  const turned = (turn: number, times: number, x: number, y: number): Affine => {
    const [cos, sin] = [Math.cos(turn) * times, Math.sin(turn) * times];
    return [cos, sin, -sin, cos, x, y];
  };

  it('looks the same as a pattern would, turned and scaled, across the edges of its tiles', () => {
    fc.assert(
      fc.property(
        // Ten-thousandths: of a turn that is next to none (1e-46) a canvas makes another choice at the borders of pixels.
        fc.integer({ min: -31_416, max: 31_416 }),
        fc.double({ min: 0.3, max: 5, noNaN: true }),
        fc.integer({ min: -2000, max: 2000 }),
        (tenThousandths, times, shift) => {
          const turn = tenThousandths / 10_000;
          const material: Material = { of: 'stone', strength: 1, map: turned(turn, times, shift, -shift) };
          const patterns = new Patterns({ createSurface: createNodeSurface });
          const laid = pixels((context) =>
            patterns.lay(material, times, everywhere(), { map: IDENTITY, box: WHOLE }, context),
          );
          expectAlike(laid, filledWith(patterns, material, times));
        },
      ),
      { numRuns: 12 },
    );
  });

  it('keeps, in a draft, what keeps its size and turn, and lays it on whole pixels wherever it is', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(0, Math.PI / 2, 0.4, -2.3),
        fc.double({ min: 0.3, max: 3, noNaN: true }),
        fc.array(fc.tuple(fc.integer({ min: -1500, max: 1500 }), fc.integer({ min: -1500, max: 1500 })), {
          minLength: 7,
          maxLength: 7,
        }),
        (turn, times, places) => {
          const patterns = new Patterns({ createSurface: createNodeSurface });
          for (const [i, [x, y]] of places.entries()) {
            const material: Material = { of: 'stone', strength: 1, map: turned(turn, times, x, y) };
            let drawn: readonly unknown[] = [];
            const laid = pixels((context) => {
              const draw = jest.spyOn(context, 'drawImage');
              patterns.begin();
              patterns.lay(material, times, everywhere(), { map: IDENTITY, box: WHOLE }, context, true);
              drawn = draw.mock.calls[0]!.slice(1);
            });
            // Without a size of its own: pixel by pixel.
            if (i > 4) expect(drawn.every(Number.isInteger)).toBe(true);
            // A shift of twelve pixels makes 3.6 and more.
            expect(farthest(laid, filledWith(patterns, material, times))).toBeLessThan(2);
          }
        },
      ),
      { numRuns: 8 },
    );
  });

  it('of no strength is its colour alone', () => {
    expect(painted([area(of('turf', 0))])).toEqual(painted([area({ kind: 'solid', colour: '#808080' })]));
  });
});
