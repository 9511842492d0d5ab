import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { PNG } from 'pngjs';
import type { Page } from 'puppeteer-core';
import { choose, id, LAPTOP, renderNow, serve, tap, waitForText } from './support/browser';
import { ffmpeg, folder } from './support/clips';
import { exifJpeg, UPRIGHT } from './support/exif';
import { coloursOf, difference, frameOf, painted, pixel, probe } from './support/probe';
import { type Cell, openReel, slotReel } from './support/slotReel';
import { ssim } from './support/ssim';

/**
 * What went in comes out. Pictures are compared with what pngjs and ffmpeg decode, clips with the colours they were
 * made of and by SSIM as ffmpeg's own filter computes it; orientation follows the table of tag 274 in Exif 2.32.
 */

const session = serve();
let page: Page;
beforeAll(async () => {
  page = await session.page(LAPTOP, '/reels');
});

/** The size everything is made in and rendered at: half of the frame's. */
const [W, H] = [960, 540];
const RATE = { num: 25, den: 1 };

/** Opens a reel with slots and puts files in them, from the first on. */
async function filled(cells: readonly Cell[], frames: number, ...files: readonly string[]): Promise<void> {
  await page.goto(`${session.address}/reels`);
  await openReel(session, page, slotReel('What went in', RATE, frames, cells));
  await choose(page, `choose-${cells[0]!.id}`, ...files);
  for (const [i] of files.entries()) await page.waitForSelector(id(`reset-slot-${cells[i]!.id}`));
  await page.waitForSelector(id('import-progress'), { hidden: true });
}

async function rendered(format: 'png' | 'mp4' | 'webm', size: string): Promise<Buffer> {
  await renderNow(page, format, size, format === 'png' ? undefined : '25');
  await tap(page, 'render-download');
  const bytes = await session.take(`.${format}`);
  // What is done makes room for the next.
  await page.click('[aria-label^="Remove "]');
  await page.waitForSelector(id('render-done'), { hidden: true });
  return bytes;
}

/** The first frame as a PNG. */
const still = async () => PNG.sync.read(await rendered('png', '540'));

/** A render in a container. */
async function film(format: 'mp4' | 'webm'): Promise<string> {
  const path = join(folder, `film-${Date.now()}.${format}`);
  writeFileSync(path, await rendered(format, '540'));
  return path;
}

/** The largest difference of any channel of any pixel. */
function largest(a: PNG, b: PNG): number {
  let most = 0;
  for (let i = 0; i < a.data.length; i++) most = Math.max(most, Math.abs(a.data[i]! - b.data[i]!));
  return most;
}

/** A quarter of the frame, by its number: across, then down. */
const QUARTER = [W / 2, H / 2] as const;
const quarters = (names: readonly string[]): Cell[] =>
  names.map((name, i) => ({ id: name, offset: [(i % 2) * W, Math.floor(i / 2) * H], size: [W, H] }));
function quarter(png: PNG, i: number): PNG {
  const [w, h] = QUARTER;
  const part = new PNG({ width: w, height: h });
  PNG.bitblt(png, part, (i % 2) * w, Math.floor(i / 2) * h, w, h, 0, 0);
  return part;
}

/** Colours as they are meant, in sRGB. */
const COLOURS: Readonly<Record<string, readonly [number, number, number]>> = {
  red: [200, 30, 30],
  green: [30, 160, 60],
  blue: [30, 60, 200],
  yellow: [230, 200, 40],
  skin: [220, 170, 140],
  grey: [128, 128, 128],
  dark: [24, 24, 24],
  light: [240, 240, 240],
};

function nearest(found: readonly number[]): string {
  const off = (c: readonly number[]) => c.reduce((sum, v, i) => sum + Math.abs(v - found[i]!), 0);
  return Object.entries(COLOURS).sort((a, b) => off(a[1]) - off(b[1]))[0]![0];
}

