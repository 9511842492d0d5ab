import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  FILM_CODECS,
  type FilmCodec,
  filmFacts,
  newReel,
  type PictureKind,
  picturesOfCodec,
} from '@fresh-reel/core';
import { templateById } from '@fresh-reel/templates';
import { PNG } from 'pngjs';
import { main } from './cli/main';
import { withReel } from './rendering/openedReel';
import { paintOnThreads } from './rendering/threads';
import { zipped } from './renders/testing';

const SIZE = { width: 256, height: 144 };
const COUNT = 12;
/** Frames in which the strap stands. */
const FRAMES = ['--frames', '60-71'];
/** The frame that is looked at. */
const LOOK = 5;

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'fresh-reel-film-'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

async function render(out: string, ...more: string[]): Promise<string> {
  const spies = [
    jest.spyOn(console, 'log').mockImplementation(),
    jest.spyOn(console, 'error').mockImplementation(),
  ];
  const path = join(folder, out);
  try {
    const args = ['render', 'name-strap', '--out', path, '--size', `${SIZE.width}x${SIZE.height}`];
    const code = await main([...args, '--rate', '25', ...FRAMES, ...more]);
    expect([code, spies[1]!.mock.calls]).toEqual([0, []]);
  } finally {
    for (const spy of spies) spy.mockRestore();
  }
  return path;
}

interface Stream {
  readonly codec_type: string;
  readonly codec_name: string;
  readonly [key: string]: unknown;
}

/** What ffprobe counts and reads of a file. */
function probe(path: string): { picture: Stream; sound: Stream | undefined; timecode: unknown } {
  const args = ['-v', 'error', '-count_frames', '-show_streams', '-show_format', '-of', 'json', path];
  const { streams } = JSON.parse(execFileSync('ffprobe', args, { encoding: 'utf8' })) as {
    streams: Stream[];
  };
  const tags = streams.map((s) => (s.tags as { timecode?: string } | undefined)?.timecode);
  return {
    picture: streams.find((s) => s.codec_type === 'video')!,
    sound: streams.find((s) => s.codec_type === 'audio'),
    timecode: tags.find((t) => t !== undefined),
  };
}

/** A frame's straight pixels, as ffmpeg decodes them. */
function decoded(path: string, frame: number, decoder: readonly string[] = []): Buffer {
  const args = ['-v', 'error', ...decoder, '-i', path, '-vf', `select=eq(n\\,${frame})`, '-frames:v', '1'];
  return execFileSync('ffmpeg', [...args, '-f', 'rawvideo', '-pix_fmt', 'rgba', '-'], { maxBuffer: 1 << 24 });
}

/** Films: what is no numbered pictures in a zip. */
type Film = Exclude<FilmCodec, PictureKind>;
const FILMS = FILM_CODECS.filter((codec): codec is Film => !picturesOfCodec(codec));

const EXPECTED: Readonly<Record<Film, { codec: string; pixels: string; sound: string | undefined }>> = {
  h264: { codec: 'h264', pixels: 'yuv420p', sound: 'aac' },
  h265: { codec: 'hevc', pixels: 'yuv420p', sound: 'aac' },
  prores422hq: { codec: 'prores', pixels: 'yuv422p10le', sound: 'pcm_s24le' },
  prores4444: { codec: 'prores', pixels: 'yuva444p12le', sound: 'pcm_s24le' },
  dnxhr: { codec: 'dnxhd', pixels: 'yuv422p', sound: 'pcm_s24le' },
  ffv1: { codec: 'ffv1', pixels: 'bgra', sound: 'flac' },
  vp9: { codec: 'vp9', pixels: 'yuv420p', sound: 'opus' },
  av1: { codec: 'av1', pixels: 'yuv420p', sound: 'opus' },
  gif: { codec: 'gif', pixels: 'bgra', sound: undefined },
  webp: { codec: 'webp', pixels: 'argb', sound: undefined },
};

