import { createNodeSurface, type NodeStudio } from '@fresh-reel/node-host';
import { IDENTITY_PLANE, multiply4, perspective4, planeOf, turn4 } from '../geometry/matrix';
import { ellipsePath, rectanglePath } from '../geometry/path';
import { testStudio } from '../testing/studio';
import { opsBounds } from './bounds';
import { BLEND_MODES, type BlendMode, type Op, sameOps } from './ops';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const frame = { width: 100, height: 100 };
const whole = { x: 0, y: 0, width: 100, height: 100 };
const fill = (colour: string, box = whole, part: Partial<Extract<Op, { op: 'path' }>> = {}): Op => ({
  op: 'path',
  path: rectanglePath(box),
  plane: IDENTITY_PLANE,
  fill: { kind: 'solid', colour },
  opacity: 1,
  ...part,
});

function paint(ops: readonly Op[], x = 50, y = 50, size = 100): number[] {
  const surface = createNodeSurface(size, size);
  studio.painter.paint(ops, surface, frame);
  return [...surface.context.getImageData(x, y, 1, 1).data];
}

type Rgb = [number, number, number];
const rgb = (hex: string): Rgb => [1, 3, 5].map((i) => Number.parseInt(hex.slice(i, i + 2), 16) / 255) as Rgb;

// W3C Compositing and Blending Level 1, §10.1: separable modes, b is the backdrop and s the source.
const hard = (b: number, s: number) => (s <= 0.5 ? b * 2 * s : b + (2 * s - 1) - b * (2 * s - 1));
const SEPARABLE: Partial<Record<BlendMode, (b: number, s: number) => number>> = {
  normal: (_, s) => s,
  multiply: (b, s) => b * s,
  screen: (b, s) => b + s - b * s,
  overlay: (b, s) => hard(s, b),
  darken: Math.min,
  lighten: Math.max,
  'color-dodge': (b, s) => (b === 0 ? 0 : s === 1 ? 1 : Math.min(1, b / (1 - s))),
  'color-burn': (b, s) => (b === 1 ? 1 : s === 0 ? 0 : 1 - Math.min(1, (1 - b) / s)),
  'hard-light': hard,
  'soft-light': (b, s) => {
    const d = b <= 0.25 ? ((16 * b - 12) * b + 4) * b : Math.sqrt(b);
    return s <= 0.5 ? b - (1 - 2 * s) * b * (1 - b) : b + (2 * s - 1) * (d - b);
  },
  difference: (b, s) => Math.abs(b - s),
  exclusion: (b, s) => b + s - 2 * b * s,
};

// §10.2: the non-separable modes.
const lum = ([r, g, b]: Rgb) => 0.3 * r + 0.59 * g + 0.11 * b;
const clip = (c: Rgb): Rgb => {
  const [l, n, x] = [lum(c), Math.min(...c), Math.max(...c)];
  let out = c;
  if (n < 0) out = out.map((v) => l + ((v - l) * l) / (l - n)) as Rgb;
  if (x > 1) out = out.map((v) => l + ((v - l) * (1 - l)) / (x - l)) as Rgb;
  return out;
};
const setLum = (c: Rgb, l: number) => clip(c.map((v) => v + l - lum(c)) as Rgb);
const sat = (c: Rgb) => Math.max(...c) - Math.min(...c);
const setSat = (c: Rgb, s: number): Rgb => {
  const [low, high] = [Math.min(...c), Math.max(...c)];
  return c.map((v) => (high > low ? ((v - low) * s) / (high - low) : 0)) as Rgb;
};
const WHOLE: Partial<Record<BlendMode, (b: Rgb, s: Rgb) => Rgb>> = {
  hue: (b, s) => setLum(setSat(s, sat(b)), lum(b)),
  saturation: (b, s) => setLum(setSat(b, sat(s)), lum(b)),
  color: (b, s) => setLum(s, lum(b)),
  luminosity: (b, s) => setLum(b, lum(s)),
};

