import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { BlobReader, BlobWriter, ZipWriter } from '@zip.js/zip.js';
import { PNG } from 'pngjs';
import {
  choose,
  fieldValue,
  fill,
  id,
  LAPTOP,
  PHONE,
  quiet,
  serve,
  takeIn,
  tap,
  textOf,
  until,
  waitForText,
} from './support/browser';
import { asFile, pixel, stripesPng } from './support/probe';
import { unzipped } from './support/zip';

const session = serve();

const hashOf = (bytes: Uint8Array) => `sha256:${createHash('sha256').update(bytes).digest('hex')}`;
const json = (bytes: Uint8Array | undefined) => JSON.parse(Buffer.from(bytes!).toString());

async function zipped(files: Readonly<Record<string, Uint8Array>>, name: string): Promise<string> {
  const zip = new ZipWriter(new BlobWriter());
  for (const [path, bytes] of Object.entries(files))
    await zip.add(path, new BlobReader(new Blob([bytes as BlobPart])));
  const blob = await zip.close();
  return asFile(Buffer.from(await blob.arrayBuffer()), name);
}

/** A template as somebody else would hand it on: another name, and a picture that does not ship. */
async function strangers(files: Record<string, Uint8Array>): Promise<{ path: string; picture: string }> {
  const template = json(files['template.json']);
  const contents = json(files['contents.json']);
  const bytes = stripesPng(640, 480, [
    [200, 40, 40],
    [40, 40, 200],
  ]);
  const picture = hashOf(bytes);
  const old = template.assets['photo-1'];
  template.id = 'their-corners';
  template.name = 'Their corners';
  template.assets['photo-1'] = picture;
  const part = contents.media.find((m: { id: string }) => m.id === old);
  contents.media = [
    ...contents.media.filter((m: { id: string }) => m.id !== old),
    { ...part, id: picture, path: 'media/theirs', name: 'stripes.png', type: 'image/png' },
  ];
  const text = (data: unknown) => Buffer.from(JSON.stringify(data));
  const path = await zipped(
    { ...files, 'template.json': text(template), 'contents.json': text(contents), 'media/theirs': bytes },
    'their-corners.freshreel',
  );
  return { path, picture };
}

it('a template goes out as one file with all its media, and comes back from somebody else', async () => {
  const page = await session.page(LAPTOP, '/templates/four-corners');
  await tap(page, 'save-template-file');
  const files = await unzipped(await session.take('.freshreel'));
  const template = json(files['template.json']);
  const contents = json(files['contents.json']);
  expect(template.id).toBe('four-corners');
  const held = contents.media.map((m: { id: string; path: string }) => [m.id, hashOf(files[m.path]!)]);
  expect(held.map(([name]: [string]) => name).sort()).toEqual(Object.values(template.assets).sort());
  for (const [name, hash] of held) expect(hash).toBe(name);

  const { path } = await strangers(files);
  await page.goto(`${session.address}/templates`);
  const what = await takeIn(page, 'open-template-file', path);
  expect(what).toMatch(/^The template “Their corners”: opener, .+ Brings “stripes\.png”/);
  await page.waitForSelector(id('use-template'));
  expect(page.url()).toMatch(/\/templates\/their-corners$/);
  // The same file again is the same template.
  await tap(page, 'back');
  expect(await takeIn(page, 'open-template-file', path)).toContain('One of its files is here already');
  await page.waitForSelector(id('use-template'));
  await tap(page, 'back');
  expect(await page.$$eval('[data-testid^="template-card-their"]', (all) => all.length)).toBe(1);
  expect(await textOf(page, 'template-card-their-corners')).toContain('Yours.');

  // A reel of it finds everything.
  await tap(page, 'template-card-their-corners');
  await tap(page, 'use-template');
  await page.waitForSelector(id('step-render'));
  expect(await page.$(id('missing-files'))).toBeNull();
  await tap(page, 'step-render');
  await page.waitForFunction(() => !document.body.textContent?.includes('Looking at all words'));
  expect(await page.$(id('check-missing-picture'))).toBeNull();

  // And on the command line.
  const out = mkdtempSync(join(tmpdir(), 'fresh-reel-template-'));
  const cli = join(__dirname, '../apps/server/bin/fresh-reel.mjs');
  const args = ['--out', out, '--size', '320x180', '--frames', '60-60'];
  execFileSync('node', [cli, 'render', path, ...args], { stdio: 'pipe' });
  const [frame] = execFileSync('ls', [out], { encoding: 'utf8' })
    .split('\n')
    .filter((f) => f.endsWith('.png'));
  const png = PNG.sync.read(readFileSync(join(out, frame!)));
  expect(pixel(png, 160, 90)[3]).toBe(255);
  await page.close();
});

