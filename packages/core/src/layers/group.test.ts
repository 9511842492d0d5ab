import { createNodeSurface, type NodeStudio } from '@fresh-reel/node-host';
import type { GraphicScene } from '../evaluate/graphicScene';
import type { Op } from '../paint/ops';
import { pixelAt, sceneOf, templateOf, testStudio, textLayer, textSlot } from '../testing/studio';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const box = (part: Record<string, unknown> = {}) => ({
  id: 'box',
  kind: 'shape',
  outline: { kind: 'rectangle' },
  size: [200, 200],
  at: [0.5, 0.5],
  origin: [0.5, 1],
  fill: { colour: '#FF0000' },
  ...part,
});
const scene = (group: Record<string, unknown>, layers: readonly object[] = [box()]) =>
  sceneOf(
    studio,
    templateOf([{ id: 'g', kind: 'group', layers, ...group }], { slots: [textSlot('t', 'Word')] }),
  );

/** One pixel of a draft. */
function draftAt(s: GraphicScene, x: number, y: number): number[] {
  const surface = createNodeSurface(1920, 1080);
  studio.painter.draft = true;
  studio.painter.paint(s.evaluate(0).ops, surface, s.frame);
  studio.painter.draft = false;
  return [...surface.context.getImageData(x, y, 1, 1).data];
}

describe('a mirrored floor', () => {
  const floor = { at: 0.5, strength: 0.6, reach: 200, blur: 0 };

  it('shows what stands on it upside down, fainter and fainter', () => {
    const s = scene({ floor });
    expect(pixelAt(studio, s, 0, 960, 500)).toEqual([255, 0, 0, 255]);
    const alpha = (y: number) => pixelAt(studio, s, 0, 960, y)[3]!;
    expect(alpha(542)).toBeCloseTo(0.6 * 255, -1);
    expect(alpha(640)).toBeCloseTo(0.3 * 255, -1);
    expect(alpha(738)).toBeLessThan(8);
    expect(alpha(780)).toBe(0);
    // Upside down: what is high is mirrored deep.
    const two = scene({ floor }, [
      box(),
      box({ id: 'cap', size: [200, 40], offset: [0, -160], fill: { colour: '#0000FF' } }),
    ]);
    const [red, , , near] = pixelAt(studio, two, 0, 960, 560) as [number, number, number, number];
    // There the cap's image lies over the box's, each as faint.
    const [under, , blue, far] = pixelAt(studio, two, 0, 960, 715) as [number, number, number, number];
    expect(red).toBeGreaterThan(240);
    expect(blue).toBeGreaterThan(under - 20);
    // The cap fades with its height above the floor, not above its own foot.
    expect(far).toBeLessThan(near / 3);
  });

  it('mirrors through the camera: what stands farther back is mirrored there', () => {
    const s = scene({ floor: { ...floor, strength: 1, reach: 2000 } }, [box({ move: [0, 0, 1000] })]);
    // A camera at 2000 sees it two thirds as large; the floor it stands on is at the horizon's height.
    expect(pixelAt(studio, s, 0, 960, 540 + 120)[3]).toBeGreaterThan(200);
    expect(pixelAt(studio, s, 0, 960, 540 + 140)[3]).toBe(0);
  });

  it('is nothing to take hold of, and nothing of a draft', () => {
    const s = scene({ floor }, [textLayer('t', { at: [0.5, 0.5], origin: [0.5, 1], size: 200 })]);
    expect(s.evaluate(0).regions).toHaveLength(1);
    expect(draftAt(scene({ floor }), 960, 560)[3]).toBe(0);
    expect(draftAt(scene({ floor }), 960, 500)).toEqual([255, 0, 0, 255]);
  });
});

describe('a lens', () => {
  const focus = { at: 0, sharp: 100, blur: 20, most: 15 };
  const radius = (z: number, part = {}) => {
    const { ops } = scene({ focus: { ...focus, ...part } }, [box({ move: [0, 0, z] })]).evaluate(0);
    const [open] = ops.filter((op): op is Extract<Op, { op: 'open' }> => op.op === 'open');
    const [effect] = open?.effects ?? [];
    return effect?.effect === 'blur' ? effect.radius : 0;
  };

  it('is sharp where it is focused, and less so with the distance from there, to either side', () => {
    expect([0, 60, -90].map((z) => radius(z))).toEqual([0, 0, 0]);
    expect(radius(600)).toBeCloseTo(10, 9);
    expect(radius(-600)).toBeCloseTo(10, 9);
    expect(radius(5000)).toBe(15);
    expect(radius(600, { at: 600 })).toBe(0);
  });

  it('blurs nothing of a draft', () => {
    const s = scene({ focus }, [box({ move: [0, 0, 800] })]);
    const sharp = scene({}, [box({ move: [0, 0, 800] })]);
    const edge = [960, 400] as const;
    expect(draftAt(s, ...edge)).toEqual(pixelAt(studio, sharp, 0, ...edge));
    expect(pixelAt(studio, s, 0, 960 - 72, 500)[3]).toBeLessThan(250);
  });
});
