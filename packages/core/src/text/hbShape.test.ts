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

/** What one run of the command line is asked: each line of text in a font, at a weight where it has several. */
interface Asked {
  readonly path: string;
  readonly weight: number | undefined;
  readonly texts: readonly string[];
}

/** What the command line makes of each text, all in one process: starting one takes longer than shaping. */
function commandLine(asked: readonly Asked[]): Glyph[][][] {
  const lines = asked.map(({ path, weight, texts }, i) => {
    const words = join(folder, `${i}.txt`);
    writeFileSync(words, texts.join('\n'));
    const variations = weight === undefined ? '' : `;--variations=wght=${weight}`;
    return `${path};--text-file=${words};--output-format=json;--no-glyph-names${variations}`;
  });
  const out = execFileSync('hb-shape', ['--batch'], { encoding: 'utf8', input: lines.join('\n') });
  const shaped = out.trim().split('\n');
  expect(shaped).toHaveLength(asked.reduce((sum, { texts }) => sum + texts.length, 0));
  return asked.map(({ texts }) => shaped.splice(0, texts.length).map((line) => JSON.parse(line) as Glyph[]));
}

const shown = (glyphs: readonly Glyph[]) => glyphs.map(({ g, cl, ax, dx, dy }) => [g, cl, ax, dx, dy]);
const fonts = FONTS.filter((f) => f.family !== 'Noto Color Emoji');
const textsOf = ({ family }: ShippedFont) => SCRIPTS[family] ?? LATIN;
const weightsOf = (font: ShippedFont) => (font.weights ? [300, 650, 1000] : [font.weight]);

/** By the path of each font: what the command line makes of its texts, at each weight. */
const theirs = new Map<string, Glyph[][][]>();
const files = new Map<ShippedFont, Awaited<ReturnType<typeof fileOf>>>();
beforeAll(async () => {
  for (const font of fonts) files.set(font, await fileOf(font));
  const asked = fonts.flatMap((font) =>
    weightsOf(font).map((weight) => ({
      path: files.get(font)!.path,
      weight: font.weights ? weight : undefined,
      texts: textsOf(font),
    })),
  );
  const shaped = commandLine(asked);
  for (const [i, { path }] of asked.entries()) theirs.set(path, [...(theirs.get(path) ?? []), shaped[i]!]);
}, 120_000);

it.each(fonts.map((f) => [`${f.family} ${f.weight}`, f] as const))(
  '%s is shaped as hb-shape shapes it',
  (_, font) => {
    const { path, bytes } = files.get(font)!;
    const book = new FontBook(hb);
    book.add(font, bytes);
    const ours = weightsOf(font).map((weight) => {
      const face = book.match(font.family, weight);
      return textsOf(font).map((text) => face.shape(text, /[\u0590-\u06FF]/.test(text) ? 'rtl' : 'ltr'));
    });
    const plain = (all: readonly (readonly (readonly Glyph[])[])[]) => all.map((texts) => texts.map(shown));
    expect(plain(ours)).toEqual(plain(theirs.get(path)!));
  },
);
