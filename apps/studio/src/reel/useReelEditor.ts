import {
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
import { useQueryClient } from '@tanstack/react-query';
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
import { DOCUMENT_ONLY } from '../engine/documentOnly';
import { keys, useSaveReel } from '../storage/queries';
import { readReel } from '../storage/reels';
import { StorageError } from '../storage/store';
import { holdReel, onWritten } from '../storage/tabs';
import { keepUnsaved } from '../storage/unsaved';

export type SaveState =
  | { readonly kind: 'saved' | 'saving' }
  | { readonly kind: 'fault'; readonly message: string };

export interface ReelEditor {
  readonly reel: Reel;
  readonly graphic: Graphic;
  /** Controls and clock of the graphic as it stands; it does not set or paint anything on the page. */
  readonly scene: GraphicScene;
  /** Changes the reel. Changes with one gesture name make one step of undo. */
  edit(change: (reel: Reel) => Reel, gesture?: string): void;
  /** Ends a gesture. */
  settle(): void;
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
  | { readonly type: 'settle' | 'undo' | 'redo' }
  | { readonly type: 'replace'; readonly reel: Reel };

function reduce(history: History<Reel>, action: Action): History<Reel> {
  switch (action.type) {
    case 'change':
      return change(history, action.change(history.present), action.gesture);
    case 'settle':
      return settle(history);
    case 'undo':
      return undo(history);
    case 'redo':
      return redo(history);
    case 'replace':
      return startHistory(action.reel);
  }
}

/** Editing of one reel: its history, its saving, and the right to change it. */
export function useReelEditing(initial: Reel): ReelEditor {
  const [history, dispatch] = useReducer(reduce, initial, startHistory<Reel>);
  const reel = history.present;
  const lock = useLock(reel.id, (stored) => dispatch({ type: 'replace', reel: stored }));
  const { save, retrySave } = useAutosave(reel, initial, lock.held);
  const { held } = lock;

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
    undo: useCallback(() => dispatch({ type: 'undo' }), []),
    redo: useCallback(() => dispatch({ type: 'redo' }), []),
    canUndo: held && history.past.length > 0,
    canRedo: held && history.future.length > 0,
    save,
    retrySave,
    mayEdit: held,
    elsewhere: lock.elsewhere,
    takeOver: lock.takeOver,
  };
}

/** Holds the reel's lock while the editor is open, and reads what another tab wrote while it does not. */
function useLock(id: string, onStored: (reel: Reel) => void) {
  const [state, setState] = useState<'asking' | 'held' | 'elsewhere'>('asking');
  const [ask, setAsk] = useState({ steal: false });
  const stored = useRef(onStored);
  stored.current = onStored;

  const reload = useCallback(async () => {
    const found = await readReel(id);
    if (found?.kind === 'reel') stored.current(found.reel);
  }, [id]);

  useEffect(() => {
    let current = true;
    // What the other tab saved last is the newest.
    let other = ask.steal;
    const release = holdReel(id, {
      steal: ask.steal,
      onHeld: () => {
        if (!current) return;
        setState('held');
        if (other) void reload();
      },
      onRefused: () => {
        if (!current) return;
        other = true;
        setState('elsewhere');
      },
      onLost: () => {
        if (!current) return;
        setState('elsewhere');
        setAsk({ steal: false });
      },
    });
    return () => {
      current = false;
      release();
    };
  }, [id, ask, reload]);

  useEffect(
    () => (state === 'elsewhere' ? onWritten((written) => written === id && void reload()) : undefined),
    [state, id, reload],
  );

  return {
    held: state === 'held',
    elsewhere: state === 'elsewhere',
    takeOver: useCallback(() => setAsk({ steal: true }), []),
  };
}

/** Writes every version, one after the other; while one is being written only the newest waits. */
function useAutosave(reel: Reel, initial: Reel, mayWrite: boolean) {
  const { mutateAsync } = useSaveReel();
  const client = useQueryClient();
  const [save, setSave] = useState<SaveState>({ kind: 'saved' });
  const written = useRef(initial);
  const latest = useRef(reel);
  latest.current = reel;
  const running = useRef(false);

  const run = useCallback(async () => {
    if (running.current) return;
    running.current = true;
    try {
      while (latest.current !== written.current) {
        const next = latest.current;
        setSave({ kind: 'saving' });
        await mutateAsync({ ...next, changed: new Date().toISOString() });
        written.current = next;
        client.setQueryData(keys.reel(next.id), { kind: 'reel', id: next.id, reel: next });
      }
      setSave({ kind: 'saved' });
    } catch (error) {
      setSave({
        kind: 'fault',
        message: error instanceof StorageError ? error.message : `This could not be saved: ${String(error)}`,
      });
    } finally {
      running.current = false;
    }
  }, [mutateAsync, client]);

  useEffect(() => {
    if (mayWrite && reel !== written.current) void run();
    // What another tab wrote counts as written here.
    if (!mayWrite) written.current = reel;
  }, [reel, mayWrite, run]);

  // A tab that is being left does not wait its turn: what is not written yet is kept at once.
  useEffect(() => {
    const unsaved = () => mayWrite && latest.current !== written.current;
    const flush = () => {
      if (unsaved()) keepUnsaved({ ...latest.current, changed: new Date().toISOString() });
    };
    const onHidden = () => document.visibilityState === 'hidden' && flush();
    window.addEventListener('pagehide', flush);
    document.addEventListener('visibilitychange', onHidden);
    return () => {
      window.removeEventListener('pagehide', flush);
      document.removeEventListener('visibilitychange', onHidden);
    };
  }, [mayWrite]);

  return { save, retrySave: run };
}

const EditorContext = createContext<ReelEditor | undefined>(undefined);
export const ReelEditorProvider = EditorContext.Provider;

export function useReelEditor(): ReelEditor {
  const editor = useContext(EditorContext);
  if (!editor) throw new Error('No reel is open here.');
  return editor;
}
