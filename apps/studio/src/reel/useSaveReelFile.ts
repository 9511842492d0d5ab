import type { Reel } from '@fresh-reel/core';
import { useToast } from '../ui/Toast';
import { saveReelFile } from './saveReelFile';

/** Saves a reel as a file, and says what could not go along. */
export function useSaveReelFile(): (reel: Reel) => void {
  const toast = useToast();
  return (reel) =>
    void saveReelFile(reel).then(
      (left) => {
        if (left.length === 0) return;
        const files =
          left.length > 1 ? `${left.length} of this reel's files are` : "One of this reel's files is";
        toast({ text: `${files} not here, so not in the file either. “Find files” puts them back.` });
      },
      (error: unknown) => toast({ text: error instanceof Error ? error.message : String(error) }),
    );
}
