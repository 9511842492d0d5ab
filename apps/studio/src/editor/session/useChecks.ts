import type { Reel, ReelCheck } from '@fresh-reel/core';
import { useEffect, useState } from 'react';
import type { PreviewSurface } from '../../preview/previewClient';

/** The checks of a reel, looked at again after each change. Nothing until they are in. */
export function useChecks(surface: PreviewSurface, reel: Reel): readonly ReelCheck[] | undefined {
  const [checks, setChecks] = useState<readonly ReelCheck[]>();
  useEffect(() => {
    let current = true;
    void surface.check(reel).then((found) => current && setChecks(found));
    return () => {
      current = false;
    };
  }, [surface, reel]);
  return checks;
}
