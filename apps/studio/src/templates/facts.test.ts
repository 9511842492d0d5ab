import { TEMPLATES, templateById } from '@fresh-reel/templates';
import { matches, takes } from './facts';
import { slotNumber } from './slots';

describe('templates', () => {
  it('answer a search by name, use and mood', () => {
    const found = (words: string) => TEMPLATES.filter((t) => matches(t, words)).map((t) => t.id);
    expect(found('lower')).toEqual(['name-strap']);
    expect(found('bold opener')).toEqual(['four-corners']);
    expect(found('zzz')).toEqual([]);
    expect(found('')).toHaveLength(TEMPLATES.length);
    expect(takes(templateById('four-corners'))).toBe('4 texts, 3 pictures');
    expect(slotNumber(templateById('name-strap'), 'badge')).toBe(3);
  });
});
