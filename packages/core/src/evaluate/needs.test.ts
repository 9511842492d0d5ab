import { EMPTY_FILL, type Fill } from '../documents/fill';
import { templateOf, textLayer, textSlot } from '../testing/studio';
import { fontNeeds } from './needs';

const controls = [
  { id: 'face', kind: 'font', name: 'Face', default: { wide: 'Anton', tall: 'Oswald', square: 'Anton' } },
  { id: 'heavy', kind: 'number', name: 'Heavy', min: 0, max: 1000, step: 1, default: 600 },
  {
    ...{ id: 'way', kind: 'choice', name: 'Way', default: 'a' },
    options: [
      { id: 'a', name: 'A' },
      { id: 'b', name: 'B' },
    ],
  },
];
const facesOf = (part: Record<string, unknown>, fill: Partial<Fill> = {}) => {
  const template = templateOf([textLayer('t', part)], {
    slots: [textSlot('t', 'Words')],
    controls,
    looks: [{ id: 'serif', name: 'Serif', controls: { face: 'Fraunces', heavy: 900 } }],
  });
  return fontNeeds(template, { ...EMPTY_FILL, ...fill })
    .faces.map((f) => `${f.family} ${f.weight}`)
    .sort();
};

describe('the faces a text can come to', () => {
  it('by controls, in any frame and any look', () => {
    const linked = { family: { control: 'face' }, weight: { control: 'heavy' } };
    expect(facesOf(linked)).toEqual(
      ['Anton', 'Fraunces', 'Oswald'].flatMap((f) => [`${f} 600`, `${f} 900`]).sort(),
    );
    expect(facesOf(linked, { controls: { face: 'Lora', heavy: 500 } })).toEqual(['Lora 500']);
    const keys = [
      { at: 0, of: 'in' as const, value: 300 },
      { at: 0, of: 'out' as const, value: 700 },
    ];
    expect(facesOf({ ...linked, family: 'Lora' }, { controls: { heavy: { keys } } })).toEqual([
      'Lora 300',
      'Lora 700',
    ]);
  });

  it('by shapes, tables and sums, one within the other', () => {
    const family = {
      shape: {
        wide: { control: 'face' },
        tall: { control: 'way', table: { a: 'Syne', b: { control: 'face' } } },
        square: 'Karla',
      },
    };
    const own = { controls: { face: 'Lora', heavy: 400 } };
    expect(facesOf({ family, weight: { sum: [{ control: 'heavy' }, 100] } }, own)).toEqual([
      'Karla 500',
      'Lora 500',
      'Syne 500',
    ]);
    expect(facesOf({ family: 'Lora', weight: { control: 'heavy', scale: 2, offset: -100 } }, own)).toEqual([
      'Lora 700',
    ]);
  });
});
