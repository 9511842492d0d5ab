import { newReel } from '@fresh-reel/core';
import { templateById } from '@fresh-reel/templates';
import { nameOf } from './itemWords';
import {
  fittingPixels,
  frameAtX,
  leftFor,
  nearestSnap,
  rulerStep,
  stripTimes,
  xOfFrame,
  zoomed,
} from './lineView';

const reel = newReel(templateById('name-strap'), { id: 'r', name: 'R', now: '', shape: 'wide' });

it('an item is called by its words, its file, or what the user says', () => {
  const title = reel.tracks[0]!.items[0]!;
  expect(nameOf(reel, title)).toBe('Name strap');
  const filled = { ...title, fill: { slots: { name: 'Marit\nOyelaran' }, controls: {} } } as typeof title;
  expect(nameOf(reel, filled)).toBe('Name strap: Marit');
  expect(nameOf(reel, { ...filled, label: 'Mine' })).toBe('Mine');
});

describe('the line', () => {
  it('lays pictures of a clip where they belong, the same ones at every zoom', () => {
    expect(stripTimes(0.9, 4, 1)).toEqual([0, 1, 2, 3]);
    expect(stripTimes(0, 4, 0.7)).toEqual([0, 1, 2, 3]);
    expect(stripTimes(1.2, 2, 0.3)).toEqual([1, 1.5]);
    expect(stripTimes(0, 3600, 0.001)).toHaveLength(200);
    expect(stripTimes(3, 3, 1)).toEqual([]);
  });

  it('shows all of a reel, or single frames, and nothing between is lost', () => {
    const px = fittingPixels(360, 300);
    expect(300 * px).toBeLessThan(360);
    expect(zoomed(px, 0.1, 360, 300)).toBe(px);
    expect(zoomed(px, 1e6, 360, 300)).toBe(32);
  });

  it('keeps the playhead in the middle, or in view', () => {
    const view = { px: 2, left: 0, width: 400 };
    expect(leftFor(view, 50, true)).toBe(-50);
    expect(leftFor(view, 150, false)).toBe(0);
    expect(leftFor(view, 250, false)).toBe(230);
    expect(frameAtX({ ...view, left: 30 }, xOfFrame({ ...view, left: 30 }, 77))).toBe(77);
  });

  it('has marks as far apart as their words need', () => {
    expect([4, 40, 120, 1600].map(rulerStep)).toEqual([30, 2, 1, 0.1]);
  });

  it('snaps the nearer end to the nearest place', () => {
    expect(nearestSnap([100, 150], [0, 96, 153, 400], 5)).toEqual({ by: 3, at: 153 });
    expect(nearestSnap([100, 150], [0, 400], 5)).toBeUndefined();
  });
});
