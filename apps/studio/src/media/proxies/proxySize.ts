import type { FrameSize } from '@fresh-reel/core';
import { type MediaRecord, SEQUENCE_TYPE } from '../../storage/media';

/** Pixels of a proxy's longest side: as many as a preview has on most screens. */
const SIDE = 960;
/** How many times a proxy's pixels a clip has that is worth one. */
const WORTH = 1.5;
/** A shorter clip is decoded from its start as quickly. Seconds. */
const SHORTEST = 1;

/** Size of a clip's proxy: even numbers, as video has them, in the clip's own shape as nearly. */
export function proxySize({ width, height }: FrameSize): FrameSize {
  const k = SIDE / Math.max(width, height);
  const even = (v: number) => Math.max(2, Math.round((v * k) / 2) * 2);
  return { width: even(width), height: even(height) };
}

/** Whether going through a clip of the user's is slow enough for a proxy. What lets light through has none. */
export function isWorthProxy(record: MediaRecord): boolean {
  const { kind, type, alpha, width = 0, height = 0, duration = 0 } = record;
  if (kind !== 'clip' || type === SEQUENCE_TYPE || alpha || width * height === 0) return false;
  const proxy = proxySize({ width, height });
  return duration >= SHORTEST && width * height >= WORTH * proxy.width * proxy.height;
}
