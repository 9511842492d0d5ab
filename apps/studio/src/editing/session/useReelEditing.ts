import {
  cancel,
  change,
  EditError,
  GraphicScene,
  GraphicTime,
  graphicsOf,
  type History,
  keepable,
  keepMeetings,
  layoutFrame,
  type Reel,
  redo,
  settle,
  startHistory,
  undo,
} from '@fresh-reel/core';
import { useCallback, useEffect, useMemo, useReducer, useRef, useState } from 'react';
import { DOCUMENT_ONLY } from '../../engine/documentOnly';
import { keepHistory } from '../../storage/histories';
import { type OpenedReel, useSaveReel } from '../../storage/queries';
import { onWritten } from '../../storage/tabs';
import { besideText, dropUnsaved, keepUnsaved, leaving } from '../../storage/unsaved';
import { useToast } from '../../ui/Toast';
import { Autosave, type SaveState } from './autosave';
import { type LockState, ReelLock } from './reelLock';
import type { ReelEditor } from './useReelEditor';

type Action =
  | { readonly type: 'change'; readonly next: Reel; readonly gesture: string | undefined }
  | { readonly type: 'settle' | 'cancel' | 'undo' | 'redo' }
  | { readonly type: 'replace'; readonly reel: Reel };

function reduce(history: History<Reel>, action: Action): History<Reel> {
  switch (action.type) {
    case 'change':
      return change(history, action.next, action.gesture);
    case 'settle':
      return settle(history);
    case 'cancel':
      return cancel(history);
    case 'undo':
      return undo(history);
    case 'redo':
      return redo(history);
    case 'replace':
      return startHistory(action.reel);
  }
}

/**
 * Editing of one reel: its history, its saving, and the right to change it.
 * @param opened the reel, with the steps that were kept of it
 */
export function useReelEditing(opened: OpenedReel): ReelEditor {
  const [history, dispatch] = useReducer(reduce, opened.history);
  const reel = history.present;
  const { save, autosave } = useAutosave(opened);
  const { lock, state } = useLock(reel.id, autosave, (stored) => dispatch({ type: 'replace', reel: stored }));
  const held = state === 'held';
  useEffect(() => autosave.put(reel), [autosave, reel]);
  useKeptHistory(history, held);

  const [chosen, chooseGraphic] = useState<string>();
  const graphic = useMemo(() => {
    const graphics = graphicsOf(reel);
    return graphics.find((g) => g.id === chosen) ?? graphics[0];
  }, [reel, chosen]);
  const work = useMemo(() => {
    if (!graphic) return undefined;
    const scene = new GraphicScene(graphic.template, graphic.fill, layoutFrame(reel.frame), DOCUMENT_ONLY);
    return { graphic, scene, time: new GraphicTime(scene, graphic.start, reel) };
  }, [graphic, reel]);
  const edit = useEdit(reel, held, dispatch);
  const mayChange = useRef(held);
  mayChange.current = held;
  // Who only looks takes nothing back either.
  const step = (type: 'cancel' | 'undo' | 'redo') => () => {
    if (mayChange.current) dispatch({ type });
  };
  const [doing] = useState(() => ({
    chooseGraphic,
    settle: () => dispatch({ type: 'settle' }),
    cancel: step('cancel'),
    undo: step('undo'),
    redo: step('redo'),
    retrySave: () => void autosave.flush(),
    takeOver: () => lock.current?.take(),
  }));
  const canUndo = held && history.past.length > 0;
  const canRedo = held && history.future.length > 0;
  return useMemo(
    () => ({
      ...doing,
      reel,
      work,
      edit,
      canUndo,
      canRedo,
      save,
      mayEdit: held,
      elsewhere: state === 'elsewhere',
    }),
    [doing, reel, work, edit, canUndo, canRedo, save, held, state],
  );
}

/**
 * The one way in which a reel is changed: what an edit makes is kept if it opens again; else it is told in words, and
 * nothing is changed. Of several before the page is drawn anew, each goes on from the one before.
 */