describe('numbered pictures', () => {
  it.each([
    ['png16', 'png', 'rgba64be'],
    ['tiff', 'tiff', 'rgba64le'],
  ])('of 16 bits as %s are the PNGs of 8 bits, numbered as asked', async (kind, ending, pixels) => {
    const plain = await render(`plain-${kind}`);
    const asked = await render(`asked-${kind}`, '--pictures', kind, '--number', '1001');
    const names = readdirSync(asked).filter((file) => !file.endsWith('.wav'));
    expect(names.sort()).toEqual(
      Array.from({ length: COUNT }, (_, i) => `name-strap_0${1001 + i}.${ending}`),
    );
    const path = join(asked, names[LOOK]!);
    expect(probe(path).picture).toMatchObject({ pix_fmt: pixels, ...SIZE });
    const wide = execFileSync('ffmpeg', [
      ...['-v', 'error', '-i', path, '-f', 'rawvideo', '-pix_fmt', 'rgba64le', 'pipe:1'],
    ]);
    const own = readdirSync(plain)
      .filter((file) => file.endsWith('.png'))
      .sort();
    const { data } = PNG.sync.read(readFileSync(join(plain, own[LOOK]!)));
    const values = new Uint16Array(wide.buffer, wide.byteOffset, wide.byteLength / 2);
    expect(values.length).toBe(data.length);
    expect(values.every((v, i) => v === data[i]! * 257)).toBe(true);
    // In a zip, where one file is asked for.
    const zip = await render(`asked-${kind}.zip`, '--codec', kind);
    const entries = await zipped(readFileSync(zip));
    expect([...entries.keys()]).toEqual(
      Array.from({ length: COUNT }, (_, i) => `frame_${String(i + 1).padStart(5, '0')}.${ending}`),
    );
    expect([...entries.values()][LOOK]!.equals(readFileSync(path))).toBe(true);
    expect(readdirSync(folder).filter((file) => file.endsWith('.pictures'))).toEqual([]);
    // What an earlier render of more frames has left is no part of this one.
    await render(`asked-${kind}`, '--pictures', kind, '--frames', '60-62');
    expect(readdirSync(asked).filter((file) => !file.endsWith('.wav'))).toHaveLength(3);
  });
});

