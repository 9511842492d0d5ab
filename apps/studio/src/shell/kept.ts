import { useState } from 'react';
import type { ScrollPlaces } from '../ui/useScrollPlace';

/** What stays while the app is open: what was typed, chosen and scrolled to in a place that one comes back to. */
const kept = new Map<string, unknown>();

/** State of a place that is as it was left when one comes back. */
export function useKept<T>(key: string, first: T): [T, (value: T) => void] {
  const [value, set] = useState<T>(() => (kept.has(key) ? (kept.get(key) as T) : first));
  return [
    value,
    (next) => {
      kept.set(key, next);
      set(next);
    },
  ];
}

/** How far a place was scrolled. */
export const keptScroll: ScrollPlaces = {
  get: (place: string) => kept.get(`scroll ${place}`) as number | undefined,
  set: (place: string, y: number) => kept.set(`scroll ${place}`, y),
};