describe('pictures', () => {
  const [w, h] = QUARTER;
  const every = painted(w, h, (x, y) => [(x * 7 + y) & 255, (y * 5 + (x >> 3)) & 255, (x ^ y) & 255, 255]);
  const fading = painted(w, h, (x) => [200, 90, 40, Math.floor((x * 256) / w)]);
  const smooth = join(folder, 'smooth.jpg');
  /** The eight ways lie in the last quarter, four across and two down. */
  const ways: Cell[] = Array.from({ length: 8 }, (_, i) => ({
    id: `way-${i + 1}`,
    offset: [W + (i % 4) * (W / 4), H + Math.floor(i / 4) * (H / 2)],
    size: [W / 4, H / 2],
  }));
  let out: PNG;
  beforeAll(async () => {
    const file = (name: string, bytes: Uint8Array) => {
      writeFileSync(join(folder, name), bytes);
      return join(folder, name);
    };
    ffmpeg(['-f', 'lavfi', '-i', `gradients=s=${w}x${h}:n=5:seed=7`, '-frames:v', '1', '-q:v', '2', smooth]);
    await filled(
      [...quarters(['every', 'fading', 'smooth']), ...ways],
      1,
      file('every.png', PNG.sync.write(every)),
      file('fading.png', PNG.sync.write(fading)),
      smooth,
      ...ways.map((way, i) => file(`${way.id} held.jpg`, exifJpeg(i + 1))),
    );
    out = await still();
  });

  it('a PNG comes out as pngjs writes it, to the last bit', () => {
    expect(largest(quarter(out, 0), every)).toBe(0);
  });

  it('the transparent parts of a PNG stay as they are', () => {
    const came = quarter(out, 1);
    const alphas = (p: PNG) => Array.from({ length: w }, (_, x) => pixel(p, x, 100)[3]!);
    expect(alphas(came)).toEqual(alphas(fading));
    // Colours are kept multiplied by their alpha in eight bits, so what is nearly transparent knows them less well.
    for (const x of [100, 250, 450]) {
      const [r, g, b, a] = pixel(came, x, 100) as [number, number, number, number];
      const off = Math.max(Math.abs(r - 200), Math.abs(g - 90), Math.abs(b - 40));
      expect(off).toBeLessThanOrEqual(128 / a + 1);
    }
  });

  it('a JPEG comes out as ffmpeg decodes it, but for how the colours between are filled in', () => {
    const decoded = PNG.sync.read(
      ffmpeg(['-i', smooth, '-f', 'image2pipe', '-c:v', 'png', '-pix_fmt', 'rgba', 'pipe:1']),
    );
    expect(difference(quarter(out, 2), decoded)).toBeLessThan(0.1);
    expect(largest(quarter(out, 2), decoded)).toBeLessThanOrEqual(6);
  });

  it('a JPEG stands upright, whichever of the eight ways its camera was held', () => {
    const seen = ways.map(({ offset: [x, y] = [0, 0], size: [across, down] = [0, 0] }) =>
      [0.15, 0.85].flatMap((v) =>
        [0.15, 0.85].map((u) =>
          nearest(pixel(out, Math.round((x + u * across) / 2), Math.round((y + v * down) / 2))),
        ),
      ),
    );
    expect(seen).toEqual(UPRIGHT);
  });
});

const KINDS = [
  ['bt709', 'tv'],
  ['bt709', 'pc'],
  ['bt601', 'tv'],
  ['bt601', 'pc'],
] as const;

describe('colours of a clip come out as they went in', () => {
  const meant = Object.values(COLOURS);
  let [seen, filmed] = [new PNG({ width: 1, height: 1 }), new PNG({ width: 1, height: 1 })];

  /** A clip of fields of the colours, four across and two down. */
  function fields(source: string, matrix: string, range: string): string {
    const path = join(folder, `${matrix}-${range}.mp4`);
    const to = `out_color_matrix=${matrix}:out_range=${range}:flags=accurate_rnd+full_chroma_int`;
    ffmpeg([
      ...['-loop', '1', '-framerate', '25', '-t', '0.4', '-i', source],
      ...['-vf', `scale=${to},format=yuv420p`, '-c:v', 'libx264', '-crf', '12'],
      ...['-colorspace', matrix === 'bt601' ? 'smpte170m' : matrix, '-color_range', range],
      ...['-color_primaries', 'bt709', '-color_trc', 'iec61966-2-1', path],
    ]);
    return path;
  }

  beforeAll(async () => {
    const [w, h] = QUARTER;
    const source = join(folder, 'fields.png');
    const field = (x: number, y: number) => meant[Math.floor((x * 4) / w) + (y * 2 < h ? 0 : 4)]!;
    writeFileSync(source, PNG.sync.write(painted(w, h, (x, y) => [...field(x, y), 255])));
    await filled(
      quarters(KINDS.map((k) => k.join('-'))),
      5,
      ...KINDS.map(([matrix, range]) => fields(source, matrix, range)),
    );
    seen = await still();
    const path = await film('mp4');
    expect(coloursOf(path)).toEqual({ range: 'tv', matrix: 'bt709', primaries: 'bt709', transfer: 'bt709' });
    filmed = frameOf(path, 0.04, false);
  });

  it.each(KINDS)('in %s, range %s', (matrix, range) => {
    const part = KINDS.findIndex((k) => k[0] === matrix && k[1] === range);
    const off = (png: PNG) =>
      meant.map((colour, i) => {
        const found = pixel(quarter(png, part), (i % 4) * 120 + 60, i < 4 ? 68 : 202);
        return Math.max(...colour.map((v, c) => Math.abs(v - found[c]!)));
      });
    // A step of chroma is two of blue; the encoder is allowed one more.
    expect(Math.max(...off(seen))).toBeLessThanOrEqual(4);
    expect(Math.max(...off(filmed))).toBeLessThanOrEqual(6);
  });
});

