import { GraphicScene, GraphicTime, graphicsOf, layoutFrame } from '@fresh-reel/core';
import { useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { DOCUMENT_ONLY } from '../../engine/documentOnly';
import { type OpenedReel, useSaveReel } from '../../storage/queries';
import { useToast } from '../../ui/Toast';
import { ReelSession } from './reelSession';
import type { ReelEditor } from './useReelEditor';

/**
 * Editing of one reel, and of one graphic of it.
 * @param opened the reel, with the steps that were kept of it
 */
export function useReelEditing(opened: OpenedReel): ReelEditor {
  const session = useSession(opened);
  const { history, save, lock } = useSyncExternalStore(session.subscribe, session.snapshot);
  const reel = history.present;

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
  const held = lock === 'held';
  const canUndo = held && history.past.length > 0;
  const canRedo = held && history.future.length > 0;
  return useMemo(() => {
    const { edit, settle, cancel, undo, redo, retrySave, takeOver } = session;
    return {
      ...{ edit, settle, cancel, undo, redo, retrySave, takeOver, chooseGraphic },
      ...{ reel, work, canUndo, canRedo, save },
      mayEdit: held,
      elsewhere: lock === 'elsewhere',
    };
  }, [session, reel, work, canUndo, canRedo, save, held, lock]);
}

/** The session of a reel, for as long as its editor is there. */
function useSession(opened: OpenedReel): ReelSession {
  const { mutateAsync } = useSaveReel();
  const say = useToast();
  const host = useRef({ mutateAsync, say });
  host.current = { mutateAsync, say };
  const [session] = useState(
    () =>
      new ReelSession(opened, {
        write: (reel) => host.current.mutateAsync(reel),
        say: (text) => host.current.say({ text }),
      }),
  );
  useEffect(() => {
    const onHidden = () => document.visibilityState === 'hidden' && session.hide();
    const onLeft = () => session.keep();
    session.open();
    window.addEventListener('pagehide', onLeft);
    document.addEventListener('visibilitychange', onHidden);
    return () => {
      window.removeEventListener('pagehide', onLeft);
      document.removeEventListener('visibilitychange', onHidden);
      session.close();
    };
  }, [session]);
  return session;
}
