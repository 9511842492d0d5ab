import { createNodeSurface, type NodeStudio, pngOf } from '@fresh-reel/node-host';
import fc from 'fast-check';
import type { GraphicScene } from '../evaluate/graphicScene';
import { IDENTITY_PLANE, multiply4, perspective4, planeOf, translation4, turn4 } from '../geometry/matrix';
import { rectanglePath } from '../geometry/path';
import { sceneOf, templateOf, testStudio, textLayer, textSlot } from '../testing/studio';
import { BLEND_MODES, type Op, type Paint } from './ops';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
  await studio.addPicture('black', await picture('#000000'));
  await studio.addPicture('half', await picture('rgba(255, 255, 255, 0.5)'));
});

async function picture(colour: string): Promise<Buffer> {
  const { context, ...surface } = createNodeSurface(400, 300);
  context.fillStyle = colour;
  context.fillRect(0, 0, 400, 300);
  return pngOf({ context, ...surface });
}

/** Pixels of one moment, at a scale. */
function painted(scene: GraphicScene, time = 60, scale = 1) {
  const size = { width: 1920 * scale, height: 1080 * scale };
  const { context } = studio.paint(scene.evaluate(time), scene.frame, size);
  const { data } = context.getImageData(0, 0, size.width, size.height);
  return (x: number, y: number) => [
    ...data.slice((Math.round(y) * size.width + Math.round(x)) * 4).subarray(0, 4),
  ];
}

const layers = (...list: object[]) => sceneOf(studio, templateOf(list));
const bar = (part: object = {}) => ({
  id: 'bar',
  kind: 'shape',
  outline: { kind: 'rectangle' },
  size: [1200, 300],
  at: [0.5, 0.5],
  origin: [0.5, 0.5],
  ...part,
});
const redToBlue = {
  gradient: 'linear',
  angle: 0,
  stops: [
    [0, '#FF0000'],
    [1, '#0000FF'],
  ],
};

describe('a plane is a plane until it is painted', () => {
  it.each([0, 0.5, 25])('a gradient goes with its layer, turned by %s°', (degrees) => {
    const at = painted(layers(bar({ fill: redToBlue, turn: [0, degrees, 0] })));
    const [left, right] = [at(400, 540), at(1400, 540)];
    expect(left[0]).toBeGreaterThan(200);
    expect(left[2]).toBeLessThan(55);
    expect(right[0]).toBeLessThan(80);
    expect(right[2]).toBeGreaterThan(175);
    expect(left[3]).toBe(255);
  });

  it('the middle of a gradient is where perspective puts the middle of the layer', () => {
    const at = painted(layers(bar({ fill: redToBlue, turn: [0, 50, 0] })));
    // The middle stands on the camera's axis, so it stays in the middle of the frame.
    expect(Math.abs(at(960, 540)[0]! - at(960, 540)[2]!)).toBeLessThan(6);
  });

  it('letters and plates too', () => {
    const words = (turn: number) =>
      sceneOf(
        studio,
        templateOf(
          [
            textLayer('t', {
              at: [0.5, 0.5],
              origin: [0.5, 0.5],
              size: 300,
              fit: { width: 1800, lines: 1 },
              fill: redToBlue,
              plates: [{ behind: 'whole', margin: 40, fill: redToBlue }],
              turn: [0, turn, 0],
            }),
          ],
          { slots: [textSlot('t', 'MMMM')] },
        ),
      );
    for (const turn of [0, 0.5, 20]) {
      const at = painted(words(turn));
      expect(at(500, 540)[0]).toBeGreaterThan(at(500, 540)[2]! + 80);
      expect(at(1420, 540)[2]).toBeGreaterThan(at(1420, 540)[0]! + 80);
    }
  });

  it.each([
    [0, 20],
    [0.2, 20],
    [60, 20],
  ])('a stroke of 80 at a quarter of its size shows 20, turned by %s°', (degrees, wide) => {
    const at = painted(
      layers(
        bar({
          scale: [0.25, 0.25],
          stroke: { paint: { colour: '#FFFFFF' }, width: 80 },
          turn: [0, degrees, 0],
        }),
      ),
    );
    // Down through the middle of the upper edge, which lies on the camera's axis.
    const hit = Array.from({ length: 120 }, (_, i) => at(960, 440 + i)[3]! / 255).reduce((s, v) => s + v, 0);
    expect(Math.abs(hit - wide)).toBeLessThan(1.5);
  });

  it('a plane that passes the camera is cut, not sheared', () => {
    const at = painted(layers(bar({ size: [400, 6000], fill: { colour: '#FFFFFF' }, turn: [75, 0, 0] })));
    const bottom = Array.from({ length: 1920 }, (_, x) => x).filter((x) => at(x, 1078)[3]! > 128);
    // By hand, in plane.test.ts: 559 to 1361.
    expect(Math.abs(bottom[0]! - 559)).toBeLessThan(3);
    expect(Math.abs(bottom.at(-1)! - 1361)).toBeLessThan(3);
  });

  it('radial gradients, dashes and clips combine with perspective', () => {
    const radial = { gradient: 'radial', stops: redToBlue.stops };
    const at = painted(
      layers(
        bar({
          fill: radial,
          stroke: { paint: { colour: '#00FF00' }, width: 20, dash: [40, 40] },
          mask: { outline: { kind: 'ellipse' } },
          turn: [30, 20, 0],
        }),
      ),
    );
    expect(at(960, 540)[0]).toBeGreaterThan(240);
    expect(at(380, 400)[3]).toBe(0);
  });
});

