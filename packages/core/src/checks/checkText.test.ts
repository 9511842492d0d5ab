import { checkText } from './checkText';

describe('checks', () => {
  it('say what is so and what to do', () => {
    expect(checkText({ kind: 'shrunk', slot: 'a', percent: 82 }).text).toBe(
      'Your words are longer than their place. Shrunk to 82%.',
    );
    expect(checkText({ kind: 'cut', slot: 'a', words: 'w'.repeat(90) }).text).toMatch(
      /cut: “w{57}…”\. Use fewer words/,
    );
    expect(checkText({ kind: 'runs-out', slot: '', seconds: 2.04 }).text).toMatch(/over 2\.0 s before/);
    for (const kind of ['missing-picture', 'outside-safe'] as const)
      expect(checkText({ kind, slot: 'a' }).kind).toBe('watch');
  });
});
