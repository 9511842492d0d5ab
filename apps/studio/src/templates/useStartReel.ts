import {
  EMPTY_FILL,
  type FrameShape,
  newReel,
  reelOverClip,
  type Template,
  wearBrand,
} from '@fresh-reel/core';
import { useCallback } from 'react';
import { useNewReel } from '../shell/useNewReel';
import { fileFacts, type MediaRecord } from '../storage/media';
import { useBrand } from '../storage/queries';

/** What smooth titles usually go out at (common practice); the reel can have another. */
const VIDEO_RATE = { num: 60000, den: 1001 } as const;

/** Makes a reel from a template and opens it. */
export function useStartReel() {
  const { data: brand } = useBrand();
  const { start, fault } = useNewReel();
  const fillFor = useCallback(
    (template: Template, branded: boolean) =>
      branded && brand ? wearBrand(template, EMPTY_FILL, brand) : EMPTY_FILL,
    [brand],
  );
  return {
    fault,
    start: (template: Template, shape: FrameShape, branded: boolean) =>
      start(template.name, (made) =>
        newReel(template, { ...made, shape, rate: VIDEO_RATE, fill: fillFor(template, branded) }),
      ),
    /** The title over a clip, in the clip's frame and rate. */
    startOver: (template: Template, clip: MediaRecord, branded: boolean) =>
      start(template.name, (made) =>
        reelOverClip(template, fileFacts(clip), made, fillFor(template, branded)),
      ),
  };
}
