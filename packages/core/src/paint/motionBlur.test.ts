import { createNodeSurface, type NodeStudio } from '@fresh-reel/node-host';
import { newReel, setMotionBlur } from '../edit/reel';
import { ReelScene } from '../reel/reelScene';
import { templateOf, testStudio } from '../testing/studio';
import { splitSamples } from './motionBlur';
import type { Op } from './ops';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const square = (id: string, part: object) => ({
  id,
  kind: 'shape',
  outline: { kind: 'rectangle' },
  size: [300, 300],
  ...part,
});
const moving = square('moving', {
  fill: { colour: '#FFFFFF' },
  at: [0, 0.5],
  move: {
    keys: [
      { at: 0, value: [0, 0, 0], ease: 'linear' },
      { at: 60, of: 'out', value: [3600, 0, 0] },
    ],
  },
});
const sceneOf = (layers: object[], samples: number, shutter = 1) =>
  new ReelScene(
    setMotionBlur(newReel(templateOf(layers), { id: 'r', name: 'R', now: '', shape: 'wide' }), {
      samples,
      shutter,
    }),
    studio,
  );
const rate = { num: 60, den: 1 };
const paint = (moments: readonly (readonly Op[])[], width = 960) => {
  const surface = createNodeSurface(width, (width * 9) / 16);
  studio.painter.paintMoments(moments, surface, { width: 1920, height: 1080 });
  return surface.context.getImageData(0, 0, width, (width * 9) / 16).data;
};
const moments = (scene: ReelScene, frame: number) => scene.subFrames(frame, rate).map((f) => f.ops);

describe('motion blur', () => {
  it('is the mean of its moments, premultiplied, on a ground and on nothing', () => {
    const ground = square('ground', { fill: { colour: '#204060' }, size: [1920, 1080] });
    for (const layers of [[moving], [ground, moving]]) {
      const scene = sceneOf(layers, 8);
      const list = moments(scene, 40);
      const blurred = paint(list);
      const single = list.map((ops) => paint([ops]));
      for (let i = 0; i < blurred.length; i += 4 * 97) {
        const alpha = single.reduce((sum, d) => sum + d[i + 3]!, 0) / 8;
        expect(Math.abs(blurred[i + 3]! - alpha)).toBeLessThanOrEqual(1);
        if (alpha < 8) continue;
        for (let c = 0; c < 3; c++) {
          const mean = single.reduce((sum, d) => sum + d[i + c]! * d[i + 3]!, 0) / 8 / alpha;
          expect(Math.abs(blurred[i + c]! - mean)).toBeLessThanOrEqual(2);
        }
      }
    }
  });

  it('spreads an edge over the way it goes while the shutter is open', () => {
    // 3600 units in 180 frames: 20 a frame.
    const edge = (samples: number, shutter: number) => {
      const data = paint(moments(sceneOf([moving], samples, shutter), 40), 1920);
      let soft = 0;
      for (let x = 0; x < 1920; x++) {
        const a = data[(690 * 1920 + x) * 4 + 3]!;
        if (a > 2 && a < 253) soft++;
      }
      return soft / 2;
    };
    expect(edge(16, 1)).toBeGreaterThan(16);
    expect(edge(16, 1)).toBeLessThan(22);
    expect(Math.abs(edge(16, 0.5) - edge(16, 1) / 2)).toBeLessThan(3);
    expect(edge(1, 1)).toBeLessThan(2);
  });

  it('paints what stands still once', () => {
    const still = square('still', { fill: { colour: '#FF0000' }, at: [0.5, 0] });
    const {
      before,
      moving: parts,
      after,
    } = splitSamples(moments(sceneOf([still, moving, { ...still, id: 'top' }], 8), 40));
    expect([before.length, parts.map((p) => p.length), after.length]).toEqual([1, new Array(8).fill(1), 1]);
    const all = splitSamples(moments(sceneOf([still], 8), 40));
    expect(all.moving.every((p) => p.length === 0)).toBe(true);
  });

  it('takes the whole picture where something that moves is blended', () => {
    const blended = { ...moving, blend: 'multiply' };
    const still = square('still', { fill: { colour: '#FF0000' }, size: [1920, 1080] });
    const { before, moving: parts } = splitSamples(moments(sceneOf([still, blended], 4), 40));
    expect(before).toHaveLength(0);
    expect(parts[0]).toHaveLength(2);
  });

  it('is off with one sample, or a shutter that does not open', () => {
    expect(moments(sceneOf([moving], 1), 40)).toHaveLength(1);
    expect(moments(sceneOf([moving], 8, 0), 40)).toHaveLength(1);
    expect(moments(sceneOf([moving], 8), 0)).toHaveLength(8);
  });
});
