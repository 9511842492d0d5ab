import type { NodeStudio } from '@fresh-reel/node-host';
import { allTemplates } from '@fresh-reel/templates';
import fc from 'fast-check';
import { EMPTY_FILL } from '../documents/fill';
import { sceneOf, templateOf, testStudio, textLayer, textSlot } from '../testing/studio';
import { DocumentError, openDocument } from '../values/load';
import { reelKind } from './reel';
import type { Template } from './template';
import { templateKind } from './templateKind';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const shape = (part: object = {}) => ({
  id: 'a',
  kind: 'shape',
  outline: { kind: 'rectangle' },
  size: [9, 9],
  ...part,
});
const number = { id: 'n', kind: 'number', name: 'N', min: 0, max: 9, step: 1, default: 3 };
const colour = { id: 'c', kind: 'colour', name: 'C', default: '#FF0000' };
const options = [
  { id: 'x', name: 'X' },
  { id: 'y', name: 'Y' },
];
const choice = { id: 'k', kind: 'choice', name: 'K', options, default: 'x' };
const fill = { colour: '#FFFFFF' };
const refused = (layers: object[], rest: Record<string, unknown>) => {
  expect(() => templateOf(layers, rest)).toThrow(DocumentError);
  try {
    templateOf(layers, rest);
    return '';
  } catch (error) {
    return (error as Error).message;
  }
};

describe('what a stranger’s document may not be, it is told in words', () => {
  it.each([
    [
      'mattes that go round',
      [shape({ matte: { layer: 'b' } }), { ...shape(), id: 'b', matte: { layer: 'a' } }],
      {},
      'needs itself',
    ],
    [
      'hugs that go round',
      [shape({ hug: { layers: ['b'] } }), { ...shape(), id: 'b', hug: { layers: ['a'] } }],
      {},
      'needs itself',
    ],
    [
      'a colour for a number',
      [shape({ opacity: { control: 'c' } })],
      { controls: [colour] },
      'does not give a number',
    ],
    [
      'a number for a point',
      [shape({ at: { control: 'n' } })],
      { controls: [number] },
      'does not give a point',
    ],
    [
      'a number for a colour',
      [shape({ fill: { colour: { control: 'n' } } })],
      { controls: [number] },
      'colour',
    ],
    ['the frame’s width for a point', [shape({ at: { frame: 'width' } })], {}, 'does not give a point'],
    [
      'a choice without its row',
      [shape({ opacity: { control: 'k', table: { x: 1 } } })],
      { controls: [choice] },
      'no row for "y"',
    ],
    [
      'a table of a number',
      [shape({ opacity: { control: 'n', table: { 3: 1 } } })],
      { controls: [number] },
      'a table needs',
    ],
    [
      'a choice of what is not possible',
      [textLayer('t', { align: { control: 'k' } })],
      { slots: [textSlot('t')], controls: [choice] },
      'may be "x"',
    ],
    [
      'a sum of words',
      [textLayer('t', { align: { sum: ['start', 'end'] } })],
      { slots: [textSlot('t')] },
      'are of numbers',
    ],
    [
      'a sum with words in it',
      [shape({ opacity: { sum: [0, { control: 'k' }] } })],
      { controls: [choice] },
      'does not give a number',
    ],
    [
      'a curve beyond all measure',
      [
        shape({
          opacity: {
            keys: [
              { at: 0, value: 0, ease: { bezier: [0, 1e300, 1, 1] } },
              { at: 9, value: 1 },
            ],
          },
        }),
      ],
      {},
      'is damaged',
    ],
    [
      'path data that cannot be read',
      [shape({ outline: { kind: 'path', data: 'M10 banana', size: [9, 9] } })],
      {},
      'cannot be read',
    ],
    ['a range that holds nothing', [shape()], { controls: [{ ...number, min: 5, max: 1 }] }, 'no range'],
    [
      'a default outside its range',
      [shape()],
      { controls: [{ ...number, default: 30 }] },
      'from 0 to 9, not 30',
    ],
    [
      'a default that is no option',
      [shape()],
      { controls: [{ ...choice, default: 'z' }] },
      'takes one of x, y',
    ],
    [
      'a look of the wrong type',
      [shape()],
      { controls: [number], looks: [{ id: 'l', name: 'L', controls: { n: '#FF0000' } }] },
      'takes a number',
    ],
    [
      'copies of a stroke',
      [
        shape({
          copies: { across: 3, step: [9, 9] },
          stroke: { paint: { colour: '#000000' }, width: 2 },
        }),
      ],
      {},
      'takes no stroke',
    ],
    [
      'grain with a place',
      [{ id: 'g', kind: 'grain', amount: 0.1, move: [9, 0, 0] }],
      {},
      'covers the whole picture',
    ],
    [
      'a sample by an inherited name',
      [shape()],
      {
        slots: [
          { id: 'p', kind: 'picture', name: 'P', scenes: ['all'], moment: { at: 0 }, sample: 'constructor' },
        ],
      },
      'not among the assets',
    ],
  ] as [string, object[], Record<string, unknown>, string][])('%s', (_, layers, rest, words) => {
    expect(refused(layers, rest)).toContain(words);
  });

  it('nesting without end', () => {
    let deep: object = shape();
    for (let i = 0; i < 3000; i++) deep = { id: `g${i}`, kind: 'group', layers: [deep] };
    expect(refused([deep], {})).toContain('levels deep');
  });

  it('a reel of version 1 whose parts are not what they should be', () => {
    for (const tracks of [7, [null], [{ graphics: [null] }], [{ graphics: [{ template: 3 }] }]]) {
      expect(() => openDocument(reelKind, { format: 'freshreel/reel', version: 1, tracks })).toThrow(
        DocumentError,
      );
    }
  });
});

