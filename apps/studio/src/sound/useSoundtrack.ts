import { type Reel, secondsAt } from '@fresh-reel/core';
import { useEffect, useState } from 'react';
import type { PreviewSurface } from '../preview/previewClient';
import { onStored } from '../storage/changes';
import { Soundtrack } from './soundtrack';

/** Plays a reel's sound in step with a preview of it. @returns whether there is anything to hear */
export function useSoundtrack(surface: PreviewSurface, reel: Reel, silent: boolean): boolean {
  const [track] = useState(() => new Soundtrack());
  const [heard, setHeard] = useState(false);
  useEffect(() => () => track.close(), [track]);
  useEffect(() => {
    const show = () => void track.show(reel).then(setHeard, () => setHeard(false));
    show();
    // A file that comes or goes may be one that is heard.
    return onStored(({ kind }) => kind === 'media' && show());
  }, [track, reel]);
  useEffect(() => {
    if (silent) {
      track.stop();
      return undefined;
    }
    let playing = false;
    return surface.subscribe(() => {
      const { playing: now, frame } = surface.snapshot();
      const second = secondsAt(frame?.number ?? 0, reel.rate);
      if (now && !playing) void track.play(secondsAt(surface.position, reel.rate), surface.loops);
      else if (!now && playing) track.stop();
      else if (now && frame) track.follow(second);
      playing = now;
    });
  }, [track, surface, reel.rate, silent]);
  return heard;
}
