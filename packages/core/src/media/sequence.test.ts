import { OFFERED_RATES } from '../time/rate';
import { openDocument } from '../values/load';
import { FRAME_SLACK } from './clipTime';
import { likelyClip, numberedRuns, numbersText, runName, sequenceFrame, sequenceKind } from './sequence';

const named = (names: readonly string[]) => names.map((name) => ({ name }));
const numbered = (from: number, to: number, width = 4, stem = 'kite_') =>
  Array.from({ length: to - from + 1 }, (_, i) => `${stem}${String(from + i).padStart(width, '0')}.png`);

describe('numbered pictures', () => {
  test('are found among others and put in the order of their numbers', () => {
    const names = [...numbered(7, 18).reverse(), 'hill.jpg', 'crowd 2.png'];
    const { runs, others } = numberedRuns(named(names));
    expect(runs).toHaveLength(1);
    expect(runs[0]!.files.map((f) => f.name)).toEqual(numbered(7, 18));
    expect(runs[0]).toMatchObject({ stem: 'kite_', extension: '.png', first: 7, last: 18, holes: [] });
    expect(runName(runs[0]!)).toBe('kite_0007-0018.png');
    expect(others.map((f) => f.name)).toEqual(['hill.jpg', 'crowd 2.png']);
  });

  test('may have numbers without leading zeros, which are not put in the order of the alphabet', () => {
    const { runs } = numberedRuns(named(numbered(1, 12, 0, 'f')));
    expect(runs[0]!.files.map((f) => f.name).slice(8)).toEqual(['f9.png', 'f10.png', 'f11.png', 'f12.png']);
  });

  test('of a fixed width are one run across ten and a hundred', () => {
    const { runs, others } = numberedRuns(named(numbered(1, 13, 2, 'pic')));
    expect(runs.map((r) => r.files.length)).toEqual([13]);
    expect(others).toEqual([]);
    expect(numberedRuns(named(numbered(95, 105, 3, 'pic'))).runs[0]!.files).toHaveLength(11);
    // Two numberings of one name are never mixed.
    const both = [...numbered(1, 9, 4), ...numbered(1, 12, 0)];
    expect(
      numberedRuns(named(both))
        .runs.map((r) => r.files.length)
        .sort(),
    ).toEqual([12, 9].sort());
  });

  test('are photos more likely than frames while there are few, or a camera made them', () => {
    const run = (count: number, extension: string) =>
      numberedRuns(named(numbered(1, count).map((n) => n.replace('.png', extension)))).runs[0]!;
    expect([likelyClip(run(13, '.png')), likelyClip(run(48, '.png'))]).toEqual([false, true]);
    expect([likelyClip(run(48, '.jpg')), likelyClip(run(150, '.jpg'))]).toEqual([false, true]);
    expect(likelyClip({ ...run(48, '.png'), holes: [4] })).toBe(false);
  });

  test('that lack some say which', () => {
    const names = numbered(1, 20).filter((n) => !/(04|11|12|13)\.png/.test(n));
    expect(numberedRuns(named(names)).runs[0]!.holes).toEqual([4, 11, 12, 13]);
    expect(numbersText([4, 11, 12, 13])).toBe('4 and 11–13');
    expect(numbersText([1, 3, 5, 7, 9])).toBe('1, 3, 5, 7 and more');
  });

  test('too few, or far apart, stay pictures', () => {
    expect(numberedRuns(named(numbered(1, 7))).runs).toEqual([]);
    const scattered = Array.from({ length: 12 }, (_, i) => `IMG_${String(2000 + i * 5)}.jpg`);
    expect(numberedRuns(named(scattered)).runs).toEqual([]);
  });

  test('of two names are two runs', () => {
    const { runs } = numberedRuns(named([...numbered(1, 9), ...numbered(1, 10, 3, 'sky.')]));
    expect(runs.map(runName)).toEqual(['kite_0001-0009.png', 'sky.001-010.png']);
  });
});

describe('a sequence in time', () => {
  test('shows picture n at the second of its frame n, at every rate offered', () => {
    for (const rate of OFFERED_RATES) {
      const wrong = Array.from({ length: 4000 }, (_, n) => n).filter((n) => {
        const begins = (n * rate.den) / rate.num;
        return (
          sequenceFrame(begins, rate, 4000) !== n ||
          sequenceFrame(begins + FRAME_SLACK, rate, 4000) !== n ||
          sequenceFrame(begins - 2 * FRAME_SLACK, rate, 4000) !== Math.max(0, n - 1)
        );
      });
      expect(wrong).toEqual([]);
    }
  });

  test('keeps its ends', () => {
    expect(sequenceFrame(-1, { num: 25, den: 1 }, 10)).toBe(0);
    expect(sequenceFrame(99, { num: 25, den: 1 }, 10)).toBe(9);
  });

  test('a damaged document says so', () => {
    expect(() =>
      openDocument(sequenceKind, {
        format: 'freshreel/sequence',
        version: 1,
        rate: { num: 25, den: 1 },
        frames: [],
      }),
    ).toThrow(/picture sequence is damaged/);
  });
});
