import { createNodeSurface, type NodeStudio, pngOf } from '@fresh-reel/node-host';
import { type Fill, freshPicture } from '../documents/fill';
import {
  changeText,
  graphicOf,
  hideSlot,
  newReel,
  pourMedia,
  replaceMedia,
  setSlot,
  swapSlots,
} from '../edit/reel';
import { type PictureFill, pictureFillSchema } from '../media/pictureFill';
import { pixelAt, sceneOf, templateOf, testStudio } from '../testing/studio';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
  // Four squares: red, green above; blue, yellow below. Twice as wide as high.
  const surface = createNodeSurface(80, 40);
  const squares = ['#FF0000', '#00FF00', '#0000FF', '#FFFF00'];
  squares.forEach((colour, i) => {
    surface.context.fillStyle = colour;
    surface.context.fillRect((i % 2) * 40, Math.floor(i / 2) * 20, 40, 20);
  });
  await studio.addPicture('sha256:four', await pngOf(surface));
});

const slot = (id: string) => ({
  id,
  kind: 'picture',
  name: id,
  scenes: ['all'],
  moment: { at: 0 },
  sample: null,
});
const layer = { id: 'p', kind: 'picture', slot: 'p', size: [400, 400], at: [0, 0] };
const template = templateOf([layer], { slots: [slot('p')] });
const NAMES: Readonly<Record<string, string>> = {
  '255,0,0,255': 'red',
  '0,255,0,255': 'green',
  '0,0,255,255': 'blue',
  '255,255,0,255': 'yellow',
  '0,0,0,0': 'clear',
};

/** Colours at points of the 400 by 400 box. */
function seen(part: Partial<PictureFill>, ...points: [number, number][]): string[] {
  const fill: Fill = { slots: { p: { ...freshPicture('sha256:four'), ...part } }, controls: {} };
  const scene = sceneOf(studio, template, fill);
  return points.map(([x, y]) => {
    const pixel = pixelAt(studio, scene, 0, x, y).join();
    return NAMES[pixel] ?? pixel;
  });
}

describe('a picture in its slot', () => {
  const corners: [number, number][] = [
    [20, 20],
    [380, 20],
    [20, 380],
    [380, 380],
  ];
  it('fills it', () => expect(seen({}, ...corners)).toEqual(['red', 'green', 'blue', 'yellow']));
  it('is mirrored across, and down', () => {
    expect(seen({ flip: [true, false] }, ...corners)).toEqual(['green', 'red', 'yellow', 'blue']);
    expect(seen({ flip: [false, true] }, ...corners)).toEqual(['blue', 'yellow', 'red', 'green']);
  });
  it('shows all of it where that is asked for, the rest of the slot clear', () => {
    expect(seen({ fit: 'fit' }, [200, 60], [20, 150], [380, 250], [200, 340])).toEqual([
      'clear',
      'red',
      'yellow',
      'clear',
    ]);
  });
  it('is smaller than its slot, or larger and cropped to it', () => {
    expect(seen({ scale: 0.5 }, [150, 150], [250, 250], [200, 60])).toEqual(['red', 'yellow', 'clear']);
    expect(seen({ scale: 3, fit: 'fit', focus: [0.25, 0.25] }, [200, 200], [450, 200])).toEqual([
      'red',
      'clear',
    ]);
  });
  it('stays in its slot when it is turned', () => {
    expect(seen({ turn: 90 }, [20, 20], [380, 380], [420, 200])).toEqual(['blue', 'green', 'clear']);
    expect(seen({ turn: 45, fit: 'fit' }, [4, 4], [200, 120])).toEqual(['clear', 'red']);
  });
  it('is see-through, and blends with what is below', () => {
    const [pixel] = seen({ opacity: 0.5 }, [20, 20]);
    expect(pixel).toMatch(/^255,0,0,12[78]$/);
    const below = {
      id: 'g',
      kind: 'shape',
      outline: { kind: 'rectangle' },
      size: [400, 400],
      fill: { colour: '#808080' },
    };
    const two = templateOf([below, layer], { slots: [slot('p')] });
    const fill: Fill = { slots: { p: { ...freshPicture('sha256:four'), blend: 'multiply' } }, controls: {} };
    expect(pixelAt(studio, sceneOf(studio, two, fill), 0, 20, 20)).toEqual([128, 0, 0, 255]);
  });
  it('does not show while its slot is hidden, and is kept', () => {
    const fill: Fill = { slots: { p: freshPicture('sha256:four') }, controls: {}, hidden: ['p'] };
    const scene = sceneOf(studio, template, fill);
    expect(scene.evaluate(0).ops).toEqual([]);
    expect(scene.slots.media()).toEqual([]);
    expect(scene.slots.slotPicture('p')?.media).toBe('sha256:four');
  });
});

