import {
  cancel,
  change,
  GraphicScene,
  GraphicTime,
  graphicsOf,
  type History,
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
import { useSaveReel } from '../../storage/queries';
import { onWritten } from '../../storage/tabs';
import { keepUnsaved } from '../../storage/unsaved';
import { Autosave, type SaveState } from './autosave';
import { type LockState, ReelLock } from './reelLock';
import type { ReelEditor } from './useReelEditor';

type Action =
  | { readonly type: 'change'; readonly change: (reel: Reel) => Reel; readonly gesture: string | undefined }
  | { readonly type: 'settle' | 'cancel' | 'undo' | 'redo' }
  | { readonly type: 'replace'; readonly reel: Reel };

function reduce(history: History<Reel>, action: Action): History<Reel> {
  switch (action.type) {
    case 'change':
      // What meets a marker meets it whatever was changed.
      return change(history, keepMeetings(action.change(history.present)), action.gesture);
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
 * @param initial the reel as it is stored, with the steps that were kept of it
 */
export function useReelEditing(initial: History<Reel>): ReelEditor {
  const [history, dispatch] = useReducer(reduce, initial);
  const reel = history.present;
  const { save, autosave } = useAutosave(initial.present);
  const { lock, state } = useLock(reel.id, autosave, (stored) => dispatch({ type: 'replace', reel: stored }));
  const held = state === 'held';
  useEffect(() => autosave.put(reel), [autosave, reel]);
  useKeptHistory(history);

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
  const edit = useCallback(
    (by: (reel: Reel) => Reel, gesture?: string) => {
      if (held) dispatch({ type: 'change', change: by, gesture });
    },
    [held],
  );
  const [doing] = useState(() => ({
    chooseGraphic,
    settle: () => dispatch({ type: 'settle' }),
    cancel: () => dispatch({ type: 'cancel' }),
    undo: () => dispatch({ type: 'undo' }),
    redo: () => dispatch({ type: 'redo' }),
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

/** Keeps the steps with the reel when it is left, or its tab goes out of sight. */
function useKeptHistory(history: History<Reel>): void {
  const latest = useRef(history);
  latest.current = history;
  useEffect(() => {
    // Steps that do not fit are not worth a word: the reel itself is safe.
    const keep = () => void keepHistory(latest.current).catch(() => undefined);
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
  const stored = useRef(onStored);
  stored.current = onStored;
  const lock = useRef<ReelLock | undefined>(undefined);
  useEffect(() => {
    const own = new ReelLock(id, autosave, { state: setState, stored: (reel) => stored.current(reel) });
    lock.current = own;
    own.open();
    const unhear = onWritten((written) => written === id && void own.written());
    return () => {
      unhear();
      void own.close();
    };
  }, [id, autosave]);
  return { lock, state };
}

/** Writes every version of the reel; what a closing tab has not written yet is kept at once. */
function useAutosave(initial: Reel): { readonly save: SaveState; readonly autosave: Autosave<Reel> } {
  const { mutateAsync } = useSaveReel();
  const [save, setSave] = useState<SaveState>({ kind: 'saved' });
  const write = useRef(mutateAsync);
  write.current = mutateAsync;
  const [autosave] = useState(
    () =>
      new Autosave(initial, (next) => write.current({ ...next, changed: new Date().toISOString() }), setSave),
  );

  // A tab that is being left does not wait its turn: what is not written yet is kept at once.
  useEffect(() => {
    const flush = () => {
      const { unsaved } = autosave;
      if (unsaved) keepUnsaved({ ...unsaved, changed: new Date().toISOString() });
    };
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
