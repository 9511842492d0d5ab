import {
  beginsAsZip,
  CONTENTS_FILE,
  contentsKind,
  openDocument,
  parseJson,
  REEL_FILE,
  type Reel,
  reelKind,
} from '@fresh-reel/core';
import { useRouter } from 'expo-router';
import { useCallback, useState } from 'react';
import { importFont } from '../fonts/importFont';
import { importMedia } from '../media/importMedia';
import { pickFile } from '../media/pickFile';
import { rangeOf, ZipFiles } from '../media/zip';
import { fromBase64 } from '../storage/bytes';
import { useSaveReel } from '../storage/queries';

/** Opens a reel file as a reel of its own: what is in it is taken in first, then the reel. */
export function useImportReel(): { open: () => Promise<void>; fault: string | undefined } {
  const [fault, setFault] = useState<string>();
  const save = useSaveReel();
  const router = useRouter();
  const open = useCallback(async () => {
    const file = await pickFile('.freshreel,application/json,.json');
    if (!file) return;
    setFault(undefined);
    try {
      const start = new Uint8Array(await file.slice(0, 4).arrayBuffer());
      const reel = beginsAsZip(start) ? await fromZip(file) : await fromJson(file);
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

async function fromZip(file: File): Promise<Reel> {
  const files = await ZipFiles.open(file.size, rangeOf(file));
  if (!files.has(REEL_FILE)) throw new Error('This is not a reel: it is a zip without one in it.');
  const reel = openDocument(reelKind, parseJson(await files.text(REEL_FILE), 'reel'));
  if (!files.has(CONTENTS_FILE)) return reel;
  const contents = openDocument(contentsKind, parseJson(await files.text(CONTENTS_FILE), 'reel file'));
  for (const { path, name, type } of contents.media) {
    // What is not there is told by the reel, which finds it again.
    if (files.has(path)) await importMedia(new File([await files.slice(path, file)], name, { type }));
  }
  for (const { path, family } of contents.fonts) {
    if (files.has(path)) await importFont(new File([await files.slice(path, file)], `${family}.ttf`));
  }
  return reel;
}

/** A reel file of the first kind: one JSON with everything in it as text. */
async function fromJson(file: File): Promise<Reel> {
  const { embedded = {}, ...reel } = openDocument(reelKind, parseJson(await file.text(), 'reel'));
  for (const [id, part] of Object.entries(embedded)) {
    const held = new File([fromBase64(part.base64)], part.name, { type: part.type });
    if (id.startsWith('font:')) await importFont(held);
    else await importMedia(held);
  }
  return reel;
}