describe('clips', () => {
  it('a clip that fills the frame is in the file as it was, by SSIM', async () => {
    const path = join(__dirname, '../packages/templates/src/shared/kites-crossing.mp4');
    await filled([{ id: 'all' }], 10, path);
    const file = await film('mp4');
    const found = ssim(path, file, 10);
    expect(found).toBeGreaterThan(0.96);
  });

  it('a transparent clip is transparent in the file, where and as much as it was', async () => {
    const path = join(folder, 'cut-out.webm');
    ffmpeg([
      ...['-f', 'lavfi', '-i', 'color=c=0x20A060:s=960x540:r=25:d=0.4'],
      ...[
        '-vf',
        "format=yuva444p,geq=lum='lum(X,Y)':cb='cb(X,Y)':cr='cr(X,Y)':a='255*clip((X-200-N*10)/400,0,1)',format=yuva420p",
      ],
      ...['-c:v', 'libvpx-vp9', '-b:v', '6M', '-deadline', 'realtime', '-cpu-used', '8', path],
    ]);
    await filled([{ id: 'all' }], 10, path);
    await waitForText(page, 'said-all', /transparent parts/);
    const file = await film('webm');
    expect(probe(file)).toMatchObject({ codec: 'vp9', alpha: true, frames: 10 });
    expect(coloursOf(file)).toMatchObject({ range: 'tv', matrix: 'bt709' });
    for (const at of [0, 0.2]) {
      const [went, came] = [frameOf(path, at, true), frameOf(file, at, true)];
      const alphas = (p: PNG) => Array.from({ length: 19 }, (_, i) => pixel(p, 25 + i * 50, 270)[3]!);
      for (const [i, a] of alphas(went).entries())
        expect(Math.abs(a - alphas(came)[i]!)).toBeLessThanOrEqual(8);
    }
  });
});

describe('colours of what is half transparent, by value', () => {
  const [w, h] = QUARTER;
  // Half a blue, and a cream disc whose edge is soft, each on nothing.
  const cream = [246, 232, 200] as const;
  const reach = (x: number, y: number) =>
    Math.min(1, Math.max(0, (110 - Math.hypot(x - w / 2, y - h / 2)) / 12));
  const blue = painted(w, h, () => [16, 64, 223, 128]);
  const disc = painted(w, h, (x, y) => [...cream, Math.round(255 * reach(x, y))]);
  let file = '';
  beforeAll(async () => {
    const paths = Object.entries({ blue, disc }).map(([name, png]) => {
      writeFileSync(join(folder, `${name}.png`), PNG.sync.write(png));
      return join(folder, `${name}.png`);
    });
    await filled(quarters(['blue', 'disc']), 5, ...paths);
    file = await film('webm');
  });
  /** A colour over white. */
  const overWhite = ([r, g, b, a]: readonly number[]) =>
    [r, g, b].map((v) => (v! * a! + 255 * (255 - a!)) / 255);

  it('in WebM they are straight, as ffmpeg reads them', () => {
    const png = frameOf(file, 0.1, true);
    const found = pixel(png, 200, 130);
    for (const [i, v] of [16, 64, 223, 128].entries()) expect(Math.abs(found[i]! - v)).toBeLessThanOrEqual(5);
    // Along the edge of the disc the colour stays what it is, however little of it is left.
    for (let x = 100; x < 122; x++) {
      const edge = pixel(png, w + w / 2 + x, h / 2);
      if (edge[3]! < 24) continue;
      for (const [i, v] of cream.entries()) expect(Math.abs(edge[i]! - v)).toBeLessThanOrEqual(10);
    }
  });

  it('and over white in Chromium', async () => {
    const bytes = readFileSync(file).toString('base64');
    // A page of its own: the app's does not let media in from anywhere but its own files.
    const blank = await page.browser().newPage();
    const seen = await blank.evaluate(
      async (data, at) => {
        const video = document.createElement('video');
        video.muted = true;
        video.src = `data:video/webm;base64,${data}`;
        await new Promise((resolve, reject) => {
          video.onseeked = resolve;
          video.onerror = () => reject(new Error(video.error?.message));
          video.onloadeddata = () => (video.currentTime = 0.1);
        });
        const canvas = document.createElement('canvas');
        [canvas.width, canvas.height] = [video.videoWidth, video.videoHeight];
        const context = canvas.getContext('2d')!;
        context.fillStyle = '#FFFFFF';
        context.fillRect(0, 0, canvas.width, canvas.height);
        context.drawImage(video, 0, 0);
        return at.map(([x, y]) => [...context.getImageData(x!, y!, 1, 1).data]);
      },
      bytes,
      [
        [200, 130],
        [w + w / 2 + 104, h / 2],
      ],
    );
    await blank.close();
    const wanted = [overWhite([16, 64, 223, 128]), overWhite([...cream, 255 * reach(w / 2 + 104, h / 2)])];
    for (const [i, colour] of wanted.entries())
      for (const [c, v] of colour.entries()) expect(Math.abs(seen[i]![c]! - v)).toBeLessThanOrEqual(6);
  });
});

it('nothing on the pages complained', () => expect(session.faults).toEqual([]));
