/** Font files that ship with the app, all open licences, as registry packages hold them. */
export interface ShippedFont {
  readonly family: string;
  readonly weight: number;
  /** What it is good for, as the font list groups it. */
  readonly group: FontGroup;
  /** Weights a variable font takes; `weight` is then the one it rests at. */
  readonly weights?: readonly [least: number, most: number];
  /** Its other axes, by tag. */
  readonly axes?: Readonly<Record<string, FontAxisRange>>;
  /** File name under which the app serves it. */
  readonly file: string;
  /** Path within the installed packages. */
  readonly source: string;
  /** Scripts (ISO 15924, `Latx` for Latin beyond western Europe, or `Emoji`) it stands in for where a template's own font lacks them. */
  readonly standsInFor?: readonly (
    | 'Latn'
    | 'Latx'
    | 'Grek'
    | 'Cyrl'
    | 'Zsym'
    | 'Arab'
    | 'Hebr'
    | 'Deva'
    | 'Thai'
    | 'Hani'
    | 'Kana'
    | 'Hang'
    | 'Emoji'
  )[];
}

/** An axis of a variable font, by what it does. */
export interface FontAxisRange {
  readonly name: string;
  readonly min: number;
  readonly max: number;
  readonly default: number;
}

export type FontGroup = 'display' | 'text' | 'hand' | 'mono' | 'scripts';

const NAMES: Readonly<Record<number, string>> = {
  200: '200ExtraLight',
  300: '300Light',
  400: '400Regular',
  500: '500Medium',
  600: '600SemiBold',
  700: '700Bold',
  800: '800ExtraBold',
  900: '900Black',
};

function family(
  group: FontGroup,
  name: string,
  folder: string,
  weights: readonly number[],
  standsInFor?: ShippedFont['standsInFor'],
): ShippedFont[] {
  return weights.map((weight) => {
    const file = `${name.replaceAll(' ', '')}_${NAMES[weight]}.ttf`;
    return {
      family: name,
      weight,
      group,
      file,
      source: `@expo-google-fonts/${folder}/${NAMES[weight]}/${file}`,
      ...(standsInFor ? { standsInFor } : {}),
    };
  });
}

export const FONTS: readonly ShippedFont[] = [
  ...family('display', 'Bricolage Grotesque', 'bricolage-grotesque', [400, 500, 600, 700, 800]),
  ...family('display', 'Anton', 'anton', [400]),
  ...family('display', 'Bebas Neue', 'bebas-neue', [400]),
  ...family('display', 'Oswald', 'oswald', [300, 400, 600, 700]),
  ...family('display', 'Unbounded', 'unbounded', [300, 500, 700, 900]),
  ...family('display', 'Syne', 'syne', [500, 700, 800]),
  ...family('display', 'Abril Fatface', 'abril-fatface', [400]),
  ...family('display', 'Playfair Display', 'playfair-display', [400, 600, 800, 900]),
  ...family('display', 'Instrument Serif', 'instrument-serif', [400]),
  ...family('display', 'Cinzel', 'cinzel', [400, 700, 900]),
  ...family('display', 'Poiret One', 'poiret-one', [400]),
  ...family('display', 'Shrikhand', 'shrikhand', [400]),
  ...family('display', 'Rubik Mono One', 'rubik-mono-one', [400]),
  ...family('display', 'Archivo', 'archivo', [400, 600, 800, 900]),
  ...family('display', 'Fredoka', 'fredoka', [400, 600, 700]),
  ...family('display', 'Teko', 'teko', [400, 600, 700]),
  ...family('display', 'DM Serif Display', 'dm-serif-display', [400]),
  ...family('display', 'Young Serif', 'young-serif', [400]),
  ...family('text', 'Newsreader', 'newsreader', [300, 400, 600]),
  ...family('text', 'Cormorant Garamond', 'cormorant-garamond', [400, 600, 700]),
  ...family('text', 'Space Grotesk', 'space-grotesk', [400, 500, 700]),
  ...family('text', 'Barlow Condensed', 'barlow-condensed', [400, 600, 700]),
  ...family('text', 'Manrope', 'manrope', [300, 400, 600, 800]),
  ...family('text', 'Josefin Sans', 'josefin-sans', [300, 400, 600]),
  ...family('text', 'Sora', 'sora', [300, 400, 600, 800]),
  ...family('text', 'Zilla Slab', 'zilla-slab', [400, 600, 700]),
  ...family('text', 'Figtree', 'figtree', [300, 400, 500, 600, 700, 800, 900], ['Latn']),
  ...family('text', 'Work Sans', 'work-sans', [300, 400, 500, 600, 700, 800]),
  ...family('text', 'Karla', 'karla', [300, 400, 500, 700, 800]),
  ...family('text', 'Fraunces', 'fraunces', [300, 400, 600, 700, 900]),
  ...family('text', 'Source Serif 4', 'source-serif-4', [300, 400, 600, 700]),
  ...family('text', 'Lora', 'lora', [400, 500, 600, 700]),
  ...family('hand', 'Caveat', 'caveat', [400, 500, 700]),
  ...family('hand', 'Kalam', 'kalam', [300, 400, 700]),
  ...family('hand', 'Caveat Brush', 'caveat-brush', [400]),
  ...family('hand', 'Pacifico', 'pacifico', [400]),
  ...family('hand', 'Gochi Hand', 'gochi-hand', [400]),
  ...family('mono', 'JetBrains Mono', 'jetbrains-mono', [300, 400, 600, 800]),
  ...family('mono', 'Space Mono', 'space-mono', [400, 700]),
  ...family('mono', 'Courier Prime', 'courier-prime', [400, 700]),
  ...family('mono', 'VT323', 'vt323', [400]),
  ...family('mono', 'Martian Mono', 'martian-mono', [300, 400, 700]),
  {
    family: 'Recursive',
    weight: 400,
    weights: [300, 1000],
    axes: {
      CASL: { name: 'Casual', min: 0, max: 1, default: 0 },
      MONO: { name: 'Monospace', min: 0, max: 1, default: 0 },
      slnt: { name: 'Slant', min: -15, max: 0, default: 0 },
    },
    group: 'mono',
    file: 'Recursive.ttf',
    source: '@fontsource-variable/recursive/files/recursive-latin-full-normal.woff2',
  },
  ...family('scripts', 'Noto Sans', 'noto-sans', [400, 700], ['Latx', 'Grek', 'Cyrl']),
  ...family('scripts', 'Noto Sans Arabic', 'noto-sans-arabic', [400, 700], ['Arab']),
  ...family('scripts', 'Noto Sans Hebrew', 'noto-sans-hebrew', [400, 700], ['Hebr']),
  ...family('scripts', 'Noto Sans Devanagari', 'noto-sans-devanagari', [400, 700], ['Deva']),
  ...family('scripts', 'Noto Sans Thai', 'noto-sans-thai', [400, 700], ['Thai']),
  ...family('scripts', 'Noto Sans SC', 'noto-sans-sc', [400, 700], ['Hani']),
  ...family('scripts', 'Noto Sans JP', 'noto-sans-jp', [400, 700], ['Kana']),
  ...family('scripts', 'Noto Sans KR', 'noto-sans-kr', [400, 700], ['Hang']),
  ...family('scripts', 'Noto Sans Symbols', 'noto-sans-symbols', [400, 700], ['Zsym']),
  ...family('scripts', 'Noto Sans Symbols 2', 'noto-sans-symbols-2', [400], ['Zsym']),
  ...family('scripts', 'Noto Color Emoji', 'noto-color-emoji', [400], ['Emoji']),
];

