import type { NodeStudio } from '@fresh-reel/node-host';
import fc from 'fast-check';
import { mat4, vec4 } from 'gl-matrix';
import { opsBounds } from '../paint/bounds';
import type { Op } from '../paint/ops';
import {
  pictureSlot,
  pixelAt,
  sceneOf,
  templateOf,
  testStudio,
  textLayer,
  textSlot,
} from '../testing/studio';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const LIGHT = { angle: 180, height: 30, strength: 1 };
const scene = (depth: Record<string, unknown>, part: Record<string, unknown> = {}, words = 'I') =>
  sceneOf(
    studio,
    templateOf(
      [
        textLayer('t', {
          family: 'Anton',
          weight: 400,
          size: 400,
          at: [0.5, 0.5],
          origin: [0.5, 0.5],
          fill: { colour: '#FFFFFF' },
          fit: { width: 1800 },
          depth: { side: '#FF0000', ...depth },
          ...part,
        }),
      ],
      { slots: [textSlot('t', words)] },
    ),
  );
type Faces = Extract<Op, { op: 'faces' }>;
const facesOf = (ops: readonly Op[]) => ops.filter((op): op is Faces => op.op === 'faces');
const count = (ops: readonly Op[]) => facesOf(ops).reduce((n, f) => n + f.colours.length, 0);

