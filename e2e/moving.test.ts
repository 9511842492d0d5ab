/** Moving pictures as this browser writes them, played by its own decoder of pictures (ImageDecoder of WebCodecs). */
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import type { Page } from 'puppeteer-core';
import { id, PHONE, renderNow, serve, tap } from './support/browser';
import { numberedClip } from './support/clips';
import { openReel, slotReel } from './support/slotReel';

const session = serve();
const FRAMES = 12;

interface Played {
  readonly frames: number;
  readonly seconds: number;
  /** Of the last frame: a pixel above the number in the clip, and one beside the clip. */
  readonly shown: readonly number[];
  readonly beside: readonly number[];
}

function played(page: Page, file: Buffer, type: string): Promise<Played> {
  return page.evaluate(
    async (text: string, kind: string) => {
      const bytes = Uint8Array.from(atob(text), (c) => c.charCodeAt(0));
      const Decoder = (globalThis as unknown as { ImageDecoder: typeof ImageDecoder }).ImageDecoder;
      const decoder = new Decoder({ data: bytes, type: kind });
      await decoder.completed;
      await decoder.tracks.ready;
      const { frameCount } = decoder.tracks.selectedTrack!;
      let micros = 0;
      let shown: number[] = [];
      let beside: number[] = [];
      for (let i = 0; i < frameCount; i++) {
        const { image } = await decoder.decode({ frameIndex: i });
        micros += image.duration ?? 0;
        const canvas = new OffscreenCanvas(image.displayWidth, image.displayHeight);
        const context = canvas.getContext('2d')!;
        context.drawImage(image, 0, 0);
        const at = (x: number) => [...context.getImageData(x, canvas.height / 27, 1, 1).data];
        [shown, beside] = [at(canvas.width / 4), at(canvas.width - 4)];
        image.close();
      }
      return { frames: frameCount, seconds: micros / 1e6, shown, beside };
    },
    file.toString('base64'),
    type,
  );
}

it('GIF, animated WebP and animated PNG play as long as the reel, clear where it is clear', async () => {
  const page = await session.page(PHONE, '/reels');
  const clip = numberedClip('moving.mp4', FRAMES, '25', ['-c:v', 'libx264', '-pix_fmt', 'yuv420p']);
  // In a corner; what is beside it is clear.
  const reel = slotReel('Moving', { num: 25, den: 1 }, FRAMES, [{ id: 'clip', size: [960, 540] }]);
  const bytes = readFileSync(clip);
  const media = `sha256:${createHash('sha256').update(bytes).digest('hex')}`;
  reel.tracks[0]!.graphics[0]!.fill.slots.clip = { media, focus: [0.5, 0.5], scale: 1, turn: 0, clip: {} };
  reel.embedded[media] = { name: 'moving.mp4', type: 'video/mp4', base64: bytes.toString('base64') };
  await openReel(session, page, reel);
  for (const [kind, ending] of [
    ['webp', '.webp'],
    ['png', '.png'],
    ['gif', '.gif'],
  ]) {
    expect(await renderNow(page, `moving-${kind}`, '270', '25')).toContain(`all ${FRAMES} frames`);
    await tap(page, 'render-download');
    const seen = await played(page, await session.take(ending!), `image/${kind}`);
    expect({ kind, ...seen, beside: seen.beside[3], shown: seen.shown[3] }).toEqual({
      kind,
      frames: FRAMES,
      seconds: FRAMES / 25,
      beside: 0,
      shown: 255,
    });
    // The grey of the clip.
    for (const value of seen.shown.slice(0, 3)) expect(Math.abs(value - 110)).toBeLessThan(12);
    await page.click('[aria-label^="Remove "]');
    await page.waitForSelector(id('render-done'), { hidden: true });
  }
  // Players do not show more than fifty frames a second of a GIF: one of two is left, for as long as both.
  expect(await renderNow(page, 'moving-gif', '270', '60')).toContain('all 29 frames');
  await tap(page, 'render-download');
  const fast = await played(page, await session.take('.gif'), 'image/gif');
  expect(fast.frames).toBeLessThanOrEqual(15);
  expect(fast.seconds).toBeCloseTo(29 / 60, 1);
  await page.close();
});
