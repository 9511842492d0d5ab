import type { MediaRecord } from '../../storage/media';
import { isWorthProxy, proxySize } from './proxySize';

const clip = (part: Partial<MediaRecord>): MediaRecord => ({
  hash: 'a'.repeat(64),
  kind: 'clip',
  name: 'shot.mp4',
  type: 'video/mp4',
  size: 1,
  width: 1920,
  height: 1080,
  alpha: false,
  duration: 6,
  chunks: 1,
  added: '2026-06-05T10:00:00Z',
  ...part,
});

it('a proxy keeps the shape of its clip, in even numbers of pixels', () => {
  expect(proxySize({ width: 1920, height: 1080 })).toEqual({ width: 960, height: 540 });
  expect(proxySize({ width: 1080, height: 1920 })).toEqual({ width: 540, height: 960 });
  expect(proxySize({ width: 4096, height: 1716 })).toEqual({ width: 960, height: 402 });
  expect(proxySize({ width: 9000, height: 3 })).toEqual({ width: 960, height: 2 });
});

it('large clips get one; small and short ones, clips with alpha, sequences and sounds do not', () => {
  expect(isWorthProxy(clip({}))).toBe(true);
  expect(isWorthProxy(clip({ width: 1280, height: 720 }))).toBe(true);
  expect(isWorthProxy(clip({ width: 640, height: 360 }))).toBe(false);
  expect(isWorthProxy(clip({ duration: 0.4 }))).toBe(false);
  expect(isWorthProxy(clip({ alpha: true }))).toBe(false);
  expect(isWorthProxy(clip({ type: 'application/zip' }))).toBe(false);
  expect(isWorthProxy(clip({ kind: 'sound', width: undefined, height: undefined }))).toBe(false);
});
