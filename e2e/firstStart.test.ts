import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Browser } from 'puppeteer-core';
import { fill, id, LAPTOP, launch, renderNow, tap, textOf, waitForText } from './support/browser';
import { CleanClone, type Running } from './support/cleanClone';

/** The first minute of a new user, on a machine that has Node and npm and nothing else. */

const ADDRESS = /running at (http:\S+)/;
const clone = new CleanClone();
let browser: Browser;
let starts: readonly Running[];
let addresses: readonly string[];

const start = (port: number) =>
  clone.run('npm', 'start', '--', '--port', String(port), '--data', `data-${port}`);

beforeAll(async () => {
  browser = await launch();
  // Two at once: one builds, the other waits for it.
  starts = [start(4611), start(4612)];
  addresses = await Promise.all(starts.map((each) => each.says(ADDRESS)));
}, 600_000);

afterAll(async () => {
  await browser.close();
  await clone.remove();
});

it('starts without ffmpeg, twice at once, builds once, and says in a line what is not there', async () => {
  const said = await Promise.all(starts.map((each) => each.says(/There is no ffmpeg here[^\n]*/)));
  expect(said[0]).toMatch(/working copies.*Install it first \(Debian, Ubuntu: apt-get install ffmpeg\)/);
  for (const address of addresses) expect((await fetch(address)).status).toBe(200);
  expect(readdirSync(join(clone.folder, '.building'))).not.toContain('site');
});

it('fills and renders a title in the browser, and says where it matters what ffmpeg would add', async () => {
  const page = await browser.newPage();
  await page.setViewport(LAPTOP);
  await page.goto(`${addresses[0]}/templates/name-strap`);
  await tap(page, 'use-template');
  await fill(page, 'slot-name', 'Juno Abara');
  await waitForText(page, 'save-state', /^saved$/);
  expect(await renderNow(page, 'png', '270')).toContain('1 frame');
  expect(await textOf(page, 'without-ffmpeg')).toMatch(/Install ffmpeg where the server of this app runs/);
  expect(await page.$(id('output-format-prores4444'))).toBeNull();
  await page.close();
});

it('renders numbered PNGs on the command line, and says that their sound is not with them', async () => {
  const out = join(clone.folder, 'frames');
  const args = ['fresh-reel', 'render', 'name-strap', '--out', out, '--size', '320x180', '--frames', '0-4'];
  const { code, said } = await clone.run('npx', '--no-install', ...args).ended;
  expect(said).toMatch(/5 frames in .*\nIts sound is not with it: .*Install it first/);
  expect(code).toBe(0);
  const files = readdirSync(out);
  expect(files).toHaveLength(5);
  // ISO/IEC 15948, 5.2: the signature of PNG.
  expect([...readFileSync(join(out, files[0]!)).subarray(0, 8)]).toEqual([137, 80, 78, 71, 13, 10, 26, 10]);
});

it('a build that is killed leaves the one before, and a port that is taken is said in a line', async () => {
  const dist = join(clone.folder, 'apps/studio/dist');
  const before = readFileSync(join(dist, 'version.json'), 'utf8');
  const building = clone.run('node', 'scripts/build/build.mjs', '--force');
  await building.says(/Building the studio/);
  const site = join(clone.folder, '.building/site/engine/hb.wasm');
  while (!existsSync(site)) await new Promise((resolve) => setTimeout(resolve, 20));
  building.kill();
  await building.ended;
  expect(readFileSync(join(dist, 'version.json'), 'utf8')).toBe(before);
  const third = await clone.run('npm', 'start', '--', '--port', '4611', '--data', 'data-3').ended;
  expect(third.code).toBe(1);
  expect(third.said).toMatch(/Port 4611 is taken\. Try npm start -- --port \d+/);
  expect(third.said).not.toMatch(/Building/);
});
