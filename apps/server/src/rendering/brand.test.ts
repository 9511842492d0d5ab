import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Brand, freshPicture, graphicsOf, newReel } from '@fresh-reel/core';
import { templateById } from '@fresh-reel/templates';
import { createCanvas } from '@napi-rs/canvas';
import { BlobReader, BlobWriter, TextReader, ZipWriter } from '@zip.js/zip.js/index-native.js';
import { main } from '../cli/main';
import { type OpenedReel, withReel } from './openedReel';

const folder = mkdtempSync(join(tmpdir(), 'fresh-reel-brand-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const at = (name: string) => join(folder, name);

const logo = createCanvas(40, 20);
logo.getContext('2d').fillRect(5, 5, 30, 10);
const png = logo.toBuffer('image/png');
const hash = createHash('sha256').update(png).digest('hex');

const brandCalled = (id: string, name: string): Brand => ({
  ...{ format: 'freshreel/brand', version: 4, id, name },
  colours: { main: '#123456', second: '#654321', dark: '#101010', light: '#F0F0F0' },
  logos: { main: freshPicture(`sha256:${hash}`), light: null, dark: null, small: null },
  fonts: { heading: null, text: null },
  lines: { line: 'Said by the brand', name: name, handle: '', address: '' },
  sounds: { logo: null, music: null },
  templates: [],
});

/** A package of brands, as the app writes one. */
async function packageOf(file: string, brands: readonly Brand[]): Promise<string> {
  const zip = new ZipWriter(new BlobWriter(), { useWebWorkers: false });
  const json = (data: unknown) => new TextReader(JSON.stringify(data));
  for (const brand of brands) await zip.add(`brands/${brand.id}.json`, json(brand));
  await zip.add(`media/${hash}`, new BlobReader(new Blob([png])));
  const documents = brands.map(({ id, name }) => ({ kind: 'brand', path: `brands/${id}.json`, name }));
  const media = [{ id: `sha256:${hash}`, path: `media/${hash}`, name: 'logo.png', type: 'image/png' }];
  await zip.add(
    'contents.json',
    json({ format: 'freshreel/contents', version: 3, documents, media, fonts: [] }),
  );
  writeFileSync(at(file), Buffer.from(await (await zip.close()).arrayBuffer()));
  return at(file);
}

const opened = (what: string, brand: string, fill?: string): Promise<OpenedReel> =>
  withReel({ what, brand, fill, size: undefined, originals: undefined }, async (studio, reel) => {
    expect(studio.mediaFacts(`sha256:${hash}`)).toMatchObject({ width: 40, height: 20 });
    return reel;
  });

it('a template wears a brand from its file: colours, words and logo, which comes along', async () => {
  const path = await packageOf('marram.freshreel', [brandCalled('one', 'Marram Kite Club')]);
  const { reel } = await opened('gust-sting', path);
  const [{ fill, template }] = graphicsOf(reel) as [ReturnType<typeof graphicsOf>[number]];
  const slot = template.slots.find((s) => s.kind === 'logo')!;
  expect(fill.slots[slot.id]).toMatchObject({ media: `sha256:${hash}` });
  expect(Object.values(fill.slots)).toContain('Said by the brand');
  expect(Object.values(fill.controls)).toContain('#123456');
});

it('what a fill says of one title counts more than what a brand says of all', async () => {
  const path = await packageOf('club.freshreel', [brandCalled('one', 'Marram Kite Club')]);
  const plain = graphicsOf((await opened('gust-sting', path)).reel)[0]!.fill;
  const [colour] = Object.entries(plain.controls).find(([, value]) => value === '#123456')!;
  writeFileSync(
    at('fill.json'),
    JSON.stringify({ slots: { line: 'Mine' }, controls: { [colour]: '#ABCDEF' } }),
  );
  const { fill } = graphicsOf((await opened('gust-sting', path, at('fill.json'))).reel)[0]!;
  expect([fill.slots.line, fill.controls[colour]]).toEqual(['Mine', '#ABCDEF']);
});

it('a reel wears it in all its titles', async () => {
  const path = await packageOf('reel.freshreel', [brandCalled('one', 'Marram Kite Club')]);
  const made = { id: 'r', name: 'R', now: '2026-06-05T10:00:00Z', shape: 'wide' } as const;
  writeFileSync(at('reel.json'), JSON.stringify(newReel(templateById('gust-sting'), made)));
  const { fill } = graphicsOf((await opened(at('reel.json'), path)).reel)[0]!;
  expect(Object.values(fill.slots)).toContain('Said by the brand');
});

it.each([
  [() => Promise.resolve(at('gone.freshreel')), /--brand: ".*gone\.freshreel" cannot be read/],
  [
    () => packageOf('two.freshreel', [brandCalled('one', 'Marram'), brandCalled('two', 'Thistledown')]),
    /holds "Marram", "Thistledown"\. Save the one that is meant as a file of its own/,
  ],
  [() => packageOf('none.freshreel', []), /is no|without|holds no brand/],
])('says what is wrong with the file', async (make, reason) => {
  const error = jest.spyOn(console, 'error').mockImplementation(() => undefined);
  const path = await make();
  expect(await main(['render', 'gust-sting', '--brand', path, '--out', at('out')])).toBe(1);
  expect(String(error.mock.calls[0]?.[0])).toMatch(reason);
  error.mockRestore();
});
