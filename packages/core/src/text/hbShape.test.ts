import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { FONTS, type ShippedFont } from '@fresh-reel/fonts';
import { unpackFont } from '@fresh-reel/fonts/unpack';
import { FontBook } from './fonts';
import { type HarfBuzz, loadHarfBuzz } from './harfbuzz';

/** Shaping is checked against HarfBuzz's own command line, `hb-shape` of Debian's libharfbuzz-bin. */

const require = createRequire(__filename);
let hb: HarfBuzz;
let folder: string;
beforeAll(async () => {
  hb = await loadHarfBuzz(readFileSync(require.resolve('harfbuzzjs/hb.wasm')));
  folder = mkdtempSync(join(tmpdir(), 'fresh-reel-shape-'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const SCRIPTS: Readonly<Record<string, readonly string[]>> = {
  'Noto Sans Arabic': ['مهرجان الطائرات', 'الريح فوق مارام'],
  'Noto Sans Hebrew': ['סוף שבוע של עפיפונים', 'שָׁלוֹם'],
  'Noto Sans Devanagari': ['पतंग उत्सव', 'क्षितिज पर हवा'],
  'Noto Sans Thai': ['เทศกาลว่าวบนเนินเขา'],
  'Noto Sans SC': ['风筝节在山上'],
  'Noto Sans JP': ['凧まつりの丘', 'ガイド'],
  'Noto Sans KR': ['연날리기 축제'],
};
const LATIN = ['Thistledown Kite Weekend', 'AVATAR To Wa Ty office fjord', 'naïve façade 12:45 — “wind”'];

interface Glyph {
  readonly g: number;
  readonly cl: number;
  readonly ax: number;
  readonly dx: number;
  readonly dy: number;
}

async function fileOf(font: ShippedFont): Promise<{ path: string; bytes: Uint8Array }> {
  const bytes = await unpackFont(readFileSync(require.resolve(font.source)));
  const path = join(folder, font.file);
  writeFileSync(path, bytes);
  return { path, bytes };
}

function commandLine(path: string, text: string, variations: string): Glyph[] {
  const out = execFileSync(
    'hb-shape',
    [
      '--output-format=json',
      '--no-glyph-names',
      ...(variations ? [`--variations=${variations}`] : []),
      path,
      text,
    ],
    { encoding: 'utf8' },
  );
  return JSON.parse(out) as Glyph[];
}

const shown = (glyphs: readonly Glyph[]) => glyphs.map(({ g, cl, ax, dx, dy }) => [g, cl, ax, dx, dy]);
const cases = FONTS.filter((f) => f.family !== 'Noto Color Emoji').map(
  (f) => [`${f.family} ${f.weight}`, f] as const,
);

it.each(cases)('%s is shaped as hb-shape shapes it', async (_, font) => {
  const { path, bytes } = await fileOf(font);
  const book = new FontBook(hb);
  book.add(font, bytes);
  const weights = font.weights ? [300, 650, 1000] : [font.weight];
  for (const weight of weights) {
    const face = book.match(font.family, weight);
    const variations = font.weights ? `wght=${weight}` : '';
    for (const text of SCRIPTS[font.family] ?? LATIN) {
      const rightToLeft = /[\u0590-\u06FF]/.test(text);
      expect(shown(face.shape(text, rightToLeft ? 'rtl' : 'ltr'))).toEqual(
        shown(commandLine(path, text, variations)),
      );
    }
  }
});
