import { z } from 'zod';
import { newReel } from '../edit/reel';
import { templateOf, textLayer, textSlot } from '../testing/studio';
import { DocumentError, type DocumentKind, openDocument, parseJson } from '../values/load';
import { EMPTY_FILL } from './fill';
import { reelKind } from './reel';
import { templateKind } from './templateKind';

const rectangle = (id: string, part: object = {}) => ({
  id,
  kind: 'shape',
  outline: { kind: 'rectangle' },
  fill: { colour: '#FFFFFF' },
  ...part,
});

describe('opening documents', () => {
  it('says what a thing is not', () => {
    for (const [data, reason] of [
      [null, 'holds no document'],
      [[], 'holds no document'],
      [{ format: 'freshreel/reel', version: 1 }, 'its format is "freshreel/reel"'],
      [{ format: 'freshreel/template' }, 'does not say which version'],
      [{ format: 'freshreel/template', version: 99 }, 'made by a newer Fresh Reel'],
      [{ format: 'freshreel/template', version: 1 }, 'is damaged: at id'],
    ] as const) {
      expect(() => openDocument(templateKind, data)).toThrow(DocumentError);
      expect(() => openDocument(templateKind, data)).toThrow(reason);
    }
    expect(() => parseJson('{"a":', 'reel')).toThrow('not complete JSON');
  });

  it('brings old versions up one by one', () => {
    const kind: DocumentKind<{ format: string; version: number; total: number }> = {
      title: 'thing',
      format: 'thing',
      version: 3,
      schema: z.strictObject({ format: z.string(), version: z.number(), total: z.number() }),
      upgrades: {
        1: ({ sum, ...d }) => ({ ...d, amount: sum }),
        2: ({ amount, ...d }) => ({ ...d, total: (amount as number) * 2 }),
      },
    };
    expect(openDocument(kind, { format: 'thing', version: 1, sum: 4 })).toEqual({
      format: 'thing',
      version: 3,
      total: 8,
    });
    expect(() => openDocument({ ...kind, upgrades: {} }, { format: 'thing', version: 1, sum: 4 })).toThrow(
      'can no longer be opened',
    );
  });

  it('names the part that is wrong, deep inside', () => {
    expect(() => templateOf([{ id: 'g', kind: 'group', layers: [rectangle('a', { opacity: 7 })] }])).toThrow(
      /layers › 0 › .*opacity/,
    );
    expect(() => templateOf([rectangle('a', { fil: 1 })])).toThrow(/fil/);
    expect(() => templateOf([{ id: 'x', kind: 'cube' }])).toThrow(/layers › 0 › kind/);
  });
});

describe('templates check what they name', () => {
  it.each([
    ['control', [rectangle('a', { opacity: { control: 'gone' } })], {}, 'a control "gone" that is not there'],
    ['slot', [textLayer('title')], {}, 'a slot "title" that is not there'],
    ['hugged layer', [rectangle('a', { hug: { layers: ['b'] } })], {}, '"a" needs "b" beside it'],
    ['matte', [rectangle('a', { matte: { layer: 'b' } })], {}, '"a" needs "b" beside it'],
    ['twin layers', [rectangle('a'), rectangle('a')], {}, 'two layers are called "a"'],
    [
      'scene',
      [rectangle('a')],
      { slots: [{ ...textSlot('t'), scenes: ['gone'] }] },
      'a scene "gone" that is not there',
    ],
    [
      'look',
      [rectangle('a')],
      { looks: [{ id: 'l', name: 'L', controls: { gone: 1 } }] },
      'sets a control "gone"',
    ],
    [
      'asset',
      [rectangle('a')],
      { slots: [{ ...textSlot('p'), kind: 'logo', sample: 'pic' }] },
      'a sample "pic" that is not among the assets',
    ],
  ] as const)('%s', (_, layers, rest, message) => {
    expect(() => templateOf([...layers], rest as Record<string, unknown>)).toThrow(message);
  });
});

describe('reels', () => {
  it('go to JSON and back unchanged', () => {
    const template = templateOf([textLayer('title')], { slots: [textSlot('title', 'Hello')] });
    const reel = newReel(template, {
      id: 'r',
      name: 'R',
      now: '2026-06-06T10:00:00.000Z',
      shape: 'tall',
      fill: { ...EMPTY_FILL, slots: { title: 'Hi', gone: null } },
    });
    expect(openDocument(reelKind, JSON.parse(JSON.stringify(reel)))).toEqual(reel);
  });

  it('with half their text gone are damaged, not empty', () => {
    const template = templateOf([rectangle('a')]);
    const text = JSON.stringify(newReel(template, { id: 'r', name: 'R', now: '', shape: 'wide' }));
    expect(() => openDocument(reelKind, parseJson(text.slice(0, text.length / 2), 'reel'))).toThrow(
      DocumentError,
    );
  });
});