describe('a picture in perspective', () => {
  const plane = planeOf(
    multiply4(perspective4(900, 50, 50), multiply4(turn4(10, 40, 5), translation4(10, 10, 0))),
  );
  const draw = (id: string, part: Partial<Extract<Op, { op: 'picture' }>> = {}): Op => ({
    op: 'picture',
    picture: id,
    source: { x: 0, y: 0, width: 400, height: 300 },
    target: { x: 0, y: 0, width: 80, height: 60 },
    plane,
    opacity: 1,
    ...part,
  });
  const inside = (ops: readonly Op[], size = 900): Uint8ClampedArray => {
    const surface = createNodeSurface(size, size);
    studio.painter.paint(ops, surface, { width: 100, height: 100 });
    return surface.context.getImageData(size * 0.3, size * 0.3, size * 0.25, size * 0.25).data;
  };
  const range = (data: Uint8ClampedArray, channel: number) => {
    const values = data.filter((_, i) => i % 4 === channel);
    return [Math.min(...values), Math.max(...values)];
  };

  it('shows no seams, whole, faded or half transparent', () => {
    expect(range(inside([draw('black')]), 3)).toEqual([255, 255]);
    for (const ops of [[draw('black', { opacity: 0.5 })], [draw('half')]]) {
      const [least, most] = range(inside(ops), 3);
      expect(most! - least!).toBeLessThanOrEqual(2);
      expect(Math.abs(least! - 128)).toBeLessThanOrEqual(2);
    }
  });

  it.each(BLEND_MODES)('blends as one: %s', (blend) => {
    const white: Op = {
      op: 'path',
      path: rectanglePath({ x: 0, y: 0, width: 100, height: 100 }),
      plane: IDENTITY_PLANE,
      fill: { kind: 'solid', colour: '#80A0C0' },
      opacity: 1,
    };
    const data = inside([white, draw('half', { blend, opacity: 0.7 })], 500);
    for (const channel of [0, 1, 2]) {
      const [least, most] = range(data, channel);
      expect(most! - least!).toBeLessThanOrEqual(3);
    }
  });

  it('whatever the plane, what is opaque stays so inside', () => {
    const degrees = fc.integer({ min: -60, max: 60 });
    fc.assert(
      fc.property(degrees, degrees, fc.integer({ min: -180, max: 180 }), (x, y, z) => {
        const h = planeOf(
          multiply4(
            perspective4(700, 150, 150),
            multiply4(translation4(150, 150, 0), multiply4(turn4(x, y, z), translation4(-100, -100, 0))),
          ),
        );
        const gradient: Paint = {
          kind: 'linear',
          from: [0, 0],
          to: [200, 200],
          stops: [
            [0, '#FF0000'],
            [1, '#0000FF'],
          ],
        };
        const shapes: Op[] = [
          draw('black', { target: { x: 0, y: 0, width: 200, height: 200 }, plane: h }),
          {
            op: 'path',
            path: rectanglePath({ x: 0, y: 0, width: 200, height: 200 }),
            plane: h,
            fill: gradient,
            opacity: 1,
          },
        ];
        for (const op of shapes) {
          const surface = createNodeSurface(300, 300);
          studio.painter.paint([op], surface, { width: 300, height: 300 });
          const { data } = surface.context.getImageData(135, 135, 30, 30);
          if (data.some((v, i) => i % 4 === 3 && v < 253)) return false;
        }
        return true;
      }),
      { numRuns: 60 },
    );
  });
});

describe('what one operation draws is one thing', () => {
  it('fill and stroke fade together, flat and in perspective', () => {
    for (const turn of [0, 30]) {
      const at = painted(
        layers(
          bar({
            fill: { colour: '#FFFFFF' },
            stroke: { paint: { colour: '#000000' }, width: 80 },
            opacity: 0.5,
            turn: [turn, 0, 0],
          }),
        ),
      );
      // Just inside the left edge, where the stroke lies over the fill.
      const [r, , , a] = at(960 - 600 + 20, 540);
      expect(Math.abs(a! - 128)).toBeLessThanOrEqual(2);
      expect(r).toBeLessThanOrEqual(2);
    }
  });

  it('a stroke that blends does not blend with its own fill', () => {
    const path = rectanglePath({ x: 20, y: 20, width: 60, height: 60 });
    const white: Paint = { kind: 'solid', colour: '#808080' };
    const surface = createNodeSurface(100, 100);
    const op = { op: 'path', path, plane: IDENTITY_PLANE, opacity: 1 } as const;
    studio.painter.paint(
      [
        { ...op, fill: { kind: 'solid', colour: '#FFFFFF' } },
        {
          ...op,
          fill: white,
          stroke: { paint: white, width: 20, join: 'miter', cap: 'butt' },
          blend: 'multiply',
        },
      ],
      surface,
      { width: 100, height: 100 },
    );
    const at = (x: number) => surface.context.getImageData(x, 50, 1, 1).data[0];
    expect(at(25)).toBe(at(50));
  });
});