describe('the sixteen blend modes, by the formulas of W3C Compositing and Blending', () => {
  const cases = [
    ['#C8431C', '#2F7F9E'],
    ['#F6D9B8', '#5B3A6E'],
    ['#102030', '#E0C040'],
  ] as const;
  it.each(BLEND_MODES.flatMap((mode) => cases.map((c) => [mode, ...c] as const)))(
    '%s of %s under %s',
    (mode, below, above) => {
      const [b, s] = [rgb(below), rgb(above)];
      const one = SEPARABLE[mode];
      const expected = one ? b.map((v, i) => one(v, s[i]!)) : WHOLE[mode]!(b, s);
      for (const ops of [
        [fill(below), fill(above, whole, { blend: mode })],
        [
          fill(below),
          { op: 'open', bounds: whole, opacity: 1, composite: mode, effects: [] } as Op,
          fill(above),
          { op: 'close' } as Op,
        ],
      ]) {
        const got = paint(ops);
        expected.forEach((v, i) => {
          expect(Math.abs(got[i]! - v * 255)).toBeLessThanOrEqual(2);
        });
      }
    },
  );
});

describe('groups', () => {
  it('fade as one: what overlaps inside does not show through', () => {
    const ops: Op[] = [
      { op: 'open', bounds: whole, opacity: 0.5, composite: 'normal', effects: [] },
      fill('#FF0000'),
      fill('#0000FF'),
      { op: 'close' },
    ];
    const [r, , b, a] = paint(ops);
    expect(r).toBe(0);
    expect(b).toBe(255);
    expect(Math.abs(a! - 128)).toBeLessThanOrEqual(1);
  });

  it('keep what lies inside or outside another shape', () => {
    const left = { x: 0, y: 0, width: 50, height: 100 };
    const cut = (composite: 'keep-inside' | 'keep-outside'): Op[] => [
      { op: 'open', bounds: whole, opacity: 1, composite: 'normal', effects: [] },
      fill('#00FF00'),
      { op: 'open', bounds: left, opacity: 1, composite, effects: [] },
      fill('#FFFFFF', left),
      { op: 'close' },
      { op: 'close' },
    ];
    expect(paint(cut('keep-inside'), 25)[3]).toBe(255);
    expect(paint(cut('keep-inside'), 75)[3]).toBe(0);
    expect(paint(cut('keep-outside'), 25)[3]).toBe(0);
    expect(paint(cut('keep-outside'), 75)[3]).toBe(255);
  });

  it('an empty matte hides all', () => {
    const ops: Op[] = [
      { op: 'open', bounds: whole, opacity: 1, composite: 'normal', effects: [] },
      fill('#00FF00'),
      {
        op: 'open',
        bounds: { x: 0, y: 0, width: 0, height: 0 },
        opacity: 1,
        composite: 'keep-inside',
        effects: [],
      },
      { op: 'close' },
      { op: 'close' },
    ];
    expect(paint(ops)[3]).toBe(0);
  });

  it('mattes by luminance weigh the colours (W3C Masking)', () => {
    const ops: Op[] = [
      { op: 'open', bounds: whole, opacity: 1, composite: 'normal', effects: [] },
      fill('#FFFFFF'),
      { op: 'open', bounds: whole, opacity: 1, composite: 'keep-inside', effects: [], luminance: true },
      fill('#00FF00'),
      { op: 'close' },
      { op: 'close' },
    ];
    expect(Math.abs(paint(ops)[3]! - 0.7154 * 255)).toBeLessThanOrEqual(1.5);
  });
});

describe('effects', () => {
  const square = { x: 30, y: 30, width: 40, height: 40 };
  const grouped = (effects: Extract<Op, { op: 'open' }>['effects']): Op[] => [
    { op: 'open', bounds: whole, opacity: 1, composite: 'normal', effects },
    fill('#FFFFFF', square),
    { op: 'close' },
  ];

  it('blur is a Gaussian: half at an edge, and by its table at one deviation from it', () => {
    const ops = grouped([{ effect: 'blur', radius: 5 }]);
    const at = (x: number) => paint(ops, x * 4, 200, 400)[3]! / 255;
    expect(at(30)).toBeCloseTo(0.5, 1);
    // Φ(1) = 0.841 (table of the normal distribution).
    expect(Math.abs(at(35) - 0.841)).toBeLessThan(0.05);
    expect(Math.abs(at(25) - 0.159)).toBeLessThan(0.05);
  });

  it('a wide blur, made on a smaller copy, has the same shape', () => {
    const sharp = paint(grouped([{ effect: 'blur', radius: 3.9 }]), 30, 50)[3]!;
    const wide = paint(grouped([{ effect: 'blur', radius: 3.9 }]), 300, 500, 1000)[3]!;
    expect(Math.abs(sharp - wide)).toBeLessThan(14);
  });

  it('a shadow lies below, shifted, in its colour and strength', () => {
    const ops = grouped([{ effect: 'shadow', offset: [15, 0], radius: 0, colour: '#FF0000', opacity: 0.5 }]);
    expect(paint(ops, 50, 50)).toEqual([255, 255, 255, 255]);
    const [r, g, , a] = paint(ops, 78, 50);
    expect(r).toBe(255);
    expect(g).toBe(0);
    expect(Math.abs(a! - 128)).toBeLessThanOrEqual(2);
  });
});

