import type { NodeStudio } from '@fresh-reel/node-host';
import { templateById } from '@fresh-reel/templates';
import { EMPTY_FILL } from '../documents/fill';
import { sceneOf, testStudio } from '../testing/studio';
import { splitColumns, unsplitLines } from './columns';

describe('columns of a line', () => {
  it.each([
    ['Camera | Ines Halloran', ['Camera', 'Ines Halloran']],
    [' | Tobias Wrenfield', ['', 'Tobias Wrenfield']],
    ['Sound\tTobias', ['Sound', 'Tobias']],
    ['Edit - Ines Halloran', ['Edit', 'Ines Halloran']],
    ['Colour – Pell Amari', ['Colour', 'Pell Amari']],
    ['Music: The Marram Reed Band', ['Music', 'The Marram Reed Band']],
    ['Tea ........ Ladies’ Institute', ['Tea', 'Ladies’ Institute']],
    ['Cake . . . . Wim Arkady', ['Cake', 'Wim Arkady']],
    ['Jean-Luc Castellane', ['Jean-Luc Castellane']],
    ['With thanks to:', ['With thanks to:']],
    ['A | B - C: D', ['A', 'B - C: D']],
  ])('%s', (line, columns) => {
    expect(splitColumns(line)).toEqual(columns);
  });

  it('what does not split is known', () => {
    expect(unsplitLines('Camera | Ines\n\nKite makers\nSound: Tobias')).toEqual(['Kite makers']);
  });
});

describe('a list with columns', () => {
  let studio: NodeStudio;
  beforeAll(async () => {
    studio = await testStudio();
  });

  it('keeps its rows in step when an entry wraps in one of them', () => {
    const long =
      'The Old Brackwater Loft and Sailmakers’ Guild of Marram, with all of its apprentices and friends';
    const credits = `Camera | Ines\nMakers | ${long}\nA very long job title that does not fit into its half of the frame at all | Wim\nLast | Dalia`;
    const scene = sceneOf(studio, templateById('credits-roll'), {
      ...EMPTY_FILL,
      slots: { credits },
      hidden: ['heading'],
    });
    const rows = ['roles', 'names'].map((layer) => {
      const letters = scene.evaluate(scene.length / 2, layer).letters!.letters;
      // The highest letter of the last entry tells where its row stands.
      const last = Math.max(...letters.map((l) => l.quad[3]![1]));
      return last;
    });
    expect(Math.abs(rows[0]! - rows[1]!)).toBeLessThan(2);
  });

  it('the first line that shows is never past the last', () => {
    const lines = (first: number) => {
      const scene = sceneOf(studio, templateById('tall-hook'), {
        ...EMPTY_FILL,
        slots: { hook: 'One\nTwo\nThree', kicker: null },
        controls: { first },
      });
      return scene.evaluate(scene.length / 2).regions.filter((r) => r.slot === 'hook').length;
    };
    expect([lines(1), lines(3), lines(9)]).toEqual([3, 1, 1]);
  });
});
