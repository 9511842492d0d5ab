import { readNumber } from './sums';

it.each([
  ['120/2', 60],
  ['3*40+8', 128],
  ['(1+2)*3', 9],
  ['-4', -4],
  ['2 - -3', 5],
  ['1,5', 1.5],
  ['  42 ', 42],
  ['7.25', 7.25],
])('%s is %d', (text, value) => expect(readNumber(text)).toBeCloseTo(value, 9));

it.each(['', 'abc', '1/0', '2+', 'alert(1)', 'this.x', '"5"', '1 2', '[1]', '2>1'])(
  '%s is no number',
  (text) => expect(readNumber(text)).toBeUndefined(),
);
