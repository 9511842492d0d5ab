import { likelyClip, messageOf, type NumberedRun, numberedRuns, type Rate, runName } from '@fresh-reel/core';
import { useCallback, useRef, useState } from 'react';
import { askServer, INSTALL_FFMPEG } from '../../engine/server';
import { listMedia, readWhole } from '../../storage/media';
import { announce } from '../../ui/announce';
import { hashOfFile } from './hashing';
import { type Imported, importCopy, importMedia, importSequence } from './importMedia';
import { MediaError, type NeedsCopy, NeedsCopyError } from './mediaError';
import { ImportCancelled } from './messages';
import { makeWorkingCopy } from './workingCopy';

/** A file on its way in. */
export interface Coming {
  readonly name: string;
  /** What is done to it, where it is not simply taken in. */
  readonly stage?: string;
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

/** What becomes of footage that the browser does not play well. */
export type CopyChoice = 'copy' | 'plain' | 'nothing';

/** Asked of the user before footage that the browser does not play goes through the app's server. */
export interface CopyQuestion {
  readonly file: File;
  readonly needs: NeedsCopy;
  answer(choice: CopyChoice): void;
}

/** One thing to take in. */
type Item = File | { readonly run: NumberedRun<File>; readonly rate: Rate };

export interface Taking {
  readonly coming: Coming | undefined;
  readonly question: RunQuestion | undefined;
  readonly copy: CopyQuestion | undefined;
  /** What was wrong with files that did not come in, in words. */
  readonly faults: readonly string[];
  /** What was done to files that came, and should be known. */
  readonly said: readonly string[];
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
  const [copy, setCopy] = useState<CopyQuestion>();
  const [said, setSaid] = useState<readonly string[]>([]);

  const take = useCallback(async (files: readonly File[]) => {
    const control = new AbortController();
    stop.current = control;
    setFaults([]);
    setSaid([]);
    const ask = (run: NumberedRun<File>) =>
      new Promise<RunChoice>((answer) => setQuestion({ run, answer })).finally(() => setQuestion(undefined));
    const askForCopy: AskForCopy = (file, needs) => {
      setComing(undefined);
      return new Promise<CopyChoice>((answer) => setCopy({ file, needs, answer })).finally(() =>
        setCopy(undefined),
      );
    };
    const items = await itemsOf(files, ask);
    const taken = new Map<number, Imported>();
    // What has to be asked about comes last: an answer that is waited for keeps nothing else out.
    const unplayed: { readonly at: number; readonly file: File; readonly why: NeedsCopyError }[] = [];
    const bring = async (at: number, name: string, work: Work) => {
      if (control.signal.aborted) return;
      const show = (part: number, stage?: string) =>
        setComing({ name, part, number: at + 1, count: items.length, ...(stage ? { stage } : {}) });
      show(0);
      try {
        const imported = await work({ onProgress: show, signal: control.signal });
        if (imported) taken.set(at, imported);
      } catch (error) {
        const item = items[at];
        if (error instanceof NeedsCopyError && item instanceof File && !unplayed.some((u) => u.at === at))
          unplayed.push({ at, file: item, why: error });
        else if (!(error instanceof ImportCancelled)) setFaults((f) => [...f, messageOf(error)]);
      }
    };
    for (const [at, item] of items.entries()) {
      if (item instanceof File)
        await bring(at, item.name, (options) => importMedia(item, { ...options, asks: true }));
      else await bring(at, runName(item.run), (options) => importSequence(item.run, item.rate, options));
    }
    const say = (note: string) => setSaid((n) => [...n, note]);
    for (const { at, file, why } of unplayed)
      await bring(at, file.name, (options) => byCopy(file, why, options, askForCopy, say));
    const came = [...taken].sort(([a], [b]) => a - b).map(([, imported]) => imported);
    setComing(undefined);
    if (came.length > 0) announce(`${came.length === 1 ? '1 file is' : `${came.length} files are`} in.`);
    return came;
  }, []);
  return {
    coming,
    question,
    copy,
    faults,
    said,
    take,
    cancel: useCallback(() => stop.current?.abort(), []),
    clear: useCallback(() => {
      setFaults([]);
      setSaid([]);
    }, []),
  };
}

type AskForCopy = (file: File, needs: NeedsCopy) => Promise<CopyChoice>;

interface WorkOptions {
  readonly onProgress: (part: number, stage?: string) => void;
  readonly signal: AbortSignal;
}
/** Brings one thing in; nothing, where the user leaves it. */
type Work = (options: WorkOptions) => Promise<Imported | undefined>;

/**
 * Takes in a file that the browser does not play well: through the app's server, where there is one and the user wants it.
 * @returns nothing when the user leaves it
 * @throws why it cannot be taken in otherwise; and as {@link importMedia} and {@link makeWorkingCopy} do
 */
async function byCopy(
  file: File,
  why: NeedsCopyError,
  options: WorkOptions,
  ask: AskForCopy,
  say: (note: string) => void,
): Promise<Imported | undefined> {
  const asItIs = async () => {
    const imported = await importMedia(file, options);
    say(`“${file.name}” may be interlaced: combs show where things move.`);
    return imported;
  };
  const server = await askServer();
  if (server !== 'whole') {
    if (why.needs.why === 'interlaced') return asItIs();
    if (server === 'away') throw why;
    throw new MediaError(
      `${why.message} The server of this app could make a working copy of it. ${INSTALL_FFMPEG} Then add the file again.`,
    );
  }
  // It may be here already, from an earlier time.
  const held = (await listMedia()).some((record) => record.original?.size === file.size)
    ? await readWhole(await hashOfFile(file))
    : null;
  if (held) return { kind: 'media', record: held, notes: [], again: true };
  const choice = await ask(file, why.needs);
  if (choice === 'nothing') return undefined;
  if (choice === 'plain') return asItIs();
  const made = await makeWorkingCopy(file, (stage, part) => options.onProgress(part, stage), options.signal);
  const imported = await importCopy(made.file, made.original, options);
  for (const note of made.notes) say(`“${file.name}”: ${note}`);
  return imported;
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
