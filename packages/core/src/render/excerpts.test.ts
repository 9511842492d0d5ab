import { addTitle, reelOfFiles } from '../edit/newItems';
import { graphicsOf } from '../reel/graphicTime';
import { reelEnd } from '../reel/itemLength';
import { templateOf } from '../testing/studio';
import { excerptsOf } from './excerpts';
import { outputName } from './names';

const plate = { id: 'a', kind: 'shape', outline: { kind: 'rectangle' }, fill: { colour: '#FF0000' } };
const strap = {
  ...templateOf([plate], { timing: { in: 50, hold: 50, out: 50 }, rate: { num: 50, den: 1 } }),
  name: 'Strap',
};
const made = {
  id: 'r',
  name: 'Kite day',
  now: '',
  frame: { width: 1920, height: 1080 },
  rate: { num: 25, den: 1 },
};
const clip = { kind: 'clip', media: 'sha256:c', duration: 20 } as const;
const reel = addTitle(addTitle(reelOfFiles([clip, clip], made), strap, 100).reel, strap, 400).reel;

describe('what of a reel is rendered', () => {
  it('all of it, or from a frame up to another, within its end', () => {
    expect(excerptsOf(reel, 'all')).toEqual([{ reel, from: 0, count: 1000, name: 'Kite day' }]);
    expect(excerptsOf(reel, 'range', [990, 2000])).toMatchObject([
      { from: 990, count: 10, name: 'Kite day 00:00:39:15 to 00:00:40:00' },
    ]);
    expect(excerptsOf(reel, 'range', [30, 30])).toEqual([]);
    expect(excerptsOf(reel, 'range', [1000, 1200])).toEqual([]);
  });

  it('its titles alone, as long as the reel, so that they lie over it from its beginning', () => {
    const [titles] = excerptsOf(reel, 'titles');
    expect([titles!.from, titles!.count, reelEnd(reel)]).toEqual([0, 1000, 1000]);
    expect(titles!.reel.tracks.flatMap((t) => t.items.map((i) => i.kind))).toEqual(['graphic', 'graphic']);
    expect(excerptsOf(reelOfFiles([clip], made), 'titles')).toEqual([]);
  });

  it('each title by itself, named by the time code it begins at', () => {
    const each = excerptsOf(reel, 'each-title');
    expect(each.map((e) => [e.from, e.count, graphicsOf(e.reel).length])).toEqual([
      [100, 75, 1],
      [400, 75, 1],
    ]);
    const names = each.map((e) =>
      outputName({ ...e.reel, name: e.name }, 'webm', { width: 1920, height: 1080 }, reel.rate),
    );
    expect(names[1]).toBe('kite-day-00-00-16-00-strap-1920x1080-25fps.webm');
  });
});
