import { z } from 'zod';
import { colourSchema } from '../colour/colour';
import { frameShape, type Moment, property, type Value, valueAt } from './property';

const moment = (
  time: number,
  controls: Moment['controls'] = {},
  frame = { width: 1920, height: 1080 },
): Moment => ({
  clock: { in: 60, hold: 100, out: 40, pace: 1 },
  time,
  controls,
  frame,
});
const numbers = property(z.number());
const at = (p: unknown, m: Moment) => valueAt(numbers.parse(p), m);

describe('keyframes', () => {
  const p = {
    keys: [
      { at: 0, value: 0, ease: 'linear' },
      { at: 10, value: 100, ease: 'linear' },
      { at: 0, of: 'out', value: 50, ease: 'linear' },
      { at: 20, of: 'out', value: 0 },
    ],
  };

  it('hold before the first and after the last, and run between', () => {
    expect([-5, 0, 5, 10, 170, 190, 500].map((t) => at(p, moment(t)))).toEqual([0, 0, 50, 100, 25, 0, 0]);
  });

  it('of the exit move with the hold', () => {
    const longer = { ...moment(260), clock: { in: 60, hold: 200, out: 40, pace: 1 } };
    expect(at(p, longer)).toBe(50);
  });

  it('mix colours evenly and points part by part', () => {
    const colours = property(colourSchema);
    expect(
      valueAt(
        colours.parse({
          keys: [
            { at: 0, value: '#000000', ease: 'linear' },
            { at: 2, value: '#ffffff' },
          ],
        }),
        moment(1),
      ),
    ).toBe('#636363');
    const points = property(z.tuple([z.number(), z.number()]));
    expect(
      valueAt(
        points.parse({
          keys: [
            { at: 0, value: [0, 10], ease: 'linear' },
            { at: 2, value: [4, 20] },
          ],
        }),
        moment(1),
      ),
    ).toEqual([2, 15]);
  });
});

describe('links to controls', () => {
  const controls = { size: 80, on: true, side: 'left', plate: '#FBF8F2', spot: [0.25, 0.5] } satisfies Record<
    string,
    Value
  >;
  const m = moment(0, controls);

  it('scale, offset, invert', () => {
    expect(at({ control: 'size', scale: 0.01 }, m)).toBeCloseTo(0.8);
    expect(at({ control: 'size', scale: 2, offset: -10 }, m)).toBe(150);
    expect(at({ control: 'size', invert: true }, m)).toBe(-79);
    expect(valueAt(property(z.boolean()).parse({ control: 'on', invert: true }), m)).toBe(false);
  });

  it('pick from a table, mix, fade and keep readable', () => {
    expect(at({ control: 'side', table: { left: 1, right: { control: 'size' } } }, m)).toBe(1);
    const colour = property(colourSchema);
    expect(valueAt(colour.parse({ control: 'plate', readable: ['#16202B', '#FFFFFF'] }), m)).toBe('#16202B');
    expect(valueAt(colour.parse({ control: 'plate', mix: { with: '#000000', amount: 1 } }), m)).toBe(
      '#000000',
    );
    expect(valueAt(colour.parse({ control: 'plate', alpha: 0.5 }), m).toLowerCase()).toBe('#fbf8f280');
  });

  it('work on points element by element', () => {
    const points = property(z.tuple([z.number(), z.number()]));
    expect(valueAt(points.parse({ control: 'spot', scale: 100, offset: 1 }), m)).toEqual([26, 51]);
  });

  it('follow a control that is itself keyed', () => {
    const keyed = {
      size: {
        keys: [
          { at: 0, of: 'in' as const, value: 0, ease: 'linear' as const },
          { at: 10, of: 'in' as const, value: 10 },
        ],
      },
    };
    expect(at({ control: 'size' }, moment(5, keyed))).toBe(5);
  });

  it('name a control that is not there, or a value without an entry', () => {
    expect(() => at({ control: 'gone' }, m)).toThrow('"gone"');
    expect(() => at({ control: 'side', table: { right: 1 } }, m)).toThrow('no entry for "left"');
  });
});

describe('other sources', () => {
  it('the frame, its shape, parts, sums, products and waves', () => {
    expect(at({ frame: 'short', scale: 0.5 }, moment(0))).toBe(540);
    const byShape = { shape: { wide: 1, tall: 2, square: 3 } };
    expect(at(byShape, moment(0, {}, { width: 1080, height: 1920 }))).toBe(2);
    expect(at(byShape, moment(0, {}, { width: 1080, height: 1080 }))).toBe(3);
    expect(at({ sum: [1, { product: [2, 3] }] }, moment(0))).toBe(7);
    expect(at({ wave: { size: 10, every: 40, middle: 5 } }, moment(10))).toBeCloseTo(15);
    const points = property(z.tuple([z.number(), z.number()]));
    expect(valueAt(points.parse({ parts: [{ frame: 'width' }, 7] }), moment(0))).toEqual([1920, 7]);
  });

  it('tells near-square frames as square', () => {
    expect(
      [
        [1000, 950],
        [1080, 1350],
        [1920, 1080],
      ].map(([width, height]) => frameShape({ width: width!, height: height! })),
    ).toEqual(['square', 'tall', 'wide']);
  });
});
