import { messageOf, type NewReel, type Reel } from '@fresh-reel/core';
import { useRouter } from 'expo-router';
import { useCallback, useState } from 'react';
import { newId } from '../storage/ids';
import { useFreeName, useSaveReel } from '../storage/queries';

/** Makes a reel under a free name and opens it. `fault` says in words why it could not be kept. */
export function useNewReel() {
  const router = useRouter();
  const freeName = useFreeName();
  const save = useSaveReel();
  const [fault, setFault] = useState<string>();
  const start = useCallback(
    async (name: string, make: (made: Omit<NewReel, 'frame' | 'rate'>) => Reel) => {
      const reel = make({ id: newId(), name: freeName(name), now: new Date().toISOString() });
      try {
        await save.mutateAsync(reel);
        router.push(`/reels/${reel.id}?begin=1`);
      } catch (error) {
        setFault(messageOf(error));
      }
    },
    [freeName, save, router],
  );
  return { start, fault };
}
