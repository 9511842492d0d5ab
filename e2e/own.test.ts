import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import {
  choose,
  fieldValue,
  fill,
  id,
  LAPTOP,
  PHONE,
  saved,
  serve,
  takeIn,
  tap,
  textOf,
  waitForText,
} from './support/browser';
import { entryOf } from './support/entries';
import { asFile, discPng } from './support/probe';

const session = serve();

/** Keeps the title that is worked on, and goes to its template. @returns its address */
async function keep(page: Page, name: string): Promise<string> {
  await tap(page, 'step-adjust');
  await tap(page, 'keep-template');
  await fill(page, 'keep-name', name);
  await fill(page, 'keep-set', 'Kite people');
  await tap(page, 'keep-front');
  await tap(page, 'keep-do');
  await waitForText(page, 'toast', /stands in Templates now/);
  await tap(page, 'toast-action');
  await page.waitForSelector(id('template-details'));
  return new URL(page.url()).pathname;
}

/** Begins a reel with a template. @returns its address */
async function use(page: Page, template: string): Promise<string> {
  await page.goto(session.address + template);
  await tap(page, 'use-template');
  await page.waitForSelector(id('slot-name'));
  await saved(page);
  return new URL(page.url()).pathname;
}

/** Frames that the command line makes of a file. */
function frames(file: string): Buffer[] {
  const out = mkdtempSync(join(tmpdir(), 'fresh-reel-own-'));
  const cli = join(__dirname, '../apps/server/bin/fresh-reel.mjs');
  const how = ['--out', out, '--size', '480x270', '--frames', '20-29'];
  execFileSync('node', [cli, 'render', file, ...how], { stdio: 'pipe' });
  const pictures = readdirSync(out).filter((f) => f.endsWith('.png'));
  return pictures.sort().map((f) => readFileSync(join(out, f)));
}

let template: string;

it('a title that is kept comes first in Templates, goes to an empty browser as one file, and paints the same frames there', async () => {
  const page = await session.page(LAPTOP, '/reels/demo-strap');
  await fill(page, 'slot-name', 'Wim Okonjo');
  await choose(page, 'choose-badge', asFile(discPng(200, [30, 120, 90]), 'disc.png'));
  await page.waitForSelector(id('slot-badge'));
  await saved(page);
  await tap(page, 'step-render');
  await tap(page, 'save-reel-file');
  const reel = frames(asFile(await session.take('.freshreel'), 'reel.freshreel'));
  template = await keep(page, 'Crew strap');
  await tap(page, 'save-template-file');
  const file = asFile(await session.take('.freshreel'), 'crew.freshreel');
  await tap(page, 'back');
  await page.waitForSelector('[data-testid^="template-card-"]');
  const first = await page.$eval('[data-testid^="template-card-"]', (card) => card.textContent);
  expect(first).toContain('Crew strap');
  expect(first).toContain('Yours');
  await tap(page, 'use-own');
  expect(await page.$$eval('[data-testid^="template-card-"]', (all) => all.length)).toBe(1);
  await page.close();

  const empty = await session.browser.createBrowserContext();
  const there = await empty.newPage();
  await there.setViewport(LAPTOP);
  await there.goto(`${session.address}/templates`);
  await takeIn(there, 'open-template-file', file);
  await tap(there, 'use-template');
  await there.waitForSelector(id('slot-name'));
  expect(await fieldValue(there, 'slot-name')).toBe('Wim Okonjo');
  await empty.close();
  const sent = frames(file);
  expect(sent).toHaveLength(10);
  expect(sent.every((frame, i) => frame.equals(reel[i]!))).toBe(true);
});

it('a newer edition is offered where the title is used, taken for all reels by name, and taken back', async () => {
  const page = await session.page(PHONE, '/');
  const other = await use(page, template);
  await use(page, template);
  await fill(page, 'slot-name', 'Ada Brek');
  await fill(page, 'slot-role', 'Line judge');
  await tap(page, 'step-adjust');
  await tap(page, 'keep-template');
  await tap(page, 'keep-as-edition');
  await tap(page, 'keep-do');
  await waitForText(page, 'toast', /has a new edition/);
  await tap(page, 'edition-look');
  expect(await textOf(page, 'offer-changes')).toContain('Slots have changed: “Name”, “Role”.');
  expect(await textOf(page, 'offer-others')).toMatch(/Also made with it: “.+”\./);
  await tap(page, 'offer-everywhere');
  await waitForText(page, 'toast', /1 more reel has it now/);
  expect(await page.$(id('edition-offer'))).toBeNull();
  const sampleOf = async (path: string) => {
    const reel = JSON.parse((await entryOf(page, path.replace('/reels/', 'reel/')))!);
    const [held] = Object.values(reel.templates) as { slots: { id: string; sample: unknown }[] }[];
    return held!.slots.find((s) => s.id === 'name')?.sample;
  };
  expect(await sampleOf(other)).toBe('Ada Brek');
  await tap(page, 'toast-action');
  await waitForText(page, 'toast', /as they were/);
  expect(await sampleOf(other)).toBe('Wim Okonjo');
  // What was typed here stays, whatever the sample is.
  await tap(page, 'step-fill');
  expect(await fieldValue(page, 'slot-name')).toBe('Ada Brek');
  await tap(page, 'undo');
  await page.waitForSelector(id('edition-offer'));
  await tap(page, 'edition-look');
  await tap(page, 'offer-everywhere');
  await waitForText(page, 'toast', /1 more reel has it now/);
  await saved(page);

  // Also later, in each of them.
  await page.goto(session.address + other);
  await page.waitForSelector(id('slot-name'));
  expect(await fieldValue(page, 'slot-name')).toBe('Ada Brek');
  expect(await page.$(id('edition-offer'))).toBeNull();
  await tap(page, 'undo');
  await page.waitForSelector(id('edition-offer'));
  expect(await fieldValue(page, 'slot-name')).toBe('Wim Okonjo');
  await page.close();
});

it('an edition can be looked at and gone back to; the template is renamed, taken out and put back with all of them', async () => {
  const page = await session.page(PHONE, template);
  await tap(page, 'edition-1');
  await page.waitForSelector(id('edition-sheet'));
  await tap(page, 'edition-take');
  await waitForText(page, 'toast', /Edition 3 is edition 1 again/);
  await waitForText(page, 'editions', /Edition 3, the present one.*Edition 2.*Edition 1/s);
  await tap(page, 'name-template');
  await fill(page, 'own-name', 'Crew label');
  await tap(page, 'own-save');
  await page.waitForFunction(() => document.body.textContent?.includes('Crew label'));

  await tap(page, 'take-out-template');
  expect(await textOf(page, 'leaving-used')).toMatch(/^Made with it: “.+”, “.+”\. They keep their copy/);
  await tap(page, 'leaving-do');
  await page.waitForSelector(id('removed-template'));
  const name = template.replace('/templates/', '');
  expect(await page.$(id(`template-card-${name}`))).toBeNull();
  await tap(page, `put-back-${name}`);
  await page.waitForFunction((s) => !document.querySelector(s), {}, id('removed-template'));
  await page.goto(`${session.address}/templates`);
  await page.waitForSelector(id(`template-card-${name}`));
  await page.goto(session.address + template);
  await waitForText(page, 'editions', /Edition 3, the present one/);
  await page.close();
});
