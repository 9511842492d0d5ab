import { clipWords } from './clipWords';

describe('words about a clip and the time it is seen', () => {
  it.each([
    [6.8, 8, undefined, "In view for 6.8 s; of the clip's 8.0 s the first 6.8 s are seen."],
    [6.8, 3.5, undefined, 'In view for 6.8 s; the clip plays for 3.5 s, then its last frame stays.'],
    [6.8, 3.5, 'loop', 'In view for 6.8 s; the clip plays for 3.5 s and begins again.'],
    [6.8, 6.8, 'stretch', 'In view for 6.8 s; the clip plays all the time.'],
    [6.8, 6.83, undefined, 'In view for 6.8 s; the clip plays all the time.'],
  ] as const)('%s s seen, %s s long, %s', (shows, lasts, end, words) => {
    expect(clipWords(shows, lasts, end)).toBe(words);
  });
});