function useEdit(reel: Reel, held: boolean, dispatch: (action: Action) => void): ReelEditor['edit'] {
  const toast = useToast();
  const latest = useRef(reel);
  latest.current = reel;
  return useCallback(
    (by, gesture) => {
      if (!held) return false;
      try {
        const before = latest.current;
        // What meets a marker meets it whatever was changed.
        const next = keepable(keepMeetings(by(before)), before);
        latest.current = next;
        dispatch({ type: 'change', next, gesture });
        return true;
      } catch (error) {
        if (!(error instanceof EditError)) throw error;
        toast({ text: error.message });
        return false;
      }
    },
    [held, toast, dispatch],
  );
}

/** Keeps the steps with the reel when it is left, or its tab goes out of sight: those of the tab that may change it. */
function useKeptHistory(history: History<Reel>, held: boolean): void {
  const latest = useRef({ history, held });
  latest.current = { history, held };
  useEffect(() => {
    // Steps that do not fit are not worth a word: the reel itself is safe.
    const keep = () => {
      if (latest.current.held) void keepHistory(latest.current.history).catch(() => undefined);
    };
    const onHidden = () => document.visibilityState === 'hidden' && keep();
    document.addEventListener('visibilitychange', onHidden);
    return () => {
      document.removeEventListener('visibilitychange', onHidden);
      keep();
    };
  }, []);
}

/** Holds the reel's lock while the editor is open, and shows what another tab writes while it does not. */
function useLock(id: string, autosave: Autosave<Reel>, onStored: (reel: Reel) => void) {
  const [state, setState] = useState<LockState>('asking');
  const toast = useToast();
  const stored = useRef(onStored);
  stored.current = onStored;
  const lock = useRef<ReelLock | undefined>(undefined);
  useEffect(() => {
    const own = new ReelLock(id, autosave, {
      state: setState,
      stored: (reel) => stored.current(reel),
      beside: (name) => toast({ text: besideText(name) }),
      left: () => keepWhatIsUnsaved(autosave),
    });
    lock.current = own;
    own.open();
    const unhear = onWritten((written) => written === id && void own.written());
    return () => {
      unhear();
      leaving(id, own.close());
    };
  }, [id, autosave, toast]);
  return { lock, state };
}

/** Writes every version of the reel; what a closing tab has not written yet is kept at once. */
function useAutosave({ history: { present: initial }, stored }: OpenedReel): {
  readonly save: SaveState;
  readonly autosave: Autosave<Reel>;
} {
  const { mutateAsync } = useSaveReel();
  const [save, setSave] = useState<SaveState>({ kind: 'saved' });
  const write = useRef(mutateAsync);
  write.current = mutateAsync;
  // Whether this tab has written any of it: it lets go of nothing that another one kept.
  const wrote = useRef(false);
  const [autosave] = useState(
    () =>
      new Autosave(
        initial,
        async (next) => {
          const stamped = { ...next, changed: new Date().toISOString() };
          await write.current(stamped);
          wrote.current = true;
          return stamped;
        },
        (state) => {
          // All of it is written: nothing that was kept of it is newer.
          if (state.kind === 'saved' && wrote.current) dropUnsaved(initial.id);
          setSave(state);
        },
        undefined,
        stored,
      ),
  );

  // A tab that is being left does not wait its turn: what is not written yet is kept at once.
  useEffect(() => {
    const flush = () => keepWhatIsUnsaved(autosave);
    const onHidden = () => document.visibilityState === 'hidden' && flush();
    window.addEventListener('pagehide', flush);
    document.addEventListener('visibilitychange', onHidden);
    return () => {
      window.removeEventListener('pagehide', flush);
      document.removeEventListener('visibilitychange', onHidden);
    };
  }, [autosave]);

  return { save, autosave };
}

function keepWhatIsUnsaved({ unsaved, basis }: Autosave<Reel>): void {
  if (unsaved) keepUnsaved({ ...unsaved, changed: new Date().toISOString() }, basis.changed);
}
