import { convertFrames, OFFERED_RATES, parseRate, rateLabel, rateText, secondsAt } from './rate';

describe('rates', () => {
  it('are exact fractions under the names editors use', () => {
    expect(OFFERED_RATES.map(rateLabel)).toEqual(['23.976', '24', '25', '29.97', '30', '50', '59.94', '60']);
    expect(OFFERED_RATES.map((r) => parseRate(rateText(r)))).toEqual(OFFERED_RATES);
  });

  it('do not drift: an hour of 59.94 ends on its frame', () => {
    const rate = { num: 60000, den: 1001 };
    expect(secondsAt(215_784, rate)).toBeCloseTo(3599.9964, 6);
    expect(convertFrames(60_000, rate, { num: 30000, den: 1001 })).toBe(30_000);
    expect(convertFrames(1000, { num: 24000, den: 1001 }, { num: 24, den: 1 })).toBeCloseTo(1001, 12);
  });

  it.each(['', 'fast', '0', '-25', '25/0', '1000', '30.5'])('refuses "%s" with what to write', (text) => {
    expect(() => parseRate(text)).toThrow('Write a whole number such as 25');
  });
});