describe('pictures', () => {
  beforeAll(async () => {
    const surface = createNodeSurface(64, 64);
    ['#FF0000', '#00FF00', '#0000FF', '#FFFF00'].forEach((colour, i) => {
      surface.context.fillStyle = colour;
      surface.context.fillRect((i % 2) * 32, Math.floor(i / 2) * 32, 32, 32);
    });
    const { pngOf } = await import('@fresh-reel/node-host');
    await studio.addPicture('quarters', await pngOf(surface));
  });
  const draw = (plane: ReturnType<typeof planeOf>): Op => ({
    op: 'picture',
    picture: 'quarters',
    source: { x: 0, y: 0, width: 64, height: 64 },
    target: whole,
    plane,
    opacity: 1,
  });

  it('small ones come from a halved copy, and stay where they are', () => {
    const plane = [0.1, 0, 40, 0, 0.1, 40, 0, 0, 1] as const;
    expect(paint([draw(plane)], 42, 42)).toEqual([255, 0, 0, 255]);
    expect(paint([draw(plane)], 47, 47)).toEqual([255, 255, 0, 255]);
    expect(paint([draw(plane)], 52, 45)[3]).toBe(0);
  });

  it('in perspective keep their corners and their middle', () => {
    const plane = planeOf(multiply4(perspective4(200, 50, 50), turn4(0, 30, 0)));
    const x = (u: number) => (plane[0] * u + plane[2]) / (plane[6] * u + plane[8]);
    const surface = createNodeSurface(100, 100);
    studio.painter.paint([draw(plane)], surface, frame);
    const at = (px: number, py: number) => [
      ...surface.context.getImageData(Math.round(px), Math.round(py), 1, 1).data,
    ];
    expect(at(x(25), 35)).toEqual([255, 0, 0, 255]);
    expect(at(x(75), 35)).toEqual([0, 255, 0, 255]);
    expect(at(x(48), 35)).toEqual([255, 0, 0, 255]);
    expect(at(x(54), 65)).toEqual([255, 255, 0, 255]);
  });

  it('that are missing leave a hole and no error', () => {
    expect(paint([{ ...draw([1, 0, 0, 0, 1, 0, 0, 0, 1]), picture: 'gone' } as Op])[3]).toBe(0);
  });
});

describe('operation lists', () => {
  it('know their bounds, with clips and effects', () => {
    const dot = fill('#fff', { x: 10, y: 10, width: 20, height: 20 });
    expect(opsBounds([dot])).toEqual({ x: 10, y: 10, width: 20, height: 20 });
    expect(
      opsBounds([
        { op: 'clip', path: rectanglePath({ x: 0, y: 0, width: 15, height: 100 }), plane: IDENTITY_PLANE },
        dot,
        { op: 'unclip' },
      ]).width,
    ).toBe(5);
    expect(
      opsBounds([
        {
          ...dot,
          path: ellipsePath(whole),
          stroke: { paint: { kind: 'solid', colour: '#fff' }, width: 10, join: 'round', cap: 'round' },
        } as Op,
      ]).x,
    ).toBeCloseTo(-5);
  });

  it('tell when nothing changed', () => {
    const list = () => [fill('#123456'), { op: 'close' } as Op];
    expect(sameOps(list(), list())).toBe(true);
    expect(sameOps(list(), [fill('#123457'), { op: 'close' } as Op])).toBe(false);
    expect(sameOps(list(), list().slice(1))).toBe(false);
  });

  it('survive JSON', () => {
    const ops = [fill('#C8431C', whole, { blend: 'multiply' })];
    expect(paint(JSON.parse(JSON.stringify(ops)) as Op[])).toEqual(paint(ops));
  });
});
