import { templateById } from '@fresh-reel/templates';
import { takes } from './facts';
import { slotNumber } from './slots';

describe('templates', () => {
  it('say what they take, and number their slots', () => {
    expect(takes(templateById('four-corners'))).toBe('4 texts, 3 pictures');
    expect(slotNumber(templateById('name-strap'), 'badge')).toBe(3);
  });
});
