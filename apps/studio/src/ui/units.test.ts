import { bytesText, secondsText, waitText } from './units';

describe('words', () => {
  it('of lengths and sizes are an editor’s own', () => {
    expect([secondsText(3.54), secondsText(12.4), waitText(0.4), waitText(45), waitText(200)]).toEqual([
      '3.5 s',
      '12 s',
      'about a second',
      'about 45 seconds',
      'about 3 minutes',
    ]);
    expect([bytesText(900), bytesText(148_124), bytesText(5_170_975)]).toEqual([
      '900 bytes',
      '148 kB',
      '5.2 MB',
    ]);
  });
});