describe('letters with depth', () => {
  it('show the sides that face the viewer, behind their front', () => {
    // A bar before the middle of the picture hides all its sides; one to the left shows its right side.
    expect(count(scene({ thickness: 0.5 }).evaluate(60).ops)).toBe(0);
    const { ops } = scene({ thickness: 0.5 }, { at: [0.2, 0.5] }).evaluate(60);
    expect(count(ops)).toBe(1);
    expect(ops.findIndex((op) => op.op === 'faces')).toBeLessThan(ops.findIndex((op) => op.op === 'path'));
    const front = opsBounds(ops.slice(1));
    expect(Math.max(...facesOf(ops)[0]!.points)).toBeGreaterThan(front.x + front.width);
  });

  it('their back edge lies where a pinhole camera sees it (gl-matrix)', () => {
    const s = scene({ thickness: 0.5 }, { at: [0.2, 0.5], turn: [0, 20, 0] });
    const points = facesOf(s.evaluate(60).ops)[0]!.points;
    const flat = scene({ thickness: 0 }, { at: [0.2, 0.5], turn: [0, 20, 0] }).evaluate(60).ops[0]!;
    // The layer's own way to the camera's space, from the document: about the middle of its box, then a camera at 2000.
    const region = s.evaluate(60).regions[0]!;
    const [w, h] = [region.box.width, region.box.height];
    const model = mat4.create();
    mat4.translate(model, model, [1920 * 0.2, 540, 0]);
    mat4.rotateY(model, model, (-20 * Math.PI) / 180);
    mat4.translate(model, model, [-w / 2, -h / 2, 0]);
    const front =
      flat.op === 'path' ? flat.path.commands.flatMap((c) => (c[0] === 'Z' ? [] : [[c[1], c[2]]])) : [];
    expect(front.length).toBeGreaterThan(3);
    const seen = (z: number) => {
      const own = flat.op === 'path' ? flat.plane : undefined;
      // The path's own unit is an em: its place in the layer follows from the flat letter's plane at rest.
      const rest = scene({ thickness: 0 }, { at: [0, 0], origin: [0, 0] }).evaluate(60).ops[0]!;
      const [a, , c, , e, f] = rest.op === 'path' ? rest.plane : [];
      expect(own).toBeDefined();
      return front.map(([u, v]) => {
        const p = vec4.fromValues(a! * u! + c!, e! * v! + f!, z, 1);
        vec4.transformMat4(p, p, model);
        const k = 2000 / (2000 + p[2]!);
        return [960 + (p[0]! - 960) * k, 540 + (p[1]! - 540) * k] as const;
      });
    };
    const back = seen(200);
    const nearest = (x: number, y: number) => Math.min(...back.map(([bx, by]) => Math.hypot(bx - x, by - y)));
    // Two corners of each face lie at the back.
    for (let i = 0; i < points.length; i += 8) {
      const far = [0, 1, 2, 3]
        .map((k) => nearest(points[i + 2 * k]!, points[i + 2 * k + 1]!))
        .sort((p, q) => p - q);
      expect(far[0]).toBeLessThan(0.05);
      expect(far[1]).toBeLessThan(0.05);
    }
  });

  it('are painted the farthest first', () => {
    const { ops } = scene({ thickness: 0.6 }, { turn: [0, 35, 0], size: 200 }, 'IIII').evaluate(60);
    const places = ops.flatMap((op) => (op.op === 'path' ? [opsBounds([op]).x] : []));
    // Its right side is turned away: painted from the right to the left.
    expect(places).toEqual([...places].sort((a, b) => b - a));
  });

  it('take light by Lambert’s law, and the colours of their lights', () => {
    const at = (part: Record<string, unknown>) => {
      const s = scene({ thickness: 0.5, ambient: 0, ...part }, { at: [0.2, 0.5], turn: [0, 0, 0] });
      return facesOf(s.evaluate(60).ops)[0]!.colours[0];
    };
    // The side that shows faces right. From there, fully lit; from the left, dark; from 60° off, half of the light.
    expect(at({ lights: [{ ...LIGHT, angle: 0, height: 0 }] })).toBe('#ff0000');
    expect(at({ lights: [{ ...LIGHT, angle: 180, height: 0 }] })).toBe('#000000');
    const half = Number.parseInt(at({ lights: [{ ...LIGHT, angle: 60, height: 0 }] })!.slice(1, 3), 16);
    // Half of linear light is 188 in sRGB (IEC 61966-2-1).
    expect(Math.abs(half - 188)).toBeLessThanOrEqual(2);
    expect(at({ lights: [{ ...LIGHT, angle: 0, height: 0, colour: '#00FF00' }] })).toBe('#000000');
  });

  it('turned away, show their back', () => {
    const s = scene({ thickness: 0.2, back: '#0000FF', ambient: 1 }, { turn: [0, 180, 0] });
    expect(pixelAt(studio, s, 60, 960, 540)).toEqual([0, 0, 255, 255]);
    const front = scene({ thickness: 0.2, back: '#0000FF', ambient: 1 });
    expect(pixelAt(studio, front, 60, 960, 540)).toEqual([255, 255, 255, 255]);
  });

  it('show pictures on their fronts, one each and round again, and others from a moment on', () => {
    const template = templateOf(
      [
        textLayer('t', {
          size: 300,
          fit: { width: 1800 },
          depth: {
            fronts: { slots: ['a', 'b', 'c'], switched: { slots: ['d'], at: { at: 30, of: 'hold' } } },
          },
        }),
      ],
      { slots: [textSlot('t', 'IIII'), ...['a', 'b', 'c', 'd'].map(pictureSlot)] },
    );
    const media = (id: string) => ({
      media: `sha256:${id}`,
      focus: [0.5, 0.5] as [number, number],
      scale: 1,
      turn: 0,
    });
    const facts = { width: 400, height: 300 };
    const find = studio.mediaFacts.bind(studio);
    jest.spyOn(studio, 'mediaFacts').mockImplementation((id) => (id.length === 8 ? facts : find(id)));
    const held = (slots: Record<string, unknown>) =>
      sceneOf(studio, template, { slots: slots as never, controls: {} });
    const shown = (s: ReturnType<typeof held>, t: number) =>
      s.evaluate(t).ops.flatMap((op) => (op.op === 'picture' ? [op.picture.slice(-1)] : []));
    const two = held({ a: media('a'), c: media('c'), d: media('d') });
    expect(shown(two, 60).sort()).toEqual(['a', 'a', 'c', 'c']);
    expect(shown(two, 95)).toEqual(['d', 'd', 'd', 'd']);
    const plain = held({ a: media('a') });
    expect(shown(plain, 95)).toEqual(['a', 'a', 'a', 'a']);
    expect(shown(held({}), 60)).toEqual([]);
    // A picture is touched where its letter stands, and dragged by that letter's size.
    const { regions } = two.evaluate(60);
    const own = regions.find((r) => r.slot === 'c')!;
    const whole = regions.find((r) => r.slot === 't')!;
    expect(own.box.width).toBeLessThan(whole.box.width / 3);
    expect(own.picture).toEqual(facts);
    jest.restoreAllMocks();
  });

  it('cast shadows away from their first light, softer than themselves', () => {
    const s = scene({ thickness: 0.1, lights: [LIGHT], shadow: { behind: 60, blur: 10, strength: 1 } });
    const [open] = s.evaluate(60).ops;
    expect(open).toMatchObject({ op: 'open', effects: [{ effect: 'blur' }] });
    const lit = opsBounds(
      s
        .evaluate(60)
        .ops.filter((op) => op.op === 'path')
        .slice(-1),
    );
    const right = open!.op === 'open' ? open!.bounds.x + open!.bounds.width : 0;
    expect(right).toBeGreaterThan(lit.x + lit.width + 60);
  });

  it('fade as one while they come, and no motion is lost on them', () => {
    const motion = {
      in: [
        {
          unit: 'letter',
          stagger: 0,
          start: { at: 0 },
          length: 60,
          ease: 'linear',
          away: { opacity: 0, turn: [0, 90, 0] },
        },
      ],
    };
    const { ops } = scene({ thickness: 0.4 }, { motion, at: [0.2, 0.5] }, 'IB').evaluate(30);
    const groups = ops.filter((op) => op.op === 'open');
    expect(groups.length).toBe(2);
    for (const g of groups) expect(g).toMatchObject({ opacity: 0.5 });
  });

  it('any amounts paint finite places, or are refused by name', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 3, noNaN: true }),
        fc.double({ min: 0, max: 0.2, noNaN: true }),
        fc.tuple(...[0, 1, 2].map(() => fc.double({ min: -180, max: 180, noNaN: true }))),
        fc.double({ min: -1900, max: 3000, noNaN: true }),
        (thickness, bevel, turn, z) => {
          const { ops } = scene(
            { thickness, bevel, gloss: 0.5, lights: [LIGHT] },
            { turn, move: [0, 0, z], size: 120 },
            'Rg&',
          ).evaluate(60);
          for (const { points, colours } of facesOf(ops)) {
            expect(points.every(Number.isFinite)).toBe(true);
            expect(points.length).toBe(colours.length * 8);
            for (const c of colours) expect(c).toMatch(/^#[0-9a-f]{6}([0-9a-f]{2})?$/);
          }
        },
      ),
      { numRuns: 40 },
    );
    for (const bad of [{ thickness: 1e6 }, { thickness: Number.NaN }, { bevel: -1 }, { ambient: 7 }])
      expect(() => scene(bad)).toThrow(/depth/);
    expect(() => scene({ thickness: 0, bevel: 0, ambient: 0 }).evaluate(60)).not.toThrow();
  });
});