/** A family as the font list shows it, with the weights it has. */
export interface FontFamily {
  readonly family: string;
  readonly group: FontGroup;
  readonly weights: readonly number[];
  readonly axes: Readonly<Record<string, FontAxisRange>>;
}

/** The shipped families, in the order of the catalogue; the colour font is not one to set words in. */
export const FAMILIES: readonly FontFamily[] = [...new Set(FONTS.map((f) => f.family))]
  .filter((name) => !['Noto Color Emoji', 'Noto Sans Symbols', 'Noto Sans Symbols 2'].includes(name))
  .map((name) => {
    const fonts = FONTS.filter((f) => f.family === name);
    const [first] = fonts;
    const { weights } = first!;
    return {
      family: name,
      group: first!.group,
      axes: first!.axes ?? {},
      weights: weights ? [weights[0], 400, 500, 600, 700, 800, weights[1]] : fonts.map((f) => f.weight),
    };
  });

/** What a graphic needs of fonts, as the engine tells it. */
export interface Needs {
  readonly faces: readonly { readonly family: string; readonly weight: number }[];
  readonly scripts: readonly string[];
}

/** The shipped files a graphic needs: each face asked for, or the nearest weight of its family, and the stand-ins. */
export function fontsFor(needs: Needs): ShippedFont[] {
  const chosen = new Set<ShippedFont>();
  const nearest = (fonts: readonly ShippedFont[], weight: number) =>
    [...fonts].sort((a, b) => Math.abs(a.weight - weight) - Math.abs(b.weight - weight))[0];
  const heaviest = Math.max(400, ...needs.faces.map((f) => f.weight));
  const lightest = Math.min(700, ...needs.faces.map((f) => f.weight));
  for (const { family: name, weight } of needs.faces) {
    const own =
      nearest(
        FONTS.filter((f) => f.family === name),
        weight,
      ) ??
      nearest(
        FONTS.filter((f) => f.family === 'Figtree'),
        weight,
      );
    if (own) chosen.add(own);
  }
  for (const script of needs.scripts) {
    const able = FONTS.filter((f) => (f.standsInFor as readonly string[] | undefined)?.includes(script));
    for (const name of new Set(able.map((f) => f.family))) {
      for (const weight of script === 'Latn' ? [400] : [lightest, heaviest]) {
        const found = nearest(
          able.filter((f) => f.family === name),
          weight,
        );
        if (found) chosen.add(found);
      }
    }
  }
  return [...chosen];
}
