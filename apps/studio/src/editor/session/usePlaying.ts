import { nominal, type Rate } from '@fresh-reel/core';
import { useCallback } from 'react';
import type { PreviewSurface } from '../../preview/previewClient';
import { useReelKeys } from './useReelKeys';

/** Playing and going through a preview, by buttons and by keys. */
export function usePlaying(surface: PreviewSurface, rate: Rate, loop: boolean) {
  const seek = useCallback(
    (frame: number) => {
      surface.pause();
      surface.seek(frame);
    },
    [surface],
  );
  const play = useCallback(() => {
    const { playing, frame } = surface.snapshot();
    if (playing) surface.pause();
    else surface.play(frame && surface.position < frame.count - 1 ? surface.position : 0, loop);
  }, [surface, loop]);
  const nudge = useCallback(
    (by: number) => {
      const { frame } = surface.snapshot();
      if (frame) seek(Math.min(frame.count - 1, Math.max(0, surface.position + by)));
    },
    [surface, seek],
  );
  useReelKeys({ play, nudge, second: nominal(rate) });
  return { seek, play, nudge };
}
