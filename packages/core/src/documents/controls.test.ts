import {
  applyBrand,
  chooseLook,
  graphicOf,
  newReel,
  renameReel,
  resetControl,
  resetSlot,
  setControl,
  setShape,
  setSlot,
  wearBrand,
} from '../edit/reel';
import { templateOf, textLayer, textSlot } from '../testing/studio';
import { openDocument } from '../values/load';
import { brandKind } from './brand';
import { controlFills, faultsOfFill, restingValue } from './controls';
import { EMPTY_FILL, freshPicture } from './fill';

const template = templateOf(
  [{ id: 'a', kind: 'shape', outline: { kind: 'ellipse' }, fill: { colour: { control: 'ink' } } }],
  {
    controls: [
      { id: 'ink', kind: 'colour', name: 'Ink', brand: 'main', default: '#111111' },
      {
        id: 'size',
        kind: 'number',
        name: 'Size',
        min: 10,
        max: 90,
        step: 1,
        default: { wide: 50, tall: 30, square: 40 },
      },
      {
        id: 'side',
        kind: 'choice',
        name: 'Side',
        options: [
          { id: 'left', name: 'Left' },
          { id: 'right', name: 'Right' },
        ],
        default: 'left',
      },
    ],
    looks: [{ id: 'dusk', name: 'Dusk', controls: { ink: '#222222' } }],
  },
);
const wide = { width: 1920, height: 1080 };
const start = newReel(template, { id: 'r', name: 'R', now: '', shape: 'wide' });
const g = 'r-1';
const values = (reel: typeof start) => controlFills(template, graphicOf(reel, g).fill, reel.frame);

describe('control values', () => {
  it('are the user’s, else the look’s, else the default for the frame', () => {
    expect(values(start)).toEqual({ ink: '#111111', size: 50, side: 'left' });
    expect(values(setShape(start, 'tall')).size).toBe(30);
    const dusk = chooseLook(start, g, 'dusk');
    expect(values(dusk).ink).toBe('#222222');
    expect(values(setControl(dusk, g, 'ink', '#333333')).ink).toBe('#333333');
    expect(restingValue(template, 'dusk', template.controls[0]!, wide)).toBe('#222222');
  });

  it('a look replaces what it sets and leaves the rest', () => {
    const mine = setControl(setControl(start, g, 'ink', '#333333'), g, 'size', 80);
    expect(values(chooseLook(mine, g, 'dusk'))).toEqual({ ink: '#222222', size: 80, side: 'left' });
  });

  it('go back one by one', () => {
    expect(values(resetControl(setControl(start, g, 'size', 80), g, 'size')).size).toBe(50);
    expect(graphicOf(resetSlot(setSlot(start, g, 't', 'x'), g, 't'), g).fill.slots).toEqual({});
  });

  it('that do not suit are passed over, not trusted', () => {
    expect(values(setControl(start, g, 'size', 5000)).size).toBe(50);
    expect(values(setControl(start, g, 'side', 'up')).side).toBe('left');
  });

  describe('wear a brand', () => {
    // Version 1 had one logo and one line; it is brought up when it is opened.
    const old = openDocument(brandKind, {
      format: 'freshreel/brand',
      version: 1,
      id: 'b',
      name: 'B',
      colours: { main: '#AA0000', second: '#00AA00', dark: '#000000', light: '#FFFFFF' },
      logo: freshPicture('main'),
      line: 'Our line',
    });

    it('in its colours', () => expect(values(applyBrand(start, g, old)).ink).toBe('#AA0000'));

    it('with its logos by what they stand on, its words and its fonts', () => {
      const logo = (id: string, brand?: string) => ({
        id,
        kind: 'logo',
        name: id,
        scenes: ['all'],
        moment: { at: 0 },
        sample: null,
        ...(brand ? { brand } : {}),
      });
      const branded = templateOf([textLayer('t')], {
        slots: [
          { ...textSlot('t', 'Sample'), brand: 'handle' },
          textSlot('u', 'Own'),
          logo('a'),
          logo('b', 'small'),
        ],
        controls: [{ id: 'face', kind: 'font', name: 'Font', brand: 'heading', default: 'Anton' }],
      });
      const brand = {
        ...old,
        fonts: { heading: 'Syne', text: null },
        lines: { ...old.lines, handle: '@us' },
        logos: { ...old.logos, small: freshPicture('small') },
      };
      const worn = wearBrand(branded, EMPTY_FILL, brand);
      expect(worn.controls).toEqual({ face: 'Syne' });
      expect(worn.slots).toEqual({ t: '@us', a: freshPicture('main'), b: freshPicture('small') });
      expect(old.sounds).toEqual({ logo: null, music: null });
      // What the brand lacks is left as it was; without a small logo the main one serves.
      const plain = wearBrand(branded, EMPTY_FILL, old);
      expect(plain.slots).toEqual({ a: freshPicture('main'), b: freshPicture('main') });
      expect(plain.controls).toEqual({});
      expect(old.lines.line).toBe('Our line');
    });

    it('with its sounds, where a slot says which', () => {
      const sound = (id: string, brand?: string) => ({
        ...{ id, kind: 'sound', name: id, scenes: ['all'], moment: { at: 0 }, sample: null, cue: 'go' },
        ...(brand ? { brand } : {}),
      });
      const heard = templateOf([textLayer('t')], {
        slots: [textSlot('t', 'Own'), sound('hit', 'logo'), sound('bed', 'music'), sound('tick')],
        cues: [{ id: 'go', name: 'Go', at: { at: 0 } }],
      });
      const brand = { ...old, sounds: { logo: { sound: 'our-three-notes', level: -3 }, music: null } };
      // What the brand lacks is left as it is, and what is no brand's stays the template's.
      expect(wearBrand(heard, EMPTY_FILL, brand).slots).toEqual({
        hit: { sound: 'our-three-notes', level: -3 },
      });
    });
  });
});

describe('a fill from outside', () => {
  it('is told every fault it has', () => {
    const faults = faultsOfFill(template, {
      look: 'noon',
      slots: { nome: 'x' },
      controls: { size: 5, ink: 'red', sise: 1 },
    });
    expect(faults).toHaveLength(5);
    expect(faults.join('\n')).toMatch(/no slot "nome"; the slots are none/);
    expect(faults.join('\n')).toMatch(/"size" takes a number from 10 to 90, not 5/);
    expect(faults.join('\n')).toMatch(/no control "sise"; the controls are ink, size, side/);
    expect(faults.join('\n')).toMatch(/no look "noon"; the looks are dusk/);
    expect(faultsOfFill(template, { slots: {}, controls: { size: 20 } })).toEqual([]);
  });
});

it('edits leave the reel before as it was', () => {
  const before = JSON.stringify(start);
  setSlot(chooseLook(setControl(start, g, 'size', 80), g, 'dusk'), g, 'a', 'b');
  expect(JSON.stringify(start)).toBe(before);
  expect(renameReel(start, '  ').name).toBe('R');
});
