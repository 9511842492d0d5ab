import { createNodeSurface, type NodeStudio } from '@fresh-reel/node-host';
import fc from 'fast-check';
import { newReel, setMotionBlur } from '../edit/reel';
import { ReelScene } from '../reel/reelScene';
import { areaOf } from '../render/area';
import { templateOf, testStudio } from '../testing/studio';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const SIZE = { width: 640, height: 360 };
const RATE = { num: 60, den: 1 };

const moving = {
  ...{ kind: 'shape', outline: { kind: 'rectangle', corner: 20 }, size: [420, 160], at: [0.2, 0.3] },
  move: {
    keys: [
      { at: 0, value: [0, 0, 0] },
      { at: 60, of: 'out', value: [300, 140, 0] },
    ],
  },
};
const shadow = { effect: 'shadow', offset: [6, 14], radius: 12, colour: '#000000', opacity: 0.6 };
const relief = { effect: 'inner-shadow', angle: 80, distance: 4, radius: 5, colour: '#000000', opacity: 0.5 };
const gradient = {
  gradient: 'linear',
  angle: 70,
  stops: [
    [0, '#F2A541'],
    [1, '#1E4D3B'],
  ],
};

/** What each is made of reads beyond its own pixels in another way. */
const KINDS: Record<string, object> = {
  'a gradient of linen': { fill: { ...gradient, material: { of: 'linen', strength: 0.8, size: 0.6 } } },
  'a relief with its shadow': { fill: gradient, effects: [relief, shadow] },
  'a soft shadow': { fill: { colour: '#C8431C' }, effects: [shadow] },
  'a blur': { fill: gradient, effects: [{ effect: 'blur', radius: 9 }] },
  'a frosted plate': { fill: { colour: '#FFFFFF80' }, effects: [{ effect: 'frost', radius: 10 }] },
  'a plate in perspective': { fill: gradient, turn: [30, -40, 10] },
  'a dashed line': { stroke: { paint: { colour: '#16202B' }, width: 9, dash: [30, 14] }, opacity: 0.7 },
};

const painted = (name: string, frame: number, samples: number, part?: { x: number; y: number }) => {
  const template = templateOf([
    { id: 'below', ...moving, at: [0.3, 0.4], fill: { colour: '#2F7F9E' } },
    { id: 'it', ...moving, ...KINDS[name] },
  ]);
  const reel = newReel(template, { id: 'r', name: 'R', now: '', shape: 'wide' });
  const blurred = setMotionBlur(reel, { samples, shutter: 1 });
  const scene = new ReelScene(blurred, studio);
  const moments = scene.subFrames(frame, RATE).map((f) => f.ops);
  const area = areaOf(moments, scene.frame, SIZE);
  const box = part
    ? { x: Math.floor(area.x * part.x), y: Math.floor(area.y * part.y), width: 0, height: 0 }
    : { x: 0, y: 0, ...SIZE };
  if (part) {
    box.width = area.x + area.width - box.x;
    box.height = area.y + area.height - box.y;
  }
  const surface = createNodeSurface(box.width, box.height);
  const scale = SIZE.width / scene.frame.width;
  studio.painter.paintMoments(moments, surface, scene.frame, { scale, x: box.x, y: box.y });
  return { box, data: surface.context.getImageData(0, 0, box.width, box.height).data };
};

describe('a part of a frame that holds all that shows', () => {
  it.each(Object.keys(KINDS))('has the pixels of the whole: %s', (name) => {
    const part = fc.record({ x: fc.double({ min: 0, max: 1, noNaN: true }), y: fc.constantFrom(0, 0.5, 1) });
    fc.assert(
      fc.property(part, fc.integer({ min: 0, max: 160 }), fc.constantFrom(1, 4), (at, frame, samples) => {
        const whole = painted(name, frame, samples);
        const { box, data } = painted(name, frame, samples, at);
        for (let y = 0; y < SIZE.height; y++) {
          for (let x = 0; x < SIZE.width; x++) {
            const [i, j] = [x - box.x, y - box.y];
            const inside = i >= 0 && j >= 0 && i < box.width && j < box.height;
            for (let c = 0; c < 4; c++) {
              const seen = inside ? data[(j * box.width + i) * 4 + c]! : 0;
              const alpha = whole.data[(y * SIZE.width + x) * 4 + 3]!;
              const off = Math.abs(seen - whole.data[(y * SIZE.width + x) * 4 + c]!);
              // Colours of what is nearly clear are told in coarse steps.
              if (off * (c < 3 ? alpha / 255 : 1) > 2) return false;
            }
          }
        }
        return true;
      }),
      { numRuns: 8 },
    );
  });
});
