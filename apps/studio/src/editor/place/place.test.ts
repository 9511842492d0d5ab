import { graphicsOf, newReel, openDocument, type Reel, reelKind } from '@fresh-reel/core';
import { templateById } from '@fresh-reel/templates';
import type { MediaRecord } from '../../storage/media';
import { nameOf } from './itemWords';
import { fittingPixels, frameAtX, leftFor, nearestSnap, rulerStep, xOfFrame, zoomed } from './lineView';
import { addColour, addFile, addTitle } from './newItems';

const reel = newReel(templateById('name-strap'), { id: 'r', name: 'R', now: '', shape: 'wide' });
const record = (kind: MediaRecord['kind'], duration?: number) =>
  ({
    ...{ hash: kind.padEnd(64, '0'), kind, name: `a.${kind}`, type: '', size: 1, alpha: false, chunks: 1 },
    ...{ added: '', ...(duration ? { duration } : {}) },
  }) as MediaRecord;
const shown = (r: Reel) => r.tracks.map((t) => t.items.map((i) => `${i.id}@${i.start}`).join(' '));

describe('what is added', () => {
  it('lies below the titles: clips and pictures side by side, sounds below all', () => {
    let { reel: next } = addFile(reel, record('clip', 3), 10);
    ({ reel: next } = addFile(next, record('picture'), 400));
    ({ reel: next } = addFile(next, record('sound', 9), 0));
    ({ reel: next } = addColour(next, '#112233', 0));
    expect(shown(next)).toEqual(['sound@0', 'clip@10 picture@400', 'colour@0', 'r-1@0']);
    openDocument(reelKind, JSON.parse(JSON.stringify(next)));
  });

  it('as a title stands on top, and is kept once for all of its kind', () => {
    const { reel: two, id } = addTitle(reel, templateById('name-strap'), 500);
    expect([id, shown(two), Object.keys(two.templates)]).toEqual([
      'name-strap',
      ['r-1@0 name-strap@500'],
      ['name-strap'],
    ]);
    expect(graphicsOf(addTitle(two, templateById('place-date'), 500).reel)).toHaveLength(3);
  });

  it('is called by its words, its file, or what the user says', () => {
    const title = reel.tracks[0]!.items[0]!;
    expect(nameOf(reel, title)).toBe('Name strap');
    const filled = { ...title, fill: { slots: { name: 'Marit\nOyelaran' }, controls: {} } } as typeof title;
    expect(nameOf(reel, filled)).toBe('Name strap: Marit');
    expect(nameOf(reel, { ...filled, label: 'Mine' })).toBe('Mine');
  });
});

describe('the line', () => {
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
