import { spawnSync } from 'node:child_process';
import { readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import {
  choose,
  fill,
  id,
  LAPTOP,
  look,
  PHONE,
  quiet,
  renderNow,
  saved,
  serve,
  tap,
  textOf,
  until,
  waitForChange,
  waitForText,
} from './support/browser';
import { ffmpeg, folder, noise, numberedClip } from './support/clips';
import { storedKeys } from './support/entries';
import { stripesPng } from './support/probe';
import { openReel, slotReel } from './support/slotReel';

const SHARED = join(__dirname, '../packages/templates/src/shared');
const shared = (name: string) => join(SHARED, name);
const session = serve();

async function start(page: Page, template: string): Promise<void> {
  await page.goto(`${session.address}/templates/${template}`);
  await tap(page, 'use-template');
  await page.waitForSelector(id('preview'));
  await waitForText(page, 'save-state', /^saved$/);
}

const made = (name: string, bytes: Uint8Array | string) => {
  const path = join(folder, name);
  writeFileSync(path, bytes);
  return path;
};

it('many pictures and clips are poured into the gallery at once, swapped, hidden and emptied', async () => {
  const page = await session.page(LAPTOP);
  await start(page, 'drift-wall');
  await tap(page, 'show-picture-1');
  await quiet(page);
  const before = await look(page, 'preview');
  await choose(
    page,
    'choose-picture-1',
    shared('gust.jpg'),
    shared('kite-going-up.mp4'),
    shared('noon.jpg'),
    shared('tent.jpg'),
  );
  await waitForText(page, 'said-picture-1', /4 files are in this slot and those after it/);
  await waitForChange(page, 'preview', before);
  // The second is a clip, which can be trimmed.
  await tap(page, 'show-picture-2');
  await waitForText(page, 'clip-picture-2', /of the clip's 5.0 s the first/);
  // One step of undo takes the whole pour back.
  await tap(page, 'undo');
  await page.waitForSelector(id('reset-slot-picture-2'), { hidden: true });
  await tap(page, 'redo');
  await page.waitForSelector(id('reset-slot-picture-2'));
  const shown = await look(page, 'preview');
  await tap(page, 'hide-picture-2');
  const without = await waitForChange(page, 'preview', shown);
  await tap(page, 'swap-picture-1');
  await tap(page, 'hide-picture-2');
  await waitForChange(page, 'preview', without);
  await saved(page);
  await page.close();
});

it('a clip is trimmed, slowed, frozen and mirrored, by touch', async () => {
  const page = await session.page(PHONE);
  await start(page, 'freeze-print');
  await choose(page, 'choose-shot', shared('kites-crossing.mp4'));
  await page.waitForSelector(id('reset-slot-shot'));
  await waitForText(page, 'clip-shot', /the clip plays for 6.0 s/);
  await fill(page, 'clip-shot-in', '2.5');
  await page.keyboard.press('Enter');
  await waitForText(page, 'clip-shot', /the clip plays for 3.5 s/);
  const first = await look(page, 'preview');
  await fill(page, 'clip-shot-length', '2/2');
  await page.keyboard.press('Enter');
  await waitForText(page, 'clip-shot', /the clip plays for 1.0 s/);
  await tap(page, 'clip-shot-end-stretch');
  await waitForText(page, 'clip-shot', /the clip plays all the time/);
  const stretched = await waitForChange(page, 'preview', first);
  await tap(page, 'clip-shot-freeze');
  await page.waitForSelector(id('clip-shot-frozen'));
  await tap(page, 'frame-shot-flip-across');
  await waitForChange(page, 'preview', stretched);
  await tap(page, 'clip-shot-unfreeze');
  await page.waitForSelector(id('clip-shot-freeze'));
  await saved(page);
  // All of it is there after a reload.
  await page.reload();
  await tap(page, 'show-shot');
  await waitForText(page, 'clip-shot', /the clip plays all the time/);
  expect(await page.$eval(id('clip-shot-in'), (e) => (e as HTMLInputElement).value)).toBe('2.50');
  await page.close();
});

it('sound and picture of a clip agree in the rendered file', async () => {
  // White for two frames and a beep, each second: 25 frames a second. It is as hot as a sound can be.
  const path = join(folder, 'beeps.mp4');
  ffmpeg([
    ...[
      '-f',
      'lavfi',
      '-i',
      "color=black:s=320x180:r=25:d=4,geq=lum='if(lt(mod(N,25),2),235,16)':cb=128:cr=128",
    ],
    ...['-f', 'lavfi', '-i', "aevalsrc='if(lt(mod(t,1),0.08),sgn(sin(2*PI*1000*t)),0)':s=44100:d=4"],
    ...['-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-c:a', 'aac', '-b:a', '128k', path],
  ]);
  const page = await session.page(LAPTOP);
  await start(page, 'freeze-print');
  await choose(page, 'choose-shot', path);
  await waitForText(page, 'clip-shot', /the clip plays for 4.0 s/);
  await tap(page, 'sound-on');
  await tap(page, 'sound-on');
  for (const slot of ['shutter', 'whoosh']) await tap(page, `hide-${slot}`);
  await renderNow(page, 'mp4', '270', '25');
  expect(await textOf(page, 'sound-note')).toMatch(/AAC|Opus|MP3/);
  expect(await textOf(page, 'render-sound')).toMatch(/Sound: \w+, -[\d.]+ LUFS, highest peak -[\d.]+ dBTP/);
  await tap(page, 'render-download');
  const file = await session.downloaded('.mp4');
  // Brightness of each frame, and the level of each hundredth of a second, as ffmpeg decodes them.
  const light = [...ffmpeg(['-i', file, '-f', 'rawvideo', '-pix_fmt', 'gray', '-s', '1x1', 'pipe:1'])];
  const raw = ffmpeg(['-i', file, '-map', '0:a', '-f', 'f32le', '-ac', '1', '-ar', '48000', 'pipe:1']);
  const level = Array.from({ length: Math.floor(raw.length / 4 / 480) }, (_, n) => {
    let most = 0;
    for (let i = 0; i < 480; i++) most = Math.max(most, Math.abs(raw.readFloatLE((n * 480 + i) * 4)));
    return most;
  });
  // The shot plays for 1.4 s before it freezes: two flashes and two beeps, at 0 and at 1 s.
  const flashes = light.flatMap((v, i) => (v > 150 && (light[i - 1] ?? 0) <= 150 ? [i / 25] : []));
  const beeps = level.flatMap((v, i) => (v > 0.2 && (level[i - 1] ?? 0) <= 0.2 ? [i / 100] : []));
  expect(flashes.slice(0, 2)).toEqual([0, 1]);
  expect(beeps).toHaveLength(2);
  for (const [i, at] of beeps.entries()) expect(Math.abs(at - flashes[i]!)).toBeLessThan(0.041);
  // Loudness as it was told is what ffmpeg’s ebur128 finds.
  const told = Number(/(-[\d.]+) LUFS/.exec(await textOf(page, 'render-sound'))![1]);
  const said = spawnSync('ffmpeg', [
    '-nostdin',
    '-nostats',
    '-i',
    file,
    '-af',
    'ebur128=peak=true',
    '-f',
    'null',
    '-',
  ]);
  const all = said.stderr.toString();
  const summary = all.slice(all.lastIndexOf('Summary'));
  const found = Number(/I:\s+(-?[\d.]+) LUFS/.exec(summary)![1]);
  expect(Math.abs(found - told)).toBeLessThanOrEqual(0.15);
  // What the codec took from it did not lift its peaks, and they are told as they are.
  const peak = Number(/peak (-[\d.]+) dBTP/.exec(await textOf(page, 'render-sound'))![1]);
  const highest = Number(/Peak:\s+(-?[\d.]+) dBFS/.exec(summary)![1]);
  expect(highest).toBeLessThan(-0.7);
  expect(Math.abs(highest - peak)).toBeLessThan(0.3);
  await session.take('.mp4');
  await page.close();
});

it('a file in use is taken off the shelf, missed, and put back', async () => {
  const page = await session.page(LAPTOP, '/shelf');
  await choose(page, 'shelf-add', shared('lanterns.jpg'), shared('hit.ogg'));
  await page.waitForSelector(id('media-lanterns.jpg'));
  await page.waitForSelector(id('media-hit.ogg'));
  await start(page, 'quote-card');
  await page.goto(`${session.address}/reels`);
  await start(page, 'four-corners');
  await tap(page, 'show-photo-1');
  await tap(page, 'shelf-photo-1');
  await page.waitForSelector(id('shelf-sheet'));
  await tap(page, 'media-lanterns.jpg');
  await page.waitForSelector(id('reset-slot-photo-1'));
  await saved(page);
  await page.goto(`${session.address}/shelf`);
  await tap(page, 'media-lanterns.jpg');
  await waitForText(page, 'media-used', /Shows in Four corners/);
  await tap(page, 'media-remove');
  await waitForText(page, 'toast', /off the shelf. It shows in “Four corners/);
  await page.waitForSelector(id('media-lanterns.jpg'), { hidden: true });
  await tap(page, 'toast-action');
  await page.waitForSelector(id('media-lanterns.jpg'));
  // Searched and sorted.
  await fill(page, 'shelf-search', 'sound');
  await page.waitForSelector(id('media-lanterns.jpg'), { hidden: true });
  await page.waitForSelector(id('media-hit.ogg'));
  await page.close();
});

it('a reel whose files are missing opens, marks their places, and finds them by what they are and by name', async () => {
  const page = await session.page(LAPTOP);
  // Files of the user's own: those of the demo are there even when they are off the shelf.
  const stripes = stripesPng(640, 480, [
    [200, 60, 40],
    [40, 60, 200],
  ]);
  const squall = made('squall.png', stripes);
  const free = Buffer.from([0, 0, 0, 8, ...Buffer.from('free')]);
  const climb = made('climb.mp4', Buffer.concat([readFileSync(shared('kite-going-up.mp4')), free]));
  await start(page, 'drift-wall');
  await choose(page, 'choose-picture-1', squall, climb);
  await page.waitForSelector(id('reset-slot-picture-2'));
  await saved(page);
  const reel = page.url();
  for (const name of ['squall.png', 'climb.mp4']) {
    await page.goto(`${session.address}/shelf`);
    await tap(page, `media-${name}`);
    await tap(page, 'media-remove');
    await page.waitForSelector(id(`media-${name}`), { hidden: true });
  }
  await tap(page, 'shelf-free');
  await page.waitForSelector(id('shelf-free'), { hidden: true });
  await page.goto(reel);
  await waitForText(page, 'missing-files', /“squall.png” for Picture 1; “climb.mp4” for Picture 2/);
  await tap(page, 'show-picture-1');
  await page.waitForSelector(id('missing-shot-1'));
  // One under another name, the other among files that are not wanted.
  const renamed = made('storm.png', stripes);
  await choose(page, 'find-files', shared('noon.jpg'), renamed, climb);
  await page.waitForSelector(id('missing-files'), { hidden: true });
  await page.waitForSelector(id('missing-shot-1'), { hidden: true });
  await saved(page);
  await page.close();
});

it('a reel that names an asset which does not ship opens, says so, and renders without it', async () => {
  const page = await session.page(LAPTOP, '/reels');
  const reel = slotReel('From elsewhere', { num: 25, den: 1 }, 5, [{ id: 'clip' }]);
  const media = 'asset:of-another/sky';
  reel.tracks[0]!.graphics[0]!.fill.slots.clip = {
    media,
    name: 'sky.jpg',
    focus: [0.5, 0.5],
    scale: 1,
    turn: 0,
  };
  await openReel(session, page, reel);
  await waitForText(page, 'missing-files', /“sky.jpg” for clip.*a render leaves these places empty/);
  await renderNow(page, 'png', '270');
  await choose(page, 'find-files', made('sky.jpg', readFileSync(shared('dusk.jpg'))));
  await page.waitForSelector(id('missing-files'), { hidden: true });
  await page.close();
});

it('a reload half way through an import leaves no broken record, and nothing else is lost', async () => {
  const page = await session.page(LAPTOP, '/shelf');
  // Large enough to be caught on its way: about 60 MB that do not shrink.
  const big = noise('big.wav', 60_000_000);
  expect(statSync(big).size).toBeGreaterThan(59_000_000);
  await choose(page, 'shelf-add', big);
  await until(async () => {
    const keys = await storedKeys(page);
    const coming = keys.find((k) => k.startsWith('coming/'));
    return coming !== undefined && keys.filter((k) => k.startsWith(`bytes/${coming.slice(7)}`)).length > 3;
  }, 'It is on its way');
  const before = await storedKeys(page);
  expect(before.some((k) => k.startsWith('coming/'))).toBe(true);
  await page.reload();
  await page.waitForSelector(id('shelf-add'));
  await until(
    async () => !(await storedKeys(page)).some((k) => k.startsWith('coming/')),
    'What was on its way is gone',
  );
  const after = await storedKeys(page);
  const hash = before.find((k) => k.startsWith('coming/'))!.slice(7);
  expect(after.filter((k) => k.includes(hash) && !/^(thumb|wave)\//.test(k))).toEqual([]);
  expect(after.filter((k) => k.startsWith('media/') || k.startsWith('reel/'))).toEqual(
    before.filter((k) => k.startsWith('media/') || k.startsWith('reel/')),
  );
  // It can be stopped by hand as well, and taken in whole afterwards.
  await choose(page, 'shelf-add', big);
  await tap(page, 'import-cancel');
  await page.waitForSelector(id('import-progress'), { hidden: true });
  await choose(page, 'shelf-add', big);
  await page.waitForSelector(id('media-big.wav'), { timeout: 60_000 });
  await page.close();
});

it('what cannot be used is said by name, and the rest comes in', async () => {
  const page = await session.page(LAPTOP, '/shelf');
  const whole = readFileSync(
    numberedClip('whole.mp4', 50, '25', [
      '-c:v',
      'libx264',
      '-pix_fmt',
      'yuv420p',
      '-movflags',
      '+faststart',
    ]),
  );
  const onlySound = join(folder, 'voice.mp4');
  ffmpeg(['-f', 'lavfi', '-i', 'sine=d=1', '-c:a', 'aac', onlySound]);
  const oldCodec = join(folder, 'old.mkv');
  ffmpeg(['-f', 'lavfi', '-i', 'testsrc2=d=1', '-c:v', 'mpeg4', oldCodec]);
  const slow = join(folder, 'slow.wav');
  ffmpeg(['-f', 'lavfi', '-i', 'sine=d=1', '-ac', '1', '-ar', '8000', slow]);
  await choose(
    page,
    'shelf-add',
    made('cut.mp4', whole.subarray(0, Math.round(whole.length * 0.7))),
    made('headless.mp4', whole.subarray(0, 200)),
    made('empty.mp4', ''),
    made('words.mp4', 'These are words and no moving picture at all, though the name says so.'),
    oldCodec,
    onlySound,
    slow,
  );
  await page.waitForSelector(id('media-slow.wav'));
  await page.waitForSelector(id('media-voice.mp4'));
  // What the app's server could make playable is asked about, once the rest is in.
  await waitForText(page, 'copy-question', /does not play .*“old\.mkv” is made with/);
  await tap(page, 'copy-leave');
  await page.waitForSelector(id('import-progress'), { hidden: true });
  const faults = await page.$$eval(id('import-fault'), (all) => all.map((e) => e.textContent ?? ''));
  expect(faults).toHaveLength(4);
  expect(faults[0]).toMatch(/"cut.mp4" is (cut off|damaged)/);
  expect(faults[1]).toMatch(/"headless.mp4"/);
  expect(faults[2]).toMatch(/"empty.mp4" is empty \(0 bytes\)/);
  expect(faults[3]).toMatch(/"words.mp4" is not a picture, clip, sound or font, whatever its name says/);
  // A file with sound alone is a sound, and a slot for something seen says so.
  await start(page, 'freeze-print');
  await choose(page, 'choose-shot', onlySound);
  await waitForText(page, 'said-shot', /has only sound in it/);
  await page.close();
});

it('nothing on the pages complained', () => expect(session.faults).toEqual([]));
