import { fileStem, offeredSizes, sequenceName, videoBitrate } from './plan';

describe('output names', () => {
  it('keep letters of any script and nothing a file system minds', () => {
    expect(fileStem('Marit, kite maker!')).toBe('marit-kite-maker');
    expect(fileStem('../../etc/passwd')).toBe('etc-passwd');
    expect(fileStem('مهرجان ٢٠٢٦')).toBe('مهرجان-٢٠٢٦');
    expect(fileStem('///')).toBe('untitled');
  });

  it('number the pictures of a sequence so that they sort', () => {
    const names = [0, 9, 99, 123_455].map((i) => sequenceName('a', i, 200_000));
    expect(names).toEqual(['a_000001.png', 'a_000010.png', 'a_000100.png', 'a_123456.png']);
    expect([...names].sort()).toEqual(names);
  });
});

describe('output sizes', () => {
  it('keep the shape and are even', () => {
    for (const frame of [
      { width: 1920, height: 1080 },
      { width: 1080, height: 1920 },
      { width: 1080, height: 1080 },
    ]) {
      for (const size of offeredSizes(frame)) {
        expect((size.width % 2) + (size.height % 2)).toBe(0);
        expect(Math.abs(size.width / size.height / (frame.width / frame.height) - 1)).toBeLessThan(0.005);
      }
    }
  });

  it('ask for at least two megabits', () => {
    expect(videoBitrate({ width: 320, height: 180 }, { num: 25, den: 1 })).toBe(2_000_000);
    expect(videoBitrate({ width: 1920, height: 1080 }, { num: 60, den: 1 })).toBe(12_441_600);
  });
});
