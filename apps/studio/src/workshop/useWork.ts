import type { Reel, Template } from '@fresh-reel/core';
import {
  asSeen,
  type Bench,
  changeMade,
  graphicOn,
  isBench,
  isLocked,
  madeOn,
  nameOfPart,
  partOf,
  setAside,
  type TryId,
} from '@fresh-reel/core/make';
import { createContext, useCallback, useContext, useMemo, useState } from 'react';
import { useAttempt } from '../editor/session/useAttempt';
import { useReelEditor } from '../editor/session/useReelEditor';
import { useToast } from '../ui/Toast';

/** What the parts of the workshop share: the template on the bench, what is chosen of it, and the ways to change it. */
export interface Work {
  readonly bench: Bench;
  readonly template: Template;
  /** The graphic of it that is filled to try it. */
  readonly graphic: string;
  /** Ids of the layers that are chosen, in the order in which they were. */
  readonly chosen: readonly string[];
  readonly choose: (ids: readonly string[]) => void;
  /** A touch adds to what is chosen, or takes from it. */
  readonly several: boolean;
  readonly setSeveral: (on: boolean) => void;
  /** Chooses a layer alone; where several are chosen, adds or takes it. */
  readonly touch: (id: string) => void;
  /** Changes the template; what does not fit is told and not taken. One gesture is one step of undo. */
  readonly make: (by: (template: Template) => Template, gesture?: string) => boolean;
  /** Changes one layer by something; one that is locked is left as it is, and said to be. */
  readonly makePart: (id: string, by: (template: Template) => Template, gesture?: string) => boolean;
  readonly aside: (ids: readonly string[], what: 'hidden' | 'locked', on: boolean) => void;
  /** Words that a slot is tried with, in view alone. */
  readonly trying: { readonly slot: string; readonly with: TryId } | undefined;
  readonly tryWith: (slot: string, words: TryId) => void;
}

const WorkContext = createContext<Work | undefined>(undefined);
export const WorkProvider = WorkContext.Provider;

export function useWork(): Work {
  const work = useContext(WorkContext);
  if (!work) throw new Error('No template is made here.');
  return work;
}

/** The work on the bench that is open. */
export function useWorkState(): Work {
  const { reel } = useReelEditor();
  if (!isBench(reel)) throw new Error('This reel is no bench.');
  const attempt = useAttempt();
  const toast = useToast();
  const [all, choose] = useState<readonly string[]>([]);
  const [several, setSeveral] = useState(false);
  const [trying, setTrying] = useState<Work['trying']>();
  const template = madeOn(reel);
  // What is not there any more is not chosen; after an undo it is again.
  const chosen = useMemo(() => all.filter((id) => has(template, id)), [all, template]);
  const touch = useCallback(
    (id: string) =>
      choose((now) =>
        !several ? [id] : now.includes(id) ? now.filter((other) => other !== id) : [...now, id],
      ),
    [several],
  );
  const make: Work['make'] = (by, gesture) => attempt((r: Reel) => changeMade(r, by), gesture);
  return {
    bench: reel,
    template,
    graphic: graphicOn(reel),
    chosen,
    choose,
    several,
    setSeveral,
    touch,
    make,
    makePart: (id, by, gesture) => {
      if (!isLocked(reel, id)) return make(by, gesture);
      toast({ text: `“${nameOfPart(partOf(template, id))}” is locked. Unlock it in the list of parts.` });
      return false;
    },
    aside: (ids, what, on) => void attempt((r) => setAside(r, ids, what, on)),
    trying,
    tryWith: useCallback(
      (slot, words) => setTrying(words === 'as-is' ? undefined : { slot, with: words }),
      [],
    ),
  };
}

function has(template: Template, id: string): boolean {
  try {
    partOf(template, id);
    return true;
  } catch {
    return false;
  }
}

/** A bench as its picture shows it: without what is out of sight, and with the words a slot is tried with. */
export function shownOf({ bench, graphic, trying }: Work, words: string | undefined): Reel {
  const seen = asSeen(bench);
  if (!trying || words === undefined) return seen;
  return {
    ...seen,
    tracks: seen.tracks.map((track) => ({
      ...track,
      items: track.items.map((item) =>
        item.id === graphic && item.kind === 'graphic'
          ? { ...item, fill: { ...item.fill, slots: { ...item.fill.slots, [trying.slot]: words } } }
          : item,
      ),
    })),
  };
}
