import { messageOf, type Reel } from '@fresh-reel/core';
import { useRouter } from 'expo-router';
import { useCallback, useState } from 'react';
import { pickFile } from '../media/files/pickFile';
import { newId } from '../storage/ids';
import { useSaveReel } from '../storage/queries';
import { useKeepTemplate } from '../storage/useTemplates';
import { openPackage } from './openPackage';

/** Opens a file of the user's and goes there: a reel becomes one of theirs, a template stands with the others. */
export function useOpenFile(): { open: () => Promise<void>; fault: string | undefined } {
  const [fault, setFault] = useState<string>();
  const save = useSaveReel();
  const keep = useKeepTemplate();
  const router = useRouter();
  const open = useCallback(async () => {
    const file = await pickFile('.freshreel,application/json,.json');
    if (!file) return;
    setFault(undefined);
    try {
      const opened = await openPackage(file);
      if (opened.kind === 'template') {
        const { id } = await keep(opened.template);
        router.push(`/templates/${id}`);
        return;
      }
      const own: Reel = { ...opened.reel, id: newId(), changed: new Date().toISOString() };
      await save.mutateAsync(own);
      router.push(`/reels/${own.id}`);
    } catch (error) {
      setFault(`"${file.name}" could not be opened. ${messageOf(error)}`);
    }
  }, [save, keep, router]);
  return { open, fault };
}
