import { likelyClip, messageOf, type NumberedRun, numberedRuns, type Rate, runName } from '@fresh-reel/core';
import { useCallback, useRef, useState } from 'react';
import { announce } from '../../ui/announce';
import { ImportCancelled, type Imported, importMedia, importSequence } from './importMedia';

/** A file on its way in. */
export interface Coming {
  readonly name: string;
  /** 0..1 */
  readonly part: number;
  /** Which of how many, from 1. */
  readonly number: number;
  readonly count: number;
}

/** What becomes of numbered pictures. */
export type RunChoice =
  | { readonly as: 'clip'; readonly rate: Rate }
  | { readonly as: 'pictures' | 'nothing' };

/** Asked of the user before numbered pictures are taken in. */
export interface RunQuestion {
  readonly run: NumberedRun<File>;
  answer(choice: RunChoice): void;
}

/** One thing to take in. */
type Item = File | { readonly run: NumberedRun<File>; readonly rate: Rate };

export interface Taking {
  readonly coming: Coming | undefined;
  readonly question: RunQuestion | undefined;
  /** What was wrong with files that did not come in, in words. */
  readonly faults: readonly string[];
  /**
   * Takes files in, one after the other, and asks first what numbered pictures are to be. Gives those that came; a
   * fault of one does not keep the others out.
   */
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

  const [question, setQuestion] = useState<RunQuestion>();

  const take = useCallback(async (files: readonly File[]) => {
    const control = new AbortController();
    stop.current = control;
    setFaults([]);
    const ask = (run: NumberedRun<File>) =>
      new Promise<RunChoice>((answer) => setQuestion({ run, answer })).finally(() => setQuestion(undefined));
    const items = await itemsOf(files, ask);
    const came: Imported[] = [];
    for (const [i, item] of items.entries()) {
      if (control.signal.aborted) break;
      const name = 'run' in item ? runName(item.run) : item.name;
      const show = (part: number) => setComing({ name, part, number: i + 1, count: items.length });
      const options = { onProgress: show, signal: control.signal };
      show(0);
      try {
        const imported = await ('run' in item
          ? importSequence(item.run, item.rate, options)
          : importMedia(item, options));
        came.push(imported);
      } catch (error) {
        if (error instanceof ImportCancelled) break;
        setFaults((f) => [...f, messageOf(error)]);
      }
    }
    setComing(undefined);
    if (came.length > 0) announce(`${came.length === 1 ? '1 file is' : `${came.length} files are`} in.`);
    return came;
  }, []);
  return {
    coming,
    question,
    faults,
    take,
    cancel: useCallback(() => stop.current?.abort(), []),
    clear: useCallback(() => setFaults([]), []),
  };
}

/** What there is to take in, in the order of the files: each by itself, or numbered ones as the user says. */
async function itemsOf(
  files: readonly File[],
  ask: (run: NumberedRun<File>) => Promise<RunChoice>,
): Promise<Item[]> {
  const instead = new Map<File, Item[]>();
  const { runs, others } = numberedRuns(files);
  const apart = others.filter((f) => f.type.startsWith('image/')).length;
  for (const run of runs) {
    // Among other pictures, a few numbered ones are pictures, too.
    if (apart > 0 && !likelyClip(run)) continue;
    const choice = await ask(run);
    if (choice.as === 'pictures') continue;
    for (const file of run.files) instead.set(file, []);
    if (choice.as === 'clip') instead.set(run.files[0]!, [{ run, rate: choice.rate }]);
  }
  return files.flatMap((file) => instead.get(file) ?? [file]);
}
