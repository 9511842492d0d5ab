import { itemOf } from '@fresh-reel/core';
import { useCallback, useEffect, useMemo, useState } from 'react';
import type { PreviewSurface } from '../../preview/previewClient';
import type { Desk, PathTarget } from './desk';
import type { KeyTarget } from './keyTargets';
import { useReelEditor } from './useReelEditor';

/** The desk of a screen with a preview: what is being worked on in it, and the ways to change that. */
export function useDeskState(surface: PreviewSurface, seek: (frame: number) => void): Desk {
  const [keyed, chooseKeyed] = useState<KeyTarget>();
  const [path, choosePath] = useState<PathTarget>();
  const [text, setText] = useState<{ layer: string; typing: boolean }>();
  const [ways, showWays] = useState(false);
  const choosing = useChoosing();
  const chooseText = useCallback((layer: string | undefined, typing = false) => {
    setText(layer === undefined ? undefined : { layer, typing });
  }, []);
  return useMemo(
    () => ({
      surface,
      seek,
      keyed,
      chooseKeyed,
      path,
      choosePath,
      ...choosing,
      text: text?.layer,
      typing: text?.typing ?? false,
      chooseText,
      ways,
      showWays,
    }),
    [surface, seek, keyed, path, choosing, text, chooseText, ways],
  );
}

/** What of the desk is about choosing. */
type Choosing =
  | 'chosen'
  | 'item'
  | 'chooseItem'
  | 'chooseItems'
  | 'several'
  | 'setSeveral'
  | 'slipping'
  | 'setSlipping';

/** Which items are chosen. A title that is placed is also the one that is filled and adjusted. */
function useChoosing(): Pick<Desk, Choosing> {
  const { reel, chooseGraphic } = useReelEditor();
  const [all, chooseItems] = useState<readonly string[]>([]);
  const [several, setSeveral] = useState(false);
  const [slipping, setSlipping] = useState(false);
  // What is not there any more is not chosen; after an undo it is again.
  const there = all.filter((id) => itemOf(reel, id)).join('\n');
  const chosen = useMemo(() => (there === '' ? [] : there.split('\n')), [there]);
  const item = chosen.at(-1);
  const chooseItem = useCallback(
    (id: string | undefined) =>
      chooseItems((now) =>
        id === undefined
          ? []
          : !several
            ? [id]
            : now.includes(id)
              ? now.filter((i) => i !== id)
              : [...now, id],
      ),
    [several],
  );
  const isTitle = item !== undefined && itemOf(reel, item)?.item.kind === 'graphic';
  useEffect(() => {
    if (isTitle) chooseGraphic(item);
  }, [isTitle, item, chooseGraphic]);
  return useMemo(
    () => ({ chosen, item, chooseItem, chooseItems, several, setSeveral, slipping, setSlipping }),
    [chosen, item, chooseItem, several, slipping],
  );
}