describe('films from the command line', () => {
  let straight: Buffer;
  beforeAll(async () => {
    const pictures = await render('pictures');
    straight = PNG.sync.read(readFileSync(join(pictures, `name-strap_0000${LOOK + 1}.png`))).data;
  }, 60_000);

  it.each(FILMS)(
    '%s has every frame, its rate, its tags and its sound',
    async (codec) => {
      const path = await render(`of-${codec}.${filmFacts(codec).endings[0]}`, '--codec', codec);
      if (codec === 'webp') {
        // ffmpeg writes animated WebP and does not read it: its chunks are counted (RFC 9649).
        const bytes = readFileSync(path).toString('latin1');
        expect([bytes.slice(0, 4), bytes.slice(8, 12), bytes.includes('ANIM')]).toEqual([
          'RIFF',
          'WEBP',
          true,
        ]);
        expect(bytes.split('ANMF').length - 1).toBeGreaterThan(0);
        return;
      }
      const { picture, sound, timecode } = probe(path);
      const expected = EXPECTED[codec];
      expect([picture.codec_name, picture.pix_fmt, sound?.codec_name]).toEqual([
        expected.codec,
        expected.pixels,
        expected.sound,
      ]);
      expect([picture.width, picture.height, Number(picture.nb_read_frames), picture.r_frame_rate]).toEqual([
        SIZE.width,
        SIZE.height,
        COUNT,
        '25/1',
      ]);
      if (/mov|mp4/.test(path)) expect(timecode).toBe('00:00:00:00');
      if (!['ffv1', 'gif'].includes(codec))
        expect([
          picture.color_space,
          picture.color_primaries,
          picture.color_transfer,
          picture.color_range,
        ]).toEqual(['bt709', 'bt709', 'bt709', 'tv']);
      // What it shows is what the pictures show: laid on black where it keeps no transparency.
      const alpha = filmFacts(codec).alpha;
      const shown = decoded(path, LOOK, codec === 'vp9' ? ['-c:v', 'libvpx-vp9'] : []);
      let [off, alphaOff] = [0, 0];
      for (let i = 0; i < straight.length; i += 4) {
        const a = straight[i + 3]! / 255;
        alphaOff += Math.abs(shown[i + 3]! - (alpha ? straight[i + 3]! : 255));
        for (let k = 0; k < 3; k++)
          off += Math.abs(shown[i + k]! * (alpha ? a : 1) - straight[i + k]! * a) / 3;
      }
      const pixels = SIZE.width * SIZE.height;
      // Means over all pixels. FFV1 loses nothing; a palette the most.
      const most = codec === 'ffv1' ? 0 : codec === 'gif' ? 6 : 3;
      expect(off / pixels).toBeLessThanOrEqual(most);
      expect(alphaOff / pixels).toBeLessThanOrEqual(codec === 'gif' ? 6 : codec === 'ffv1' ? 0 : 1);
    },
    60_000,
  );

  it('takes its codec from the ending, its timecode and its alpha as asked, and leaves nothing else', async () => {
    const path = await render('cut/asked.mov', '--timecode', '10:00:00:00', '--alpha', 'premultiplied');
    const { picture, timecode } = probe(path);
    expect([picture.profile, timecode]).toEqual(['4444', '10:00:00:00']);
    const shown = decoded(path, LOOK);
    let off = 0;
    for (let i = 0; i < straight.length; i += 4)
      for (let k = 0; k < 3; k++)
        off += Math.abs(shown[i + k]! - (straight[i + k]! * straight[i + 3]!) / 255);
    expect(off / (straight.length / 4) / 3).toBeLessThan(2);
    expect(readdirSync(join(folder, 'cut'))).toEqual(['asked.mov']);
  }, 60_000);

  it('paints on threads what one thread paints, in order', async () => {
    const size = { width: 64, height: 36 };
    const wanted = { what: 'name-strap', fill: undefined, size, originals: undefined };
    const [one, two] = await withReel(wanted, (_, { reel, files, fonts }) => {
      const frames = async (threads: number) => {
        const seen: string[] = [];
        const terms = { rate: { num: 25, den: 1 }, from: 0, count: 40, folder, stem: 's', raw: true };
        await paintOnThreads({ reel, files: [...files], fonts, size, ...terms }, threads, (rgba) => {
          seen.push(createHash('sha256').update(rgba!).digest('hex'));
        });
        return seen;
      };
      return Promise.all([frames(1), frames(2)]);
    });
    expect(one).toHaveLength(40);
    expect(new Set(one).size).toBeGreaterThan(20);
    expect(two).toEqual(one);
  }, 60_000);

  it('is the same file each time, and no file where there is no ffmpeg', async () => {
    const [one, two] = [await render('one.mkv'), await render('two.mkv')];
    expect(readFileSync(one)).toEqual(readFileSync(two));
    const bin = join(__dirname, '../bin/fresh-reel.mjs');
    const without = (what: string) => {
      const args = [bin, 'render', what, '--out', join(folder, 'none.mp4')];
      const { status, stderr } = spawnSync(process.execPath, args, {
        encoding: 'utf8',
        env: { PATH: '/nowhere' },
      });
      return [status, stderr.trim()];
    };
    // Its sounds are read by it as well.
    expect(without('name-strap')).toEqual([
      1,
      expect.stringMatching(/^Clips and sounds are read by ffmpeg, which is not here\. Install it first/),
    ]);
    const silent = join(folder, 'silent.freshreel');
    const made = newReel(templateById('name-strap')!, { id: 'r', name: 'R', now: '', shape: 'wide' });
    const items = [{ kind: 'colour' as const, id: 'c', start: 0, length: 5, colour: '#204060' }];
    writeFileSync(silent, JSON.stringify({ ...made, templates: {}, tracks: [{ id: 't', items }] }));
    expect(without(silent)).toEqual([
      1,
      expect.stringMatching(/ffmpeg, which is not here\. Install it first/),
    ]);
    expect(existsSync(join(folder, 'none.mp4'))).toBe(false);
    expect(readdirSync(folder).filter((name) => name.startsWith('.'))).toEqual([]);
  }, 60_000);
});
