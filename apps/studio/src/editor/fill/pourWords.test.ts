import { EMPTY_FILL, freshPicture } from '@fresh-reel/core';
import { templateById } from '@fresh-reel/templates';
import { againText } from '../../media/import/takenWords';
import { pouredText, samplesText } from './pourWords';

const files = (count: number) => Array.from({ length: count }, (_, i) => `p${i + 1}.jpg`);

describe('where files went', () => {
  it('counts those in slots and names those that are left over', () => {
    expect(pouredText(13, files(1))).toBeUndefined();
    expect(pouredText(13, files(4))).toBe('4 files are in this slot and those after it.');
    expect(pouredText(13, files(15))).toBe(
      'The first 13 are in this slot and those after it. 2 more are on the Shelf: p14.jpg, p15.jpg.',
    );
    expect(pouredText(1, files(6))).toBe(
      'The first is in this slot. 5 more are on the Shelf: p2.jpg, p3.jpg, p4.jpg and 2 more.',
    );
  });

  it('says what still shows samples', () => {
    const template = templateById('four-corners');
    const own = { slots: { 'photo-1': freshPicture('sha256:a') } };
    expect(samplesText(template, EMPTY_FILL)).toBeUndefined();
    expect(samplesText(template, { ...EMPTY_FILL, ...own })).toBe(
      '1 picture of 3 is yours; 2 still show samples.',
    );
    expect(samplesText(template, { ...EMPTY_FILL, ...own, hidden: ['photo-3'] })).toBe(
      '1 picture of 2 is yours; Photo 2 still shows its sample.',
    );
  });

  it('says that files were there already', () => {
    expect(againText([])).toBeUndefined();
    expect(againText(['a.jpg'])).toMatch(/“a.jpg” was on the Shelf already/);
    expect(againText(['a.jpg', 'b.jpg'])).toMatch(/^2 of them/);
  });
});
