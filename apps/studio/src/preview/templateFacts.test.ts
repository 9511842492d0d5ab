import { listedOf } from '@fresh-reel/core';
import { allTemplates, templateById } from '@fresh-reel/templates';
import { slotTag } from '../templates/slots';
import { soundsOf, takes } from './templateFacts';

describe('templates', () => {
  it('say what they take, and number their slots', () => {
    expect(takes(listedOf(templateById('four-corners')))).toBe('4 texts, 3 pictures');
    expect(slotTag(templateById('name-strap'), 'badge')).toBe('3');
  });

  it('tag slots so that number and name agree, and no two alike', () => {
    for (const template of allTemplates()) {
      const tags = template.slots.map((s) => slotTag(template, s.id));
      expect(new Set(tags).size).toBe(tags.length);
      for (const [i, { name }] of template.slots.entries()) {
        const number = /\d+$/.exec(name)?.[0];
        if (number) expect(tags[i]).toBe(`${name[0]}${number}`);
      }
    }
  });
});

it('sounds of a template are told with when they are heard', () => {
  const sounds = soundsOf(templateById('four-corners'));
  expect(sounds.length).toBeGreaterThan(1);
  expect(sounds.some(({ when }) => when === 'all along')).toBe(true);
  for (const { when } of sounds) expect(when).toMatch(/^(all along|at [\d.]+ s(, .+)?)$/);
});