it('what a slot held before clips came still opens', () => {
  const old = { media: 'sha256:a', focus: [0.2, 0.4], scale: 2, turn: -10 };
  expect(pictureFillSchema.parse(old)).toEqual(old);
});

describe('many files and many slots', () => {
  const three = templateOf([layer], { slots: ['p', 'q', 'r'].map(slot) });
  const reel = newReel(three, { id: 'r', name: 'R', now: '', shape: 'wide' });
  const held = (r: typeof reel) => {
    const { slots } = graphicOf(r, 'r-1').fill;
    return ['p', 'q', 'r'].map((id) => (slots[id] as PictureFill | undefined)?.media);
  };

  const files = (...media: string[]) => media.map((id) => ({ media: id }));

  it('are poured in their order from the slot on, those too many left out', () => {
    expect(held(pourMedia(reel, 'r-1', 'q', files('a', 'b', 'c')))).toEqual([undefined, 'a', 'b']);
    expect(held(pourMedia(reel, 'r-1', 'p', files('a', 'b', 'c', 'd')))).toEqual(['a', 'b', 'c']);
  });
  it('trade what they hold and how it sits', () => {
    const poured = pourMedia(reel, 'r-1', 'p', files('a', 'b'));
    const a = { ...freshPicture('a'), scale: 2 };
    const swapped = swapSlots(poured, 'r-1', ['p', a], ['q', freshPicture('b')]);
    expect(held(swapped)).toEqual(['b', 'a', undefined]);
    expect(graphicOf(swapped, 'r-1').fill.slots.q).toEqual(a);
    expect(graphicOf(swapSlots(reel, 'r-1', ['p', a], ['r', undefined]), 'r-1').fill.slots.p).toBeNull();
  });
  it('one that was missing is put wherever it was, under its new name', () => {
    const poured = pourMedia(reel, 'r-1', 'p', [
      { media: 'a', name: 'a.jpg' },
      { media: 'b' },
      { media: 'a' },
    ]);
    const typed = changeText(poured, 'r-1', 't', { fill: { media: freshPicture('a') } });
    const found = replaceMedia(typed, 'a', { media: 'x', name: 'x.jpg' });
    expect(held(found)).toEqual(['x', 'b', 'x']);
    const { fill } = graphicOf(found, 'r-1');
    expect(fill.slots.p).toMatchObject({ name: 'x.jpg' });
    expect(fill.texts?.t?.fill).toMatchObject({ media: { media: 'x' } });
    const heard = setSlot(reel, 'r-1', 's', { sound: 'a', level: -3 });
    expect(graphicOf(replaceMedia(heard, 'a', { media: 'x' }), 'r-1').fill.slots.s).toEqual({
      sound: 'x',
      level: -3,
    });
  });
  it('are hidden and shown again, leaving no trace', () => {
    const hidden = hideSlot(hideSlot(reel, 'r-1', 'q', true), 'r-1', 'q', true);
    expect(graphicOf(hidden, 'r-1').fill.hidden).toEqual(['q']);
    expect(hideSlot(hidden, 'r-1', 'q', false)).toEqual(reel);
  });
});
