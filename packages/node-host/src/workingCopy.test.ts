import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Picture } from '@fresh-reel/core';
import { NodeClip } from './clip';
import { type Footage, lookAtFootage } from './footage';
import { createNodeSurface } from './surface';
import { makeWorkingCopy } from './workingCopy';

const folder = mkdtempSync(join(tmpdir(), 'fresh-reel-copies-'));
const at = (name: string) => join(folder, name);
const ffmpeg = (...args: string[]) => execFileSync('ffmpeg', ['-v', 'error', '-y', ...args]);
const ffprobe = (path: string, ...what: string[]) =>
  execFileSync('ffprobe', ['-v', 'error', '-of', 'csv=p=0', ...what, path])
    .toString()
    .trim();

/** Frame n of it is grey, 8 more with each frame; the left half, so that a turn is seen. */
const NUMBERED = "geq=lum='if(lt(X,W/2),16+8*mod(N,25),235)':cb=128:cr=128";
const source = ['-f', 'lavfi', '-i', `color=black:s=160x90:r=25:d=1,${NUMBERED}`];
const HEVC = ['-c:v', 'libx265', '-x265-params', 'log-level=none', '-pix_fmt', 'yuv420p10le', '-qp', '6'];

async function copied(name: string): Promise<{ path: string; footage: Footage; parts: number[] }> {
  const footage = await lookAtFootage(at(name));
  const path = at(`${name}.copy`);
  const parts: number[] = [];
  await makeWorkingCopy(at(name), path, footage, { onProgress: (part) => parts.push(part) });
  return { path, footage, parts };
}

/** Times of its frames in seconds, as ffprobe tells them. */
const times = (path: string) =>
  ffprobe(path, '-select_streams', 'v:0', '-show_entries', 'frame=pts_time')
    .split('\n')
    .flatMap((line) => (/^\d/.test(line) ? Number.parseFloat(line) : []));
const count = (path: string) =>
  Number.parseInt(
    ffprobe(path, '-count_frames', '-select_streams', 'v:0', '-show_entries', 'stream=nb_read_frames'),
    10,
  );
const stream = (path: string, entries: string) =>
  ffprobe(path, '-select_streams', 'v:0', '-show_entries', `stream=${entries}`);

function pixel({ image }: Picture, x: number, y: number): number[] {
  const { context } = createNodeSurface(1, 1);
  context.drawImage(image, -x, -y);
  return [...context.getImageData(0, 0, 1, 1).data];
}
const numberOf = (picture: Picture) => Math.round((pixel(picture, 20, 45)[0]! * 219) / 255 / 8);

async function numbers(path: string, count: number): Promise<number[]> {
  const clip = await NodeClip.open(path);
  const middles = Array.from({ length: count }, (_, n) => (n + 0.5) / 25);
  await clip.ready(middles);
  const found = middles.map((s) => numberOf(clip.frame(s)!));
  clip.close();
  return found;
}
const COUNT = Array.from({ length: 25 }, (_, n) => n);

