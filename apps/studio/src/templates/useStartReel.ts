import {
  addTitleAfter,
  type FrameShape,
  messageOf,
  newReel,
  reelOverClip,
  type Template,
} from '@fresh-reel/core';
import { useRouter } from 'expo-router';
import { useCallback, useState } from 'react';
import { wornFill } from '../preview/ownFill';
import { useNewReel } from '../shell/useNewReel';
import { fileFacts, type MediaRecord } from '../storage/media';
import { useBrand, useSaveReel } from '../storage/queries';
import { readReel } from '../storage/reels';
import type { ReelSummary } from '../storage/summaries';
import { ifFree, reelLock } from '../storage/tabs';
import { useRecent } from './useRecent';

/** What smooth titles usually go out at (common practice); the reel can have another. */
const VIDEO_RATE = { num: 60000, den: 1001 } as const;

/** Makes a reel from a template and opens it. */
export function useStartReel() {
  const brand = useBrand();
  const { start, fault } = useNewReel();
  const fillFor = useCallback(
    (template: Template, branded: boolean) => wornFill(template, branded ? brand : undefined),
    [brand],
  );
  const router = useRouter();
  const save = useSaveReel();
  const used = useRecent();
  const [refused, setRefused] = useState<string>();
  /** Puts the title into a reel that is there, after its last one, and opens that. */
  const addTo = async (
    template: Template,
    { id, name }: ReelSummary,
    branded: boolean,
    fill = fillFor(template, branded),
  ) => {
    setRefused(undefined);
    used(template);
    try {
      const free = await ifFree(reelLock(id), async () => {
        const stored = await readReel(id);
        if (stored?.kind !== 'reel') throw new Error('This reel is not here any more. Reload the page.');
        const { reel } = addTitleAfter(stored.reel, template, fill);
        await save.mutateAsync({ ...reel, changed: new Date().toISOString() });
      });
      if (free) router.push(`/reels/${id}`);
      else setRefused(`“${name}” is open in another tab. Add the title there, or close it first.`);
    } catch (error) {
      setRefused(messageOf(error));
    }
  };
  return {
    fault: fault ?? refused,
    addTo,
    start: (template: Template, shape: FrameShape, branded: boolean, fill = fillFor(template, branded)) => {
      used(template);
      return start(template.name, (made) => newReel(template, { ...made, shape, rate: VIDEO_RATE, fill }));
    },
    /** The title over a clip, in the clip's frame and rate. */
    startOver: (
      template: Template,
      clip: MediaRecord,
      branded: boolean,
      fill = fillFor(template, branded),
    ) => {
      used(template);
      return start(template.name, (made) => reelOverClip(template, fileFacts(clip), made, fill));
    },
  };
}
