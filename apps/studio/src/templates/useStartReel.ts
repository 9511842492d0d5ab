import { EMPTY_FILL, type FrameShape, messageOf, newReel, type Template, wearBrand } from '@fresh-reel/core';
import { useRouter } from 'expo-router';
import { useCallback, useState } from 'react';
import { newId } from '../storage/ids';
import { useBrand, useReels, useSaveReel } from '../storage/queries';

/** What smooth titles usually go out at (common practice); the reel can have another. */
const VIDEO_RATE = { num: 60000, den: 1001 } as const;

/** Makes a reel from a template and opens it. */
export function useStartReel() {
  const router = useRouter();
  const { data: reels } = useReels();
  const { data: brand } = useBrand();
  const save = useSaveReel();
  const [fault, setFault] = useState<string>();
  const start = useCallback(
    async (template: Template, shape: FrameShape, branded: boolean) => {
      const names = new Set((reels ?? []).flatMap((r) => (r.kind === 'reel' ? [r.summary.name] : [])));
      let name = template.name;
      for (let n = 2; names.has(name); n++) name = `${template.name} ${n}`;
      const reel = newReel(template, {
        id: newId(),
        name,
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
    [reels, brand, save, router],
  );
  return { start, fault };
}
