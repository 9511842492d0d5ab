import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { FONTS, fontsFor } from '@fresh-reel/fonts';
import { unpackFont } from '@fresh-reel/fonts/unpack';
import { readFontFacts } from './fontFacts';
import { FontBook } from './fonts';
import { type HarfBuzz, loadHarfBuzz } from './harfbuzz';

const require = createRequire(__filename);
let hb: HarfBuzz;
beforeAll(async () => {
  hb = await loadHarfBuzz(readFileSync(require.resolve('harfbuzzjs/hb.wasm')));
});
const shipped = (family: string) =>
  readFileSync(require.resolve(FONTS.find((f) => f.family === family)!.source));

describe('a font file', () => {
  it('says its family, weight and axes', async () => {
    expect(readFontFacts(hb, shipped('Caveat'), 'x.ttf')).toMatchObject({
      family: 'Caveat',
      weight: 400,
      axes: {},
    });
    const bold = readFileSync(
      require.resolve(FONTS.find((f) => f.family === 'Lora' && f.weight === 700)!.source),
    );
    expect(readFontFacts(hb, bold, 'x.ttf')).toMatchObject({ family: 'Lora', weight: 700 });
    const variable = await unpackFont(shipped('Recursive'));
    const facts = readFontFacts(hb, variable, 'x.woff2');
    expect(Object.keys(facts.axes).sort()).toEqual(['CASL', 'CRSV', 'MONO', 'slnt', 'wght']);
    expect(facts.axes.wght).toEqual({ min: 300, default: 300, max: 1000 });
  });

  it('that is none, broken or cut short is told, with what to do', async () => {
    const font = shipped('Caveat');
    expect(() => readFontFacts(hb, Buffer.from('hello there'), 'a.ttf')).toThrow(
      /"a.ttf" is not a font. Use a TTF/,
    );
    expect(() => readFontFacts(hb, font.subarray(0, 900), 'cut.ttf')).toThrow(/"cut.ttf" is a damaged font/);
    await expect(unpackFont(Buffer.from('wOFFxxxx'))).rejects.toThrow(/first kind/);
    await expect(unpackFont(Buffer.from('wOF2 not really'))).rejects.toThrow(/broken/);
    await expect(unpackFont(font)).resolves.toBe(font);
  });
});

describe('a variable font', () => {
  it('follows its axes, and makes a face once', async () => {
    const book = new FontBook(hb);
    const font = FONTS.find((f) => f.family === 'Recursive')!;
    book.add(font, await unpackFont(shipped('Recursive')));
    const width = (weight: number, axes = {}) => {
      const face = book.match('Recursive', weight, axes);
      return face.shape('Wind', 'ltr').reduce((sum, g) => sum + face.ems(g.ax), 0);
    };
    // All its weights take the same room; the stroke is what grows.
    const stroke = (weight: number) => {
      const face = book.match('Recursive', weight);
      const { left, right } = face.ink(face.shape('|', 'ltr')[0]!.g);
      return right - left;
    };
    expect(stroke(900)).toBeGreaterThan(1.5 * stroke(300));
    expect(width(400, { MONO: 1 })).toBeCloseTo(4 * 0.6, 2);
    expect(book.match('Recursive', 500, {})).toBe(book.match('Recursive', 500, {}));
    expect(book.match('Recursive', 2000, {})).toBe(book.match('Recursive', 1000, {}));
  });
});

it('24 families and more are shipped, for every use and script', () => {
  const families = new Set(FONTS.map((f) => f.family));
  expect(families.size).toBeGreaterThanOrEqual(24);
  for (const group of ['display', 'text', 'hand', 'mono', 'scripts']) {
    expect(FONTS.some((f) => f.group === group)).toBe(true);
  }
  for (const script of ['Latn', 'Arab', 'Hebr', 'Deva', 'Thai', 'Hani', 'Kana', 'Hang', 'Emoji']) {
    expect(fontsFor({ faces: [], scripts: [script] }).length).toBeGreaterThan(0);
  }
});
