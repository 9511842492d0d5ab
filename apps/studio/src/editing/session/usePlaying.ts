import { nominal, type Reel } from '@fresh-reel/core';
import { useCallback, useMemo, useState } from 'react';
import type { PreviewSurface } from '../../preview/previewClient';
import { useSoundtrack } from '../../sound/useSoundtrack';
import { useReelKeys } from './useReelKeys';

/** How a preview is looked at and heard. */
export interface Playing {
  readonly loop: boolean;
  readonly setLoop: (on: boolean) => void;
  /** Nothing when there is nothing to hear. */
  readonly silent: boolean | undefined;
  readonly setSilent: (on: boolean) => void;
  readonly safeAreas: boolean;
  readonly setSafeAreas: (on: boolean) => void;
  readonly seek: (frame: number) => void;
  readonly play: () => void;
  readonly nudge: (by: number) => void;
}

/** Playing and going through a preview of a reel, by buttons and by keys, with its sound. */
export function usePlaying(surface: PreviewSurface, reel: Reel): Playing {
  const [loop, setLoop] = useState(true);
  const [quiet, setSilent] = useState(false);
  const [safeAreas, setSafeAreas] = useState(false);
  const silent = useSoundtrack(surface, reel, quiet) ? quiet : undefined;
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
  useReelKeys({ play, nudge, second: nominal(reel.rate) });
  return useMemo(
    () => ({ loop, setLoop, silent, setSilent, safeAreas, setSafeAreas, seek, play, nudge }),
    [loop, silent, safeAreas, seek, play, nudge],
  );
}
