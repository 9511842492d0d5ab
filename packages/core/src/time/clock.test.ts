import { actualTime, type Clock, localTime, markTime, stretches } from './clock';

const clock: Clock = { in: 60, hold: 100, out: 40, pace: 2 };

describe('the clock of a graphic', () => {
  it('plays the in stretch at its pace and the rest one to one', () => {
    expect(stretches(clock)).toEqual({ holdStart: 30, outStart: 130, end: 170 });
    expect(localTime(clock, 15)).toBe(30);
    expect(localTime(clock, 30)).toBe(60);
    expect(localTime(clock, 31)).toBe(61);
  });

  it('goes there and back', () => {
    for (let t = -10; t < 190; t += 3.3) expect(actualTime(clock, localTime(clock, t))).toBeCloseTo(t, 10);
  });

  it('moves only what belongs to the exit when the hold grows', () => {
    const longer = { ...clock, hold: 400 };
    expect(markTime(longer, { at: 12, of: 'in' })).toBe(markTime(clock, { at: 12, of: 'in' }));
    expect(markTime(longer, { at: 5, of: 'hold' })).toBe(markTime(clock, { at: 5, of: 'hold' }));
    expect(markTime(longer, { at: 8, of: 'out' }) - markTime(clock, { at: 8, of: 'out' })).toBe(300);
  });
});
