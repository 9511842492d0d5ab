import { contrast, fromOklab, oklabOf } from './colour';

/** Colours that go together, each for its part of a brand. */
export interface Harmony {
  readonly name: string;
  readonly colours: {
    readonly main: string;
    readonly second: string;
    readonly dark: string;
    readonly light: string;
  };
}

/**
 * Degrees of hue from the main colour to the second: the schemes of two colours of the handbooks (common practice),
 * turned in OKLCH, where equal turns look equal.
 */
const TURNS = [
  ['Opposite', 180],
  ['Beside the opposite', 150],
  ['A third round', 120],
  ['Neighbour', 40],
  ['Neighbour the other way', -40],
] as const;

/** Ratios of contrast (WCAG 2.2): of words on a ground at AAA, and of large words and parts at AA. */
const WORDS = 7;
const PARTS = 3;

/** A colour at a lightness, chroma and hue of OKLCH; the nearest that screens show. */
function lch(lightness: number, chroma: number, degrees: number): string {
  const turn = (degrees * Math.PI) / 180;
  return fromOklab([lightness, chroma * Math.cos(turn), chroma * Math.sin(turn)]).toUpperCase();
}

/**
 * Palettes around a main colour, which stays as it is: a second one in harmony with it, and a dark and a light of its own
 * hue on which the others can be told. Words of the dark on the light have a contrast of at least 7; the main colour has
 * one of 3 on one of the two, as has the second.
 * @param main `#RRGGBB`
 */
export function harmonies(main: string): Harmony[] {
  const [lightness, a, b] = oklabOf(main);
  const chroma = Math.hypot(a, b);
  const hue = (Math.atan2(b, a) * 180) / Math.PI;
  const tint = Math.min(chroma, 0.05);
  let [low, high] = [0.3, 0.95];
  let [dark, light] = [lch(low, tint, hue), lch(high, tint / 3, hue)];
  const told = (colour: string) => Math.max(contrast(colour, dark), contrast(colour, light)) >= PARTS;
  while ((contrast(dark, light) < WORDS || !told(main)) && low > 0.1) {
    low -= 0.02;
    high = Math.min(0.99, high + 0.005);
    [dark, light] = [lch(low, tint, hue), lch(high, tint / 3, hue)];
  }
  return TURNS.map(([name, turn]) => {
    // A grey has no hue to turn: its second has some colour.
    const colourful = Math.max(chroma, 0.09);
    // Second to a dark colour is a lighter one, and the other way about, so that they differ without hue too.
    const from = lightness > 0.6 ? lightness - 0.15 : lightness + 0.15;
    let second = lch(from, colourful, hue + turn);
    for (let l = from; !told(second) && l > 0.2; l -= 0.03) second = lch(l, colourful, hue + turn);
    return { name, colours: { main, second, dark, light } };
  });
}
