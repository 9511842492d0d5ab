import { openDocument, parseJson, type Reel, reelKind } from '@fresh-reel/core';
import { useRouter } from 'expo-router';
import { useCallback, useState } from 'react';
import { importFont } from '../fonts/importFont';
import { importMedia } from '../media/importMedia';
import { pickFile } from '../media/pickFile';
import { fromBase64 } from '../storage/bytes';
import { useSaveReel } from '../storage/queries';

/** Opens a reel file as a reel of its own: pictures and fonts in it are taken in first, then the reel. */
export function useImportReel(): { open: () => Promise<void>; fault: string | undefined } {
  const [fault, setFault] = useState<string>();
  const save = useSaveReel();
  const router = useRouter();
  const open = useCallback(async () => {
    const file = await pickFile('application/json,.json');
    if (!file) return;
    setFault(undefined);
    try {
      const { embedded = {}, ...reel } = openDocument(reelKind, parseJson(await file.text(), 'reel'));
      for (const [id, part] of Object.entries(embedded)) {
        const held = new File([fromBase64(part.base64)], part.name, { type: part.type });
        if (id.startsWith('font:')) await importFont(held);
        else await importMedia(held);
      }
      const now = new Date().toISOString();
      const own: Reel = { ...reel, id: crypto.randomUUID(), changed: now };
      await save.mutateAsync(own);
      router.push(`/reels/${own.id}`);
    } catch (error) {
      setFault(
        `"${file.name}" could not be opened. ${error instanceof Error ? error.message : String(error)}`,
      );
    }
  }, [save, router]);
  return { open, fault };
}
