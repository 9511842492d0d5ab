import type { Template } from '@fresh-reel/core';
import { usePreferences, useSetPreferences } from '../storage/queries';

/** Templates that are remembered as used last. */
const MOST = 24;

/** Keeps that a template was used, the newest first. */
export function useRecent(): (template: Template) => void {
  const { recent } = usePreferences();
  const setPreferences = useSetPreferences();
  return ({ id }) =>
    setPreferences({ recent: [id, ...recent.filter((other) => other !== id)].slice(0, MOST) });
}