it('a file says what it brings and what it lacks, and where, before anything of it is kept', async () => {
  const page = await session.page(PHONE, '/templates/four-corners');
  await tap(page, 'save-template-file');
  const files = await unzipped(await session.take('.freshreel'));
  const template = json(files['template.json']);
  template.name = 'Lacking corners';
  template.id = 'lacking-corners';
  template.assets['photo-2'] = hashOf(Buffer.from('nowhere'));
  const lacking = await zipped(
    { ...files, 'template.json': Buffer.from(JSON.stringify(template)) },
    'lacking.freshreel',
  );
  await page.goto(`${session.address}/templates`);
  await choose(page, 'open-template-file', lacking);
  expect(await textOf(page, 'open-lacks')).toContain('A file is not in it; it shows in Photo 2.');
  await tap(page, 'open-leave');
  expect(await page.$(id('open-sheet'))).toBeNull();
  await page.reload();
  await page.waitForSelector('[data-testid^="template-card-"]');
  expect(await page.$(id('template-card-lacking-corners'))).toBeNull();
  // What is missing blocks nothing.
  await takeIn(page, 'open-template-file', lacking);
  await tap(page, 'use-template');
  await page.waitForSelector(id('missing-files'));
  await page.close();
});

it('a template that was taken out can be put back, and its reels stay', async () => {
  const page = await session.page(PHONE, '/templates/their-corners');
  await tap(page, 'take-out-template');
  expect(await textOf(page, 'leaving-used')).toContain('keeps its copy');
  await tap(page, 'leaving-do');
  await page.waitForSelector(id('template-card-name-strap'));
  expect(await page.$(id('template-card-their-corners'))).toBeNull();
  expect(await textOf(page, 'toast')).toContain('Reels made with it stay');
  await tap(page, 'toast-action');
  await page.waitForSelector(id('template-card-their-corners'));
  await page.close();
});

it('a package that unpacks as far more than it is is refused', async () => {
  const page = await session.page(PHONE, '/templates/name-strap');
  await tap(page, 'save-template-file');
  const files = await unzipped(await session.take('.freshreel'));
  const contents = json(files['contents.json']);
  contents.media.push({
    id: `sha256:${'b'.repeat(64)}`,
    path: 'media/large',
    name: 'large.png',
    type: 'image/png',
  });
  const bomb = await zipped(
    {
      ...files,
      'contents.json': Buffer.from(JSON.stringify(contents)),
      'media/large': new Uint8Array(80_000_000),
    },
    'bomb.freshreel',
  );
  await page.goto(`${session.address}/templates`);
  await choose(page, 'open-template-file', bomb);
  await waitForText(page, 'templates-fault', /unpacked as far more than it is/);
  expect(await page.$(id('open-sheet'))).toBeNull();
  await page.close();
});

it('a file that is none is told as such, and leaves nothing behind', async () => {
  const page = await session.page(PHONE, '/templates');
  for (const [path, said] of [
    [await zipped({ 'readme.txt': Buffer.from('hello') }, 'other.freshreel'), /not a reel or a template/],
    [
      await zipped(
        { 'template.json': Buffer.from('{"format":"freshreel/template","version":3}') },
        'broken.freshreel',
      ),
      /template is damaged/,
    ],
  ] as const) {
    await choose(page, 'open-template-file', path);
    expect(await waitForText(page, 'templates-fault', said)).toBeTruthy();
  }
  await page.close();
});

it('templates are found by what they are, and those liked come first, also after a reload', async () => {
  const page = await session.page(LAPTOP, '/templates');
  const cards = () =>
    page.$$eval('[data-testid^="template-card-"]', (all) =>
      all.map((e) => (e as HTMLElement).dataset.testid!.replace('template-card-', '')),
    );
  await page.waitForSelector(id('template-card-name-strap'));
  await tap(page, 'favourite-four-lines');
  await until(async () => (await cards())[0] === 'four-lines', 'What is liked comes first');
  await page.reload();
  await page.waitForSelector(id('use-favourites'));
  expect((await cards())[0]).toBe('four-lines');
  await tap(page, 'use-favourites');
  expect(await cards()).toEqual(['four-lines']);
  await tap(page, 'use-all');
  await tap(page, 'find-by');
  await tap(page, 'sieve-set-Five periods');
  await waitForText(page, 'sieve-done', /Show 5 templates/);
  await tap(page, 'sieve-mood-handmade');
  await waitForText(page, 'sieve-done', /Show 1 template$/);
  await tap(page, 'sieve-done');
  expect(await cards()).toEqual(['sketchbook']);
  await tap(page, 'find-by');
  await tap(page, 'sieve-clear');
  await tap(page, 'sieve-done');
  // A list that is left empty gives way to all.
  await tap(page, 'use-favourites');
  await tap(page, 'favourite-four-lines');
  await page.waitForSelector(id('use-favourites'), { hidden: true });
  await page.waitForSelector(id('template-card-name-strap'));
  await page.close();
});

