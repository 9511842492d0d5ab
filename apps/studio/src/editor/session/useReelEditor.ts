import {
  cancel,
  change,
  type Graphic,
  GraphicScene,
  type History,
  layoutFrame,
  type Reel,
  redo,
  settle,
  startHistory,
  undo,
} from '@fresh-reel/core';
import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useReducer,
  useRef,
  useState,
} from 'react';
import { DOCUMENT_ONLY } from '../../engine/documentOnly';
import { keepHistory } from '../../storage/histories';
import { useSaveReel } from '../../storage/queries';
import { readReel } from '../../storage/reels';
import { holdReel, onWritten } from '../../storage/tabs';
import { keepUnsaved } from '../../storage/unsaved';
import { Autosave, type SaveState } from './autosave';

export interface ReelEditor {
  readonly reel: Reel;
  readonly graphic: Graphic;
  /** Controls and clock of the graphic as it stands; it does not set or paint anything on the page. */
  readonly scene: GraphicScene;
  /** Changes the reel. Changes with one gesture name make one step of undo. */
  edit(change: (reel: Reel) => Reel, gesture?: string): void;
  /** Ends a gesture. */
  settle(): void;
  /** Takes back what the gesture that is going on has changed. */
  cancel(): void;
  undo(): void;
  redo(): void;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
  readonly save: SaveState;
  /** Tries again to save after a fault. */
  retrySave(): void;
  /** This tab holds the reel, so that changes are taken. */
  readonly mayEdit: boolean;
  /** Another tab edits this reel; here it can only be looked at. */
  readonly elsewhere: boolean;
  takeOver(): void;
}

type Action =
  | { readonly type: 'change'; readonly change: (reel: Reel) => Reel; readonly gesture: string | undefined }
  | { readonly type: 'settle' | 'cancel' | 'undo' | 'redo' }
  | { readonly type: 'replace'; readonly reel: Reel };

function reduce(history: History<Reel>, action: Action): History<Reel> {
  switch (action.type) {
    case 'change':
      return change(history, action.change(history.present), action.gesture);
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
  const lock = useLock(reel.id, autosave, (stored) => dispatch({ type: 'replace', reel: stored }));
  const { held } = lock;
  useEffect(() => autosave.put(reel), [autosave, reel]);
  useKeptHistory(history);

  const edit = useCallback(
    (by: (reel: Reel) => Reel, gesture?: string) => {
      if (held) dispatch({ type: 'change', change: by, gesture });
    },
    [held],
  );
  const graphic = reel.tracks[0]!.graphics[0]!;
  const scene = useMemo(
    () => new GraphicScene(graphic.template, graphic.fill, layoutFrame(reel.frame), DOCUMENT_ONLY),
    [graphic, reel.frame],
  );
  return {
    reel,
    graphic,
    scene,
    edit,
    settle: useCallback(() => dispatch({ type: 'settle' }), []),
    cancel: useCallback(() => dispatch({ type: 'cancel' }), []),
    undo: useCallback(() => dispatch({ type: 'undo' }), []),
    redo: useCallback(() => dispatch({ type: 'redo' }), []),
    canUndo: held && history.past.length > 0,
    canRedo: held && history.future.length > 0,
    save,
    retrySave: useCallback(() => void autosave.flush(), [autosave]),
    mayEdit: held,
    elsewhere: lock.elsewhere,
    takeOver: lock.takeOver,
  };
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

/** Holds the reel's lock while the editor is open, and reads what another tab wrote while it does not. */
function useLock(id: string, autosave: Autosave<Reel>, onStored: (reel: Reel) => void) {
  const [state, setState] = useState<'asking' | 'held' | 'elsewhere'>('asking');
  const [ask, setAsk] = useState({ take: false });
  const stored = useRef(onStored);
  stored.current = onStored;

  const reload = useCallback(async () => {
    const found = await readReel(id);
    // What could not be written before the reel was taken away is not thrown out for what was.
    if (found?.kind !== 'reel' || autosave.unsaved) return;
    autosave.replace(found.reel);
    stored.current(found.reel);
  }, [id, autosave]);

  useEffect(() => {
    let current = true;
    // What the other tab saved last is the newest.
    let other = ask.take;
    const release = holdReel(id, {
      take: ask.take,
      onHeld: async () => {
        if (other) await reload();
        if (!current) return;
        autosave.allow(true);
        setState('held');
      },
      onRefused: () => {
        if (!current) return;
        other = true;
        setState('elsewhere');
      },
      onLost: () => {
        autosave.allow(false);
        if (!current) return;
        setState('elsewhere');
        setAsk({ take: false });
      },
      onWanted: () => autosave.flush(),
    });
    return () => {
      current = false;
      // What is not written yet is, before another may.
      void autosave.flush().finally(() => {
        autosave.allow(false);
        release();
      });
    };
  }, [id, ask, reload, autosave]);

  useEffect(
    () => (state === 'elsewhere' ? onWritten((written) => written === id && void reload()) : undefined),
    [state, id, reload],
  );

  return {
    held: state === 'held',
    elsewhere: state === 'elsewhere',
    takeOver: useCallback(() => setAsk({ take: true }), []),
  };
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

const EditorContext = createContext<ReelEditor | undefined>(undefined);
export const ReelEditorProvider = EditorContext.Provider;

export function useReelEditor(): ReelEditor {
  const editor = useContext(EditorContext);
  if (!editor) throw new Error('No reel is open here.');
  return editor;
}
