import { EMPTY_FILL, type FrameShape, messageOf, newReel, type Template, wearBrand } from '@fresh-reel/core';
import { useRouter } from 'expo-router';
import { useCallback, useState } from 'react';
import { newId } from '../storage/ids';
import { useBrand, useFreeName, useSaveReel } from '../storage/queries';

/** What smooth titles usually go out at (common practice); the reel can have another. */
const VIDEO_RATE = { num: 60000, den: 1001 } as const;

/** Makes a reel from a template and opens it. */
export function useStartReel() {
  const router = useRouter();
  const freeName = useFreeName();
  const { data: brand } = useBrand();
  const save = useSaveReel();
  const [fault, setFault] = useState<string>();
  const start = useCallback(
    async (template: Template, shape: FrameShape, branded: boolean) => {
      const reel = newReel(template, {
        id: newId(),
        name: freeName(template.name),
        now: new Date().toISOString(),
        shape,
        rate: VIDEO_RATE,
        fill: branded && brand ? wearBrand(template, EMPTY_FILL, brand) : EMPTY_FILL,
      });
      try {
        await save.mutateAsync(reel);
        router.push(`/reels/${reel.id}?begin=1`);
      } catch (error) {
        setFault(messageOf(error));
      }
    },
    [freeName, brand, save, router],
  );
  return { start, fault };
}
