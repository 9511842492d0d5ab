import fc from 'fast-check';
import { OFFERED_RATES, type Rate, secondsAt } from '../time/rate';
import { clipStretch, clipTime, FRAME_SLACK } from './clipTime';

/** The frame of a clip that shows at a second of it: the last that has begun. */
const frameAt = (times: readonly number[], second: number) => times.findLastIndex((t) => t <= second);

describe('the frame that shows', () => {
  const rates = [
    ['23.976', { num: 24000, den: 1001 }],
    ['25', { num: 25, den: 1 }],
    ['29.97', { num: 30000, den: 1001 }],
    ['50', { num: 50, den: 1 }],
    ['59.94', { num: 60000, den: 1001 }],
  ] as const;
  // Times as files keep them: ISO BMFF in ticks of the rate (exact), Matroska in whole milliseconds.
  const keeps = [
    ['exact times', (t: number) => t],
    ['whole milliseconds', (t: number) => Math.round(t * 1000) / 1000],
  ] as const;

  it.each(rates.flatMap(([name, rate]) => keeps.map(([how, keep]) => [name, how, rate, keep] as const)))(
    'of a clip of %s with %s is frame n at frame n of its own rate, for an hour',
    (_, __, rate, keep) => {
      const count = Math.floor((3600 * rate.num) / rate.den);
      for (let n = 0; n < count; n += n < 2000 ? 1 : 997) {
        const around = [n - 1, n, n + 1].map((i) => keep(secondsAt(i, rate)));
        const second = clipTime(secondsAt(n, rate), {}, 4000, 3600);
        expect(around.findLastIndex((t) => t <= second)).toBe(1);
      }
    },
  );

  it('at another rate is the last one that has begun', () => {
    const clip = Array.from({ length: 100 }, (_, i) => i / 50);
    const shown = Array.from({ length: 10 }, (_, n) => frameAt(clip, clipTime(n / 25, {}, 2, 2)));
    expect(shown).toEqual([0, 2, 4, 6, 8, 10, 12, 14, 16, 18]);
    const slow = Array.from({ length: 25 }, (_, i) => i / 25);
    const doubled = Array.from({ length: 6 }, (_, n) => frameAt(slow, clipTime(n / 50, {}, 1, 1)));
    expect(doubled).toEqual([0, 0, 1, 1, 2, 2]);
  });

  it('of a changing rate follows the file’s own times', () => {
    const times = [0, 0.04, 0.1, 0.35, 0.36];
    expect([0, 0.05, 0.2, 0.349, 0.36].map((t) => frameAt(times, clipTime(t, {}, 0.4, 1)))).toEqual([
      0, 1, 2, 3, 4,
    ]);
  });
});

describe('which frame shows', () => {
  /** The slack as a quotient, and numbers as quotients of integers: nothing is rounded. */
  const SLACK = [10_004_567n, 10_000_000_000n] as const;
  type Quotient = readonly [bigint, bigint];
  const plus = ([a, b]: Quotient, [c, d]: Quotient): Quotient => [a * d + c * b, b * d];
  const times = ([a, b]: Quotient, [c, d]: Quotient): Quotient => [a * c, b * d];
  const whole = ([a, b]: Quotient) => a / b;
  /** What is left of a quotient after whole rounds. */
  const rest = (q: Quotient, round: Quotient): Quotient => {
    const rounds = whole(times(q, [round[1], round[0]]));
    return plus(q, times([-rounds, 1n], round));
  };

  it('is the one that quotients tell, whatever is typed, at any rate, speed and round: no second lies on an edge', () => {
    const rates = fc.constantFrom<Rate>(...OFFERED_RATES, { num: 240, den: 1 }, { num: 15, den: 1 });
    const typed = fc.record({
      film: rates,
      clip: rates,
      frame: fc.integer({ min: 0, max: 500_000 }),
      // Milliseconds, as numbers are typed; and percents.
      in: fc.integer({ min: 0, max: 4000 }),
      length: fc.integer({ min: 40, max: 3000 }),
      speed: fc.integer({ min: 5, max: 400 }),
      loops: fc.boolean(),
    });
    fc.assert(
      fc.property(typed, ({ film, clip, frame, in: begins, length, speed, loops }) => {
        const [from, lasts]: Quotient[] = [
          [BigInt(begins), 1000n],
          [BigInt(length), 1000n],
        ];
        const played = times([BigInt(frame * film.den), BigInt(film.num)], [BigInt(speed), 100n]);
        // Beyond the end the last frame stays, which is another matter.
        fc.pre(loops || Number(played[0]) / Number(played[1]) < length / 1000 - 0.003);
        const past = loops ? rest(played, lasts!) : played;
        fc.pre(Number(past[0]) / Number(past[1]) < length / 1000 - 0.003);
        const exact = plus(plus(from!, past), SLACK);
        const told = whole(times(exact, [BigInt(clip.num), BigInt(clip.den)]));
        const fill = { in: begins / 1000, length: length / 1000, speed: speed / 100 } as const;
        const at = clipTime(secondsAt(frame, film), loops ? { ...fill, end: 'loop' } : fill, 1e5, 1e5);
        // By a frame's own time, and by its number.
        const number = Number(told);
        expect(secondsAt(number, clip)).toBeLessThan(at);
        expect(secondsAt(number + 1, clip)).toBeGreaterThan(at);
        // Off by as much as ffmpeg's clock is, it is the same frame.
        expect(Math.floor(((at - 2e-9) * clip.num) / clip.den)).toBe(number);
        expect(Math.floor(((at + 2e-9) * clip.num) / clip.den)).toBe(number);
      }),
      { numRuns: 5000 },
    );
  });
});

describe('a clip that is over before its slot', () => {
  const tenths = Array.from({ length: 20 }, (_, i) => i / 10);
  const at = (t: number, clip: object) => frameAt(tenths, clipTime(t, clip, 2, 8));

  it('holds its last frame, that of the out point being gone', () => {
    expect(at(5, {})).toBe(19);
    expect(at(5, { in: 0.5, length: 0.5 })).toBe(9);
  });
  it('never shows the frame after its out point, however near it is', () => {
    for (const end of ['hold', 'loop', 'stretch'] as const) {
      for (let i = 0; i < 3000; i++) {
        const t = 0.99 + i / 100_000;
        expect(at(t, { in: 0.5, length: 1, end })).not.toBe(15);
      }
    }
  });
  it('begins again', () => {
    expect([0, 0.5, 1, 1.5, 7.2].map((t) => at(t, { in: 0.5, length: 1, end: 'loop' }))).toEqual([
      5, 10, 5, 10, 7,
    ]);
  });
  it('plays slower, so that it lasts', () => {
    expect(clipStretch({ end: 'stretch' }, 2, 8).speed).toBe(0.25);
    expect([0, 4, 7.99].map((t) => at(t, { end: 'stretch' }))).toEqual([0, 10, 19]);
    // One that is long enough is left alone.
    expect(clipStretch({ end: 'stretch', speed: 0.1 }, 2, 8).speed).toBe(0.1);
  });
  it('plays faster and from its in point', () => expect(at(0.5, { in: 0.4, speed: 2 })).toBe(14));
  it('stands still', () => expect([0, 3].map((t) => at(t, { freeze: 1.2 }))).toEqual([12, 12]));
  it('before its slot comes shows its first frame', () => expect(at(-3, { in: 0.3 })).toBe(3));
  it('an in point past the end is the end', () => {
    expect(clipTime(0, { in: 9 }, 2, 8)).toBeLessThanOrEqual(2 + FRAME_SLACK);
    expect(at(0, { in: 9 })).toBe(19);
  });
});
