import { type Mark, markAt } from '@fresh-reel/core';
import { useCallback } from 'react';
import { useDesk } from '../../editing/session/desk';
import { useGraphicEditor } from '../../editing/session/useReelEditor';

/** The moment under the playhead, as marks of the template count it. */
export function useMarkNow(): () => Mark {
  const { scene, time } = useGraphicEditor();
  const { surface } = useDesk();
  return useCallback(() => {
    const { at, of } = markAt(scene.clock, time.localAt(surface.position));
    return { at: Math.round(at), of };
  }, [scene, time, surface]);
}
