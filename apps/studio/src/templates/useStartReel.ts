import { EMPTY_FILL, type FrameShape, newReel, type Template, wearBrand } from '@fresh-reel/core';
import { useRouter } from 'expo-router';
import { useCallback, useState } from 'react';
import { useBrand, useReels, useSaveReel } from '../storage/queries';

/** Makes a reel from a template and opens it. */
export function useStartReel() {
  const router = useRouter();
  const { data: reels } = useReels();
  const { data: brand } = useBrand();
  const save = useSaveReel();
  const [fault, setFault] = useState<string>();
  const start = useCallback(
    async (template: Template, shape: FrameShape, branded: boolean) => {
      const names = new Set((reels ?? []).flatMap((r) => (r.kind === 'reel' ? [r.reel.name] : [])));
      let name = template.name;
      for (let n = 2; names.has(name); n++) name = `${template.name} ${n}`;
      const reel = newReel(template, {
        id: crypto.randomUUID(),
        name,
        now: new Date().toISOString(),
        shape,
        fill: branded && brand ? wearBrand(template, EMPTY_FILL, brand) : EMPTY_FILL,
      });
      try {
        await save.mutateAsync(reel);
        router.push(`/reels/${reel.id}`);
      } catch (error) {
        setFault(error instanceof Error ? error.message : String(error));
      }
    },
    [reels, brand, save, router],
  );
  return { start, fault };
}
