import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  emptyReel,
  FILM_CODECS,
  filmFacts,
  hearReel,
  type MixFacts,
  type Reel,
  ReelScene,
} from '@fresh-reel/core';
import { NodeStudio } from '@fresh-reel/node-host';
import { renderReel } from './render';

/** Decibels by which two meters may differ (EBU Tech 3341: 0.1 LU), and peaks of two oversamplings (Tech 3341: 0.3 dB). */
const [LOUDNESS, PEAK] = [0.1, 0.3];
const SECONDS = 4;

let folder: string;
let studio: NodeStudio;

/** Sounds as they come: of one channel and two, quiet, hot, and as hot as none should be. */
const SOUNDS = {
  'voice.wav': "aevalsrc='0.3*sin(2*PI*180*t)*(0.6+0.4*sin(2*PI*3*t))':s=44100",
  'music.wav': "aevalsrc='0.4*sin(2*PI*220*t)+0.2*sin(2*PI*660*t)|0.4*sin(2*PI*277*t)':s=48000",
  'hot.wav':
    "aevalsrc='2*exp(-6*mod(t,0.5))*(sin(2*PI*220*t)+sin(2*PI*330*t+1)+sin(2*PI*3000*t+2)+sin(2*PI*9000*t+3))':s=48000",
  'square.wav': "aevalsrc='1.4*sgn(sin(2*PI*110*t))':s=48000",
};

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'fresh-reel-heard-'));
  studio = await NodeStudio.start();
  for (const [name, source] of Object.entries(SOUNDS)) {
    const args = ['-f', 'lavfi', '-i', `${source}:d=${SECONDS}`, '-c:a', 'pcm_f32le'];
    execFileSync('ffmpeg', ['-v', 'error', '-y', ...args, join(folder, name)]);
    await studio.addFile(name, join(folder, name));
  }
});
afterAll(() => {
  studio.close();
  rmSync(folder, { recursive: true, force: true });
});

const reelOf = (...sounds: string[]): Reel => ({
  ...emptyReel({
    ...{ id: 'r', name: 'R', now: '2026-06-05T10:00:00Z' },
    ...{ frame: { width: 256, height: 144 }, rate: { num: 25, den: 1 } },
  }),
  tracks: [
    ...sounds.map((media) => ({
      id: media,
      items: [{ kind: 'sound' as const, id: media, start: 0, length: SECONDS * 25, media }],
    })),
    { id: 'v', items: [{ kind: 'colour', id: 'c', start: 0, length: SECONDS * 25, colour: '#204060' }] },
  ],
});

/** What the app promises of a reel. */
async function promised(reel: Reel): Promise<MixFacts> {
  const scene = new ReelScene(reel, studio);
  return (await hearReel(scene, (id) => studio.sound(id)))!.facts;
}

/** What a file measures, by ffmpeg's meter of EBU R 128 (an implementation that is not ours). */
function measured(path: string): MixFacts {
  const meter = ['-map', '0:a:0', '-af', 'ebur128=peak=true:framelog=verbose', '-f', 'null', '-'];
  const said = spawnSync('ffmpeg', ['-nostdin', '-i', path, ...meter], { encoding: 'utf8' }).stderr;
  const last = (what: RegExp) => Number([...said.matchAll(what)].at(-1)![1]);
  return { loudness: last(/I:\s+(-?[\d.]+) LUFS/g), peak: last(/Peak:\s+(-?[\d.]+) dBFS/g) };
}

async function rendered(reel: Reel, out: string, codec?: (typeof FILM_CODECS)[number]): Promise<string> {
  const frames = [0, SECONDS * 25 - 1] as const;
  const how = { size: reel.frame, alpha: undefined, timecode: undefined, rate: reel.rate, frames, codec };
  const opened = { reel, files: new Map<string, string>(), fonts: [], name: 'r' };
  await renderReel({ ...how, out: join(folder, out) }, studio, opened, () => undefined);
  return join(folder, out);
}

const HEARD = FILM_CODECS.filter((codec) => filmFacts(codec).sound);
const endings = (codec: (typeof FILM_CODECS)[number]) => filmFacts(codec).endings[0]!;

it.each(HEARD)('a film of %s is as loud as the app promises', async (codec) => {
  const reel = reelOf('voice.wav', 'music.wav');
  const [app, file] = [await promised(reel), measured(await rendered(reel, `f.${endings(codec)}`, codec))];
  expect(Math.abs(file.loudness - app.loudness)).toBeLessThanOrEqual(LOUDNESS);
  expect(file.peak).toBeLessThan(-1 + PEAK);
});

it('the sound beside pictures is as loud as the app promises', async () => {
  const reel = reelOf('voice.wav', 'music.wav');
  await rendered(reel, 'pictures');
  const wav = readdirSync(join(folder, 'pictures')).find((name) => name.endsWith('.wav'))!;
  const [app, file] = [await promised(reel), measured(join(folder, 'pictures', wav))];
  expect(Math.abs(file.loudness - app.loudness)).toBeLessThanOrEqual(LOUDNESS);
  expect(Math.abs(file.peak - app.peak)).toBeLessThanOrEqual(PEAK);
});

it.each(['h264', 'vp9'] as const)('what %s takes from a hot sound does not lift its peaks', async (codec) => {
  for (const sound of ['hot.wav', 'square.wav']) {
    const { peak } = measured(await rendered(reelOf(sound), `hot.${endings(codec)}`, codec));
    expect(peak).toBeLessThan(-1 + PEAK);
  }
});
