import fc from 'fast-check';
import type { Reel } from '../documents/reel';
import { addTitle, reelOfFiles } from '../edit/newItems';
import { setSlot } from '../edit/reel';
import { graphicsOf } from '../reel/graphicTime';
import { templateOf, textLayer, textSlot } from '../testing/studio';
import { namesFault, outputName } from './names';

const strap = templateOf([textLayer('full')], {
  name: 'Strap',
  slots: [{ ...textSlot('full', 'Ida Marsh'), name: 'Full name' }],
});
const made = {
  ...{ id: 'r', name: 'Kite day', now: '2026-07-04T10:00:00Z' },
  ...{ frame: { width: 1920, height: 1080 }, rate: { num: 25, den: 1 } },
};
const reel = addTitle(reelOfFiles([], made), strap, 0).reel;
const SIZE = { width: 960, height: 540 };
const RATE = { num: 60000, den: 1001 };
const named = (names: string, of: Reel = reel, format: 'webm' | 'png' = 'webm') =>
  outputName({ ...of, output: { format, side: 540, names } }, format, SIZE, RATE);

describe('names of rendered files', () => {
  it('hold the reel, size and rate where nothing else is said', () => {
    expect(outputName(reel, 'webm', SIZE, RATE)).toBe('kite-day-960x540-59.94fps.webm');
    expect(outputName(reel, 'png', SIZE, RATE)).toBe('kite-day-960x540.png');
    expect(outputName(reel, 'wav', SIZE, RATE)).toBe('kite-day.wav');
    expect(outputName(reel, 'prores4444', SIZE, RATE)).toBe('kite-day-960x540-59.94fps.mov');
  });

  it('are made by a pattern, with the words of a title', () => {
    expect(named('{day} {template} {full name}')).toBe('2026-07-04-strap-ida-marsh.webm');
    const [title] = graphicsOf(reel);
    const changed = setSlot(reel, title!.id, 'full', 'Jonas Reed / crew');
    expect(named('Strap {full} v2', changed)).toBe('Strap-jonas-reed-crew-v2.webm');
    expect(named('{full}', setSlot(reel, title!.id, 'full', ''))).toBe('untitled.webm');
  });

  it('say which part is nothing of the reel, and what there is', () => {
    expect(namesFault(reel, '{reel} {Full name}')).toBeUndefined();
    expect(namesFault(reel, '{reel} {client}')).toBe(
      '{client} is nothing of this reel. There are {reel}, {size}, {rate}, {template}, {look}, {day}, {full name}.',
    );
    expect(named('{reel} {client}')).toBe('kite-day.webm');
  });

  it('are files of a folder, whatever the pattern', () => {
    fc.assert(
      fc.property(fc.string({ minLength: 1, maxLength: 60, unit: 'binary' }), (pattern) => {
        const name = named(pattern);
        expect(name).toMatch(/^[^\\/:*?"<>|.-][^\\/:*?"<>|]*\.webm$/u);
        expect(name).not.toContain('..');
      }),
    );
  });
});
