import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useRef, useState } from 'react';
import { provideMedia } from '../preview/previewClient';
import { keys } from '../storage/queries';
import { ImportCancelled, type Imported, importMedia } from './importMedia';

/** A file on its way in. */
export interface Coming {
  readonly name: string;
  /** 0..1 */
  readonly part: number;
  /** Which of how many, from 1. */
  readonly number: number;
  readonly count: number;
}

export interface Taking {
  readonly coming: Coming | undefined;
  /** What was wrong with files that did not come in, in words. */
  readonly faults: readonly string[];
  /** Takes files in, one after the other. Gives those that came; a fault of one does not keep the others out. */
  take(files: readonly File[]): Promise<Imported[]>;
  /** Stops what is on its way; files that are in stay. */
  cancel(): void;
  clear(): void;
}

/** Takes files in with progress and a way to stop. */
export function useImport(): Taking {
  const [coming, setComing] = useState<Coming>();
  const [faults, setFaults] = useState<readonly string[]>([]);
  const stop = useRef<AbortController | undefined>(undefined);
  const client = useQueryClient();

  const take = useCallback(
    async (files: readonly File[]) => {
      const control = new AbortController();
      stop.current = control;
      setFaults([]);
      const came: Imported[] = [];
      for (const [i, file] of files.entries()) {
        if (control.signal.aborted) break;
        const show = (part: number) =>
          setComing({ name: file.name, part, number: i + 1, count: files.length });
        show(0);
        try {
          const imported = await importMedia(file, { onProgress: show, signal: control.signal });
          if (imported.kind === 'media' && imported.record.kind !== 'sound') {
            await provideMedia(`sha256:${imported.record.hash}`);
          }
          came.push(imported);
        } catch (error) {
          if (error instanceof ImportCancelled) break;
          setFaults((f) => [...f, error instanceof Error ? error.message : String(error)]);
        }
      }
      setComing(undefined);
      await Promise.all([
        client.invalidateQueries({ queryKey: keys.media }),
        client.invalidateQueries({ queryKey: keys.fonts }),
        client.invalidateQueries({ queryKey: ['thumb'] }),
      ]);
      return came;
    },
    [client],
  );
  return {
    coming,
    faults,
    take,
    cancel: useCallback(() => stop.current?.abort(), []),
    clear: useCallback(() => setFaults([]), []),
  };
}
