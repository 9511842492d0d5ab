import { templateById } from '@fresh-reel/templates';
import { newReel } from '../edit/reel';
import { DocumentError } from '../values/load';
import { openAsFarAsKnown } from './newer';
import { reelKind } from './reel';
import type { Template } from './template';
import { templateKind } from './templateKind';

const strap = () => JSON.parse(JSON.stringify(templateById('name-strap'))) as Template;

describe('documents of a newer version', () => {
  it('opens what it knows, tells what it does not, and keeps parts of unknown kinds', () => {
    const data = strap() as unknown as Record<string, unknown> & { layers: Record<string, unknown>[] };
    data.version = templateKind.version + 1;
    data.weather = 'windy';
    data.layers[0]!.haze = 3;
    const wind = { id: 'wind', name: 'Wind', kind: 'wind', blows: 4 };
    data.layers.push(wind);
    const { document, left } = openAsFarAsKnown(templateKind, data);
    expect(left).toEqual(
      expect.arrayContaining([
        '“Name strap”: “weather” is newer than this version, and is left out.',
        '“strap”: “haze” is newer than this version, and is left out.',
        'The part “Wind” is of a kind that this version does not know (wind). It does not show, and is kept.',
      ]),
    );
    expect(document.layers.at(-1)).toMatchObject({ kind: 'newer', id: 'wind', name: 'Wind', was: wind });
    expect(document.slots).toEqual(strap().slots);
  });

  it('opens reels with templates of a newer version', () => {
    const reel = JSON.parse(
      JSON.stringify(newReel(strap(), { id: 'r', name: 'R', now: '', shape: 'wide' })),
    ) as Record<string, unknown> & { templates: Record<string, Record<string, unknown>> };
    reel.version = reelKind.version + 2;
    const [held] = Object.values(reel.templates);
    Object.assign(held!, { version: templateKind.version + 1, weather: 'still' });
    expect(openAsFarAsKnown(reelKind, reel).left).toEqual([
      '“Name strap”: “weather” is newer than this version, and is left out.',
    ]);
  });

  it('does not open what is wrong in another way, and takes nothing away from documents of this version', () => {
    expect(() => openAsFarAsKnown(templateKind, { ...strap(), version: 9, slots: 'none' })).toThrow(
      DocumentError,
    );
    expect(() => openAsFarAsKnown(templateKind, { ...strap(), weather: 1 })).toThrow(/weather/);
    expect(openAsFarAsKnown(templateKind, strap()).left).toEqual([]);
    let deep: unknown = {};
    for (let i = 0; i < 5000; i++) deep = { deep };
    expect(() => openAsFarAsKnown(templateKind, { ...strap(), version: 9, deep })).toThrow('levels deep');
  });
});
