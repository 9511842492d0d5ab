import { messageOf, type Reel, type ReelCheck } from '@fresh-reel/core';
import { useEffect, useState } from 'react';
import { checkReel } from '../../preview/previewClient';

/** What was found, or why nothing could be. */
export interface Checked {
  readonly checks?: readonly ReelCheck[];
  readonly fault?: string;
}

/** The checks of a reel, looked at again after each change. Nothing until they are in. */
export function useChecks(reel: Reel): Checked | undefined {
  const [checked, setChecked] = useState<Checked>();
  useEffect(() => {
    let current = true;
    checkReel(reel).then(
      (checks) => current && setChecked({ checks }),
      (error: unknown) => current && setChecked({ fault: messageOf(error) }),
    );
    return () => {
      current = false;
    };
  }, [reel]);
  return checked;
}