describe('a working copy', () => {
  it('of ten bits of H.265 is H.264 of eight, frame for frame, and tells how far it is', async () => {
    ffmpeg(...source, ...HEVC, '-tag:v', 'hvc1', at('phone.mov'));
    const { path, footage, parts } = await copied('phone.mov');
    expect(footage).toMatchObject({ codec: 'hevc', width: 160, height: 90, interlaced: false, hdr: false });
    expect(stream(path, 'codec_name,width,height,pix_fmt')).toBe('h264,160,90,yuv420p');
    expect(await numbers(path, 25)).toEqual(COUNT);
    expect(parts.at(-1)).toBeGreaterThan(0.8);
    expect(parts.every((p) => p >= 0 && p <= 1)).toBe(true);
  });

  it('is upright and has square pixels', async () => {
    ffmpeg(...source, '-vf', 'setsar=2/1', ...HEVC, at('flat.mp4'));
    ffmpeg('-i', at('flat.mp4'), '-c', 'copy', '-metadata:s:v', 'rotate=90', at('turned.mp4'));
    const flat = await copied('flat.mp4');
    expect(flat.footage).toMatchObject({ width: 320, height: 90, stretched: true });
    expect(stream(flat.path, 'width,height,sample_aspect_ratio')).toBe('320,90,1:1');
    const turned = await copied('turned.mp4');
    expect(turned.footage).toMatchObject({ width: 90, height: 320 });
    expect(stream(turned.path, 'width,height')).toBe('90,320');
    const clip = await NodeClip.open(turned.path);
    await clip.ready([0.02]);
    // The white half was on the right; ffmpeg writes a quarter against the clock, which takes it to the top.
    expect(pixel(clip.frame(0.02)!, 45, 40)[0]).toBeGreaterThan(220);
    expect(pixel(clip.frame(0.02)!, 45, 280)[0]).toBeLessThan(40);
    clip.close();
  });

  it('of a variable rate keeps each frame at its own time', async () => {
    ffmpeg(
      ...source,
      '-vf',
      "setpts='if(lt(N,10),N,10+2*(N-10)+mod(N,2)*0.3)/25/TB'",
      '-fps_mode',
      'vfr',
      ...HEVC,
      at('uneven.mkv'),
    );
    const { path } = await copied('uneven.mkv');
    const [before, after] = [times(at('uneven.mkv')), times(path)];
    expect(after.length).toBe(before.length);
    expect(Math.max(...after.map((t, i) => Math.abs(t - before[i]!)))).toBeLessThan(0.002);
  });

  it('of one cut by its edit list begins where it does when it is played', async () => {
    ffmpeg(...source, ...HEVC, '-g', '25', at('whole.mp4'));
    ffmpeg('-ss', '0.4', '-i', at('whole.mp4'), '-c', 'copy', at('edited.mp4'));
    const { path } = await copied('edited.mp4');
    expect(await numbers(path, 15)).toEqual(COUNT.slice(10));
  });

  it('begins at 0, its sound beside it, where the file begins later', async () => {
    const tone = ['-f', 'lavfi', '-i', 'sine=frequency=440:duration=1'];
    ffmpeg(...source, ...tone, ...HEVC, '-c:a', 'aac', '-muxdelay', '1.4', at('stream.ts'));
    const { path, footage } = await copied('stream.ts');
    expect(footage.channels).toBe(1);
    // The picture begins as long after the sound as it does in the file.
    const begins = (kind: string) =>
      Number.parseFloat(
        ffprobe(at('stream.ts'), '-select_streams', kind, '-show_entries', 'stream=start_time').split(
          '\n',
        )[0]!,
      );
    expect(Math.abs(times(path)[0]! - (begins('v:0') - begins('a:0')))).toBeLessThan(0.002);
    expect(ffprobe(path, '-select_streams', 'a:0', '-show_entries', 'stream=codec_name')).toBe('aac');
    expect(count(path)).toBe(25);
  });

  it('of interlaced footage is progressive, and as many frames', async () => {
    // A box that goes 8 pixels a field: woven together its edge is a comb.
    ffmpeg(
      ...[
        '-f',
        'lavfi',
        '-i',
        "color=black:s=160x96:r=50:d=1,geq=lum='if(between(X,N*2,N*2+40)*between(Y,20,76),235,16)':cb=128:cr=128",
      ],
      ...[
        '-vf',
        'interlace=lowpass=0',
        '-c:v',
        'mpeg2video',
        '-flags',
        '+ildct+ilme',
        '-q:v',
        '2',
        at('fields.mpg'),
      ],
    );
    const { path, footage } = await copied('fields.mpg');
    expect(footage.interlaced).toBe(true);
    expect(count(path)).toBe(count(at('fields.mpg')));
    const combs = async (file: string) => {
      const clip = await NodeClip.open(file);
      await clip.ready([0.5]);
      const found = clip.frame(0.5)!;
      // Rows beside each other differ where the fields do.
      let sum = 0;
      for (let y = 30; y < 66; y++)
        for (let x = 0; x < 160; x += 2) sum += Math.abs(pixel(found, x, y)[0]! - pixel(found, x, y + 1)[0]!);
      clip.close();
      return sum;
    };
    expect(await combs(path)).toBeLessThan((await combs(at('fields.mpg'))) / 6);
  });

  it('of high dynamic range is brought to BT.709, white at white', async () => {
    const hlg = ['-color_primaries', 'bt2020', '-color_trc', 'arib-std-b67', '-colorspace', 'bt2020nc'];
    const params = [
      '-x265-params',
      'log-level=none:colorprim=bt2020:transfer=arib-std-b67:colormatrix=bt2020nc',
    ];
    ffmpeg(...source, '-c:v', 'libx265', ...params, '-pix_fmt', 'yuv420p10le', ...hlg, at('hlg.mov'));
    const { path, footage } = await copied('hlg.mov');
    expect(footage.hdr).toBe(true);
    expect(stream(path, 'color_transfer,color_space')).toMatch(/bt709/);
    const clip = await NodeClip.open(path);
    await clip.ready([0.5]);
    const [light] = pixel(clip.frame(0.5)!, 140, 45);
    expect(light).toBeGreaterThan(150);
    clip.close();
  });

  it('of one with alpha keeps it', async () => {
    const half =
      "color=red:s=160x90:r=25:d=1,format=yuva444p10le,geq=lum='p(X,Y)':cb='cb(X,Y)':cr='cr(X,Y)':a='if(lt(X,80),0,1023)'";
    ffmpeg('-f', 'lavfi', '-i', half, '-c:v', 'prores_ks', '-profile:v', '4444', at('logo.mov'));
    const { path, footage } = await copied('logo.mov');
    expect(footage.alpha).toBe(true);
    const clip = await NodeClip.open(path);
    await clip.ready([0.5]);
    expect(pixel(clip.frame(0.5)!, 20, 45)[3]).toBeLessThan(10);
    expect(pixel(clip.frame(0.5)!, 140, 45)[3]).toBeGreaterThan(245);
    clip.close();
  });

  it('leaves nothing behind when it is stopped, or the file is none', async () => {
    ffmpeg(...source, ...HEVC, at('stopped.mp4'));
    const footage = await lookAtFootage(at('stopped.mp4'));
    const stop = new AbortController();
    const making = makeWorkingCopy(at('stopped.mp4'), at('stopped.copy'), footage, { signal: stop.signal });
    stop.abort();
    await expect(making).rejects.toThrow();
    expect(existsSync(at('stopped.copy'))).toBe(false);
    ffmpeg('-f', 'lavfi', '-i', 'sine=duration=0.2', at('tone.wav'));
    await expect(lookAtFootage(at('tone.wav'))).rejects.toThrow(/no moving picture/);
  });
});
