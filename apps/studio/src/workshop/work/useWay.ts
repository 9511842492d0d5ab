import { useEffect, useState } from 'react';
import type { WayPoint } from '../../preview/messages';
import { askOfReel } from '../../preview/previewClient';
import { useWork } from './useWork';

/** Milliseconds without a change before a way is worked out. */
const REST = 250;
const NONE: readonly WayPoint[] = [];

/** The way of a part's middle, worked out anew after each change. */
export function useWay(part: string): readonly WayPoint[] {
  const { bench, graphic } = useWork();
  const [way, setWay] = useState(NONE);
  useEffect(() => {
    let current = true;
    const timer = setTimeout(() => {
      void askOfReel(bench, { about: 'way', graphic, part }).then(
        (answer) => current && setWay(answer.way),
        // A part that cannot be looked at has no way to show; the preview says what is wrong.
        () => current && setWay(NONE),
      );
    }, REST);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [bench, graphic, part]);
  return way;
}
