import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { NodeStudio } from './studio';

it('a vector picture has as many pixels as one likes, any other its own', async () => {
  const studio = await NodeStudio.start();
  const svg =
    '\n<svg xmlns="http://www.w3.org/2000/svg" width="30" height="20"><rect width="30" height="20"/></svg>';
  await studio.addPicture('vector', new TextEncoder().encode(svg));
  await studio.addPicture(
    'raster',
    readFileSync(new URL('../../../demo/radio-logo.png', `file://${__dirname}/`)),
  );
  expect(studio.mediaFacts('vector')).toEqual({ width: 30, height: 20, density: Number.POSITIVE_INFINITY });
  expect(studio.mediaFacts('raster')).toEqual({ width: expect.any(Number), height: expect.any(Number) });
  await expect(studio.addPicture('none', new Uint8Array([1, 2, 3]))).rejects.toThrow();
  studio.close();
});

it('that only paints leaves sounds closed, and knows that they are there', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'fresh-reel-studio-'));
  const at = (name: string) => join(folder, name);
  const ffmpeg = (...args: string[]) => execFileSync('ffmpeg', ['-v', 'error', '-y', ...args]);
  const [tone, ground] = ['sine=duration=0.2', 'color=red:s=64x36:d=0.2'];
  ffmpeg('-f', 'lavfi', '-i', tone, at('tone.wav'));
  ffmpeg('-f', 'lavfi', '-i', ground, '-f', 'lavfi', '-i', tone, at('clip.mp4'));
  writeFileSync(at('none.txt'), 'neither seen nor heard');
  const assets = { find: (id: string) => (id === 'sample' ? at('tone.wav') : undefined) };
  for (const paintsOnly of [false, true]) {
    const studio = await NodeStudio.start(assets, { paintsOnly });
    await studio.addFile('tone', at('tone.wav'));
    await studio.addFile('clip', at('clip.mp4'));
    await expect(studio.addFile('none', at('none.txt'))).rejects.toThrow();
    await studio.prepare({
      fonts: () => ({ faces: [], scripts: [] }),
      media: () => [],
      sounds: () => ['sample'],
    });
    expect(['tone', 'clip', 'sample', 'none'].map((id) => studio.hasSound(id))).toEqual([
      true,
      true,
      true,
      false,
    ]);
    expect(['tone', 'clip', 'sample'].map((id) => studio.sound(id) !== undefined)).toEqual(
      Array(3).fill(!paintsOnly),
    );
    expect(studio.mediaFacts('clip')).toMatchObject({ width: 64, height: 36 });
    studio.close();
  }
  rmSync(folder, { recursive: true });
});