describe('what is accepted works', () => {
  it('a hug of a hug is drawn, in any order', () => {
    const layers = [
      shape({ id: 'outer', hug: { layers: ['inner'], margin: 10 }, fill }),
      { ...shape({ hug: { layers: ['t'], margin: 5 }, fill }), id: 'inner' },
      textLayer('t'),
    ];
    for (const order of [layers, [...layers].reverse()]) {
      const scene = sceneOf(studio, templateOf(order, { slots: [textSlot('t', 'Words')] }));
      expect(scene.evaluate(60).ops).toHaveLength(3);
    }
  });

  it('a hold beyond all measure is an hour at most', () => {
    const hold = { product: Array(40).fill(90000) };
    const scene = sceneOf(studio, templateOf([shape({ fill })], { timing: { in: 60, hold, out: 60 } }));
    expect(scene.length).toBeLessThanOrEqual(432_000 + 120);
  });

  it('more than a frame can hold is left out, and told', () => {
    const motion = { during: [{ unit: 'letter', course: 'round', turn: [0, 0, 9] }] };
    const template = templateOf(
      [textLayer('t', { motion, size: 2, fit: { width: 1800, lines: 5000, least: 0.9 } })],
      { slots: [{ ...textSlot('t', 'ab '.repeat(20_000)), manyLines: true }] },
    );
    const frame = sceneOf(studio, template).evaluate(60);
    expect(frame.notices.map((n) => n.kind)).toContain('too-much');
    expect(frame.ops.length).toBeLessThan(60_000);
  });

  it('a number beyond all measure, and a length of nothing, paint with true numbers', () => {
    const shadow = { effect: 'shadow', radius: 9, colour: '#000000', opacity: 1 };
    const motion = { during: [{ unit: 'letter', course: 'back-and-forth', every: { control: 'n' } }] };
    const template = templateOf(
      [textLayer('t', { motion }), shape({ id: 'far', fill, effects: [{ ...shadow, distance: 1e308 }] })],
      {
        slots: [textSlot('t', 'Words')],
        controls: [{ id: 'n', kind: 'number', name: 'N', min: 0, max: 9, step: 1, default: 0 }],
      },
    );
    expect(strayNumber(sceneOf(studio, template).evaluate(0).ops)).toBe(false);
  });

  /** Stands for a value of the kind that is there. */
  const LIKE = Symbol('like');

  /** Numbers that are none, anywhere in plain data. */
  function strayNumber(data: unknown): boolean {
    if (typeof data === 'number') return !Number.isFinite(data);
    if (typeof data !== 'object' || data === null) return false;
    return Object.values(data).some(strayNumber);
  }

  /** Places in a document where something may be changed. */
  function places(data: unknown, way: (string | number)[] = []): (string | number)[][] {
    if (typeof data !== 'object' || data === null) return [way];
    return Object.entries(data).flatMap(([key, part]) => places(part, [...way, key]));
  }

  function changed(data: unknown, [key, ...rest]: (string | number)[], value: unknown): unknown {
    if (key === undefined) return value;
    const copy = (Array.isArray(data) ? [...data] : { ...(data as object) }) as Record<
      string | number,
      unknown
    >;
    copy[key] = changed(copy[key], rest, value);
    return copy;
  }

  it('every template that opens paints at any time, without a fault and with true numbers', () => {
    const plain = allTemplates().map((t) => JSON.parse(JSON.stringify(t)) as Template);
    const ways = plain.map((t) => places(t));
    const links = plain.map((t) => t.controls.map((c) => ({ control: c.id })));
    const value = fc.oneof(
      fc.constantFrom(0, -1, 1, 1e5, -1e5, 1e-9, 0.5, 360, 1e308),
      fc.constantFrom('', '#000000', 'M 0 0', 'toString', 'Anton'),
      fc.constantFrom<unknown>(true, false, null, [0, 0], [0, 0, 0], [1e5, -1e5]),
      fc.constantFrom<unknown>(
        { frame: 'width' },
        { product: [1e5, 1e5, 1e5] },
        { wave: { size: 1e5, every: 1e-9 } },
      ),
      fc.constant('link' as const),
    );
    const number = fc.oneof(
      fc.constantFrom(0, 1, -1, 2, 60, 1e5, -1e5, 1e-6),
      fc.float({ min: -2000, max: 2000, noNaN: true }),
      fc.integer({ min: 0, max: 40 }),
    );
    /** A value like the one that is there, or any other. */
    const change = fc.tuple(
      fc.nat(),
      fc.oneof({ weight: 1, arbitrary: value }, { weight: 5, arbitrary: fc.constant(LIKE) }),
      number,
      fc.nat(),
    );
    let opened = 0;
    fc.assert(
      fc.property(
        fc.nat({ max: plain.length - 1 }),
        fc.array(change, { minLength: 1, maxLength: 4 }),
        fc.float({ min: 0, max: 1, noNaN: true }),
        (which, changes, at) => {
          const document = changes.reduce<unknown>((held, [place, put, numeric, link]) => {
            const way = ways[which]![place % ways[which]!.length]!;
            const { length } = links[which]!;
            if (put === LIKE) {
              const there = way.reduce<unknown>(
                (data, key) => (data as Record<string, unknown> | null)?.[key],
                held,
              );
              return typeof there === 'number' ? changed(held, way, numeric) : held;
            }
            return changed(held, way, put === 'link' && length > 0 ? links[which]![link % length] : put);
          }, plain[which]);
          let template: Template;
          try {
            template = openDocument(templateKind, document);
          } catch (error) {
            return error instanceof DocumentError;
          }
          opened++;
          const scene = sceneOf(studio, template, EMPTY_FILL);
          return [0, at, 1].every((part) => !strayNumber(scene.evaluate(scene.length * part).ops));
        },
      ),
      { numRuns: 300 },
    );
    expect(opened).toBeGreaterThan(50);
  });
});