it('some are looked at side by side with words of one’s own, and one goes on into a reel', async () => {
  const page = await session.page(PHONE, '/templates');
  await page.waitForSelector(id('template-card-name-strap'));
  await tap(page, 'compare-some');
  for (const name of ['name-strap', 'mask-rise']) {
    const chosen = `${id(`template-card-${name}`)}[aria-checked="true"]`;
    // One that was scrolled to may move under the finger; a person sees that it has no tick, and tries again.
    for (let tries = 0; tries < 3 && !(await page.$(chosen)); tries++) {
      await tap(page, `template-card-${name}`);
      await quiet(page);
    }
    await page.waitForSelector(chosen);
  }
  expect(await textOf(page, 'compare')).toBe('Compare 2 side by side');
  await tap(page, 'compare');
  await page.waitForSelector(id('compared-name-strap'));
  expect(page.url()).toMatch(/\/templates\/compare\?ids=name-strap/);
  await fill(page, 'compare-words', 'Ada Merriweather\nJudge of tails');
  await tap(page, 'use-mask-rise');
  await page.waitForSelector(id('slot-headline'));
  expect(await fieldValue(page, 'slot-headline')).toBe('Ada Merriweather');
  // What was used last is offered first, of its own.
  await page.goto(`${session.address}/templates`);
  await tap(page, 'use-recent');
  await page.waitForSelector(id('template-card-name-strap'), { hidden: true });
  expect(await page.$(id('template-card-mask-rise'))).not.toBeNull();
  await page.close();
});

it('a template is looked at in all its looks, and the one that is chosen goes on into a reel', async () => {
  const page = await session.page(LAPTOP, '/templates/kite-tails');
  await page.waitForSelector(id('template-sounds'));
  const looks = await page.$$eval('[data-testid^="show-look-"]', (all) =>
    all.map((e) => (e as HTMLElement).dataset.testid!.replace('show-look-', '')),
  );
  expect(looks.length).toBeGreaterThanOrEqual(4);
  await tap(page, `show-look-${looks[2]}`);
  await tap(page, 'use-template');
  await tap(page, 'step-adjust');
  await page.waitForSelector(`${id(`look-${looks[2]}`)}[aria-checked="true"]`);
  await page.close();
});

it('a title becomes one of another template with its words, told first, and is back by undo', async () => {
  const page = await session.page(PHONE, '/templates/name-strap');
  await tap(page, 'use-template');
  await fill(page, 'slot-name', 'Ada Merriweather');
  await tap(page, 'step-adjust');
  await tap(page, 'another-template');
  await tap(page, 'another-groove');
  await waitForText(page, 'another-told', /Goes along: Name\./);
  await tap(page, 'another-take');
  await page.waitForSelector(id('another-sheet'), { hidden: true });
  await tap(page, 'step-fill');
  expect(await fieldValue(page, 'slot-name')).toBe('Ada Merriweather');
  await page.waitForSelector(id('show-badge'), { hidden: true });
  await tap(page, 'undo');
  await page.waitForSelector(id('show-badge'));
  expect(await fieldValue(page, 'slot-name')).toBe('Ada Merriweather');
  await page.close();
});

it('the looks of a title stand side by side with its words, and one of them is taken', async () => {
  const page = await session.page(PHONE, '/templates/name-strap');
  await tap(page, 'use-template');
  await fill(page, 'slot-name', 'Ada Merriweather');
  await tap(page, 'step-adjust');
  await tap(page, 'compare-looks');
  await page.waitForSelector(id('beside-look-dusk'));
  await tap(page, 'beside-look-dusk');
  await page.waitForSelector(id('looks-sheet'), { hidden: true });
  await page.waitForSelector(`${id('look-dusk')}[aria-checked="true"]`);
  await tap(page, 'undo');
  await page.waitForSelector(`${id('look-dusk')}[aria-checked="false"]`);
  await tap(page, 'step-fill');
  expect(await fieldValue(page, 'slot-name')).toBe('Ada Merriweather');
  await page.close();
});
