import { messageOf, type Reel, type Template } from '@fresh-reel/core';
import { useToast } from '../ui/Toast';
import type { Things } from './savePackage';

/** Saves as a file, and says what could not go along. */
function useSaveFile<T>(save: (what: T) => Promise<string[]>, kind: string): (what: T) => void {
  const toast = useToast();
  return (what) =>
    void save(what).then(
      (left) => {
        if (left.length === 0) return;
        const files =
          left.length > 1 ? `${left.length} of this ${kind}'s files are` : `One of this ${kind}'s files is`;
        toast({ text: `${files} not here, so not in the file either. “Find files” puts them back.` });
      },
      (error: unknown) => toast({ text: messageOf(error) }),
    );
}

/** What writes packages comes when one is written. */
const writing = () => import('./savePackage');

export const useSaveReelFile = (): ((reel: Reel) => void) =>
  useSaveFile(async (reel) => (await writing()).saveReelFile(reel), 'reel');
export const useSaveTemplateFile = (): ((template: Template) => void) =>
  useSaveFile(async (template) => (await writing()).saveTemplateFile(template), 'template');
export const useSaveThingsFile = (): ((named: { name: string; things: Things }) => void) =>
  useSaveFile(async (named) => (await writing()).saveThingsFile(named), 'file');
