import { segments } from './segments';

/** Source: ECMA-402 `Intl.Segmenter` over the whole text at once. */
const whole = (text: string, granularity: 'grapheme' | 'word') =>
  [...new Intl.Segmenter('en', { granularity }).segment(text)].map(({ index, segment }) => ({
    index,
    segment,
  }));

const FAMILY = '👩‍👩‍👧‍👦';
const LONG = {
  plain: 'The kites go up over Marram. '.repeat(200),
  flags: '🇳🇱🇫🇷'.repeat(400),
  families: FAMILY.repeat(300),
  marks: `e${'\u0301'.repeat(5000)}x`,
  hindi: 'पतंग उत्सव क्षण '.repeat(150),
  thai: 'เทศกาลว่าวบนเนินเขา '.repeat(120),
  numbers: "3.14, can't ".repeat(300),
};

describe('segments of long texts are those of the host over the whole text', () => {
  it.each(Object.entries(LONG))('%s', (_, text) => {
    for (const granularity of ['grapheme', 'word'] as const) {
      const found = segments(text, granularity).map(({ index, segment }) => ({ index, segment }));
      expect(found).toEqual(whole(text, granularity));
    }
  });

  it('an empty text has none', () => expect(segments('', 'grapheme')).toEqual([]));
});
