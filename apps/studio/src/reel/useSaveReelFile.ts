import type { Reel } from '@fresh-reel/core';
import { useToast } from '../ui/Toast';
import { saveReelFile } from './saveReelFile';

/** Saves a reel as a file, and says what could not go along. */
export function useSaveReelFile(): (reel: Reel) => void {
  const toast = useToast();
  return (reel) =>
    void saveReelFile(reel).then(
      (left) => {
        if (left.length > 0)
          toast({
            text: `Too large to go into the file: ${left.map((n) => `“${n}”`).join(', ')}. Keep ${left.length > 1 ? 'them' : 'it'} beside it; where the reel is opened, “Find files” puts ${left.length > 1 ? 'them' : 'it'} back.`,
          });
      },
      (error: unknown) => toast({ text: error instanceof Error ? error.message : String(error) }),
    );
}
