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
import { type Context, createContext, useContext, useMemo, useRef, useState } from 'react';
import { useAttempt } from '../../editing/session/useAttempt';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { useToast } from '../../ui/Toast';

/** The ways to change what is on the bench: the same as long as it is open, so that what changes nothing is not drawn anew. */
export interface WorkActions {
  readonly choose: (ids: readonly string[]) => void;
  /** Chooses a layer alone; where several are chosen, adds or takes it. */
  readonly touch: (id: string) => void;
  /** Changes the template; what does not fit is told and not taken. One gesture is one step of undo. */
  readonly make: (by: (template: Template) => Template, gesture?: string) => boolean;
  /** Changes one layer by something; one that is locked is left as it is, and said to be. */
  readonly makePart: (id: string, by: (template: Template) => Template, gesture?: string) => boolean;
  readonly aside: (ids: readonly string[], what: 'hidden' | 'locked', on: boolean) => void;
  readonly tryWith: (slot: string, words: TryId) => void;
  /** Ends a gesture. */
  readonly settle: () => void;
}

/** The template on the bench and the ways to change it: the same while other parts are chosen. */
export interface Made extends WorkActions {
  readonly template: Template;
}

/** What the parts of the workshop share: the template on the bench, what is chosen of it, and the ways to change it. */
export interface Work extends Made {
  readonly bench: Bench;
  /** The graphic of it that is filled to try it. */
  readonly graphic: string;
  /** Ids of the layers that are chosen, in the order in which they were. */
  readonly chosen: readonly string[];
  /** A touch adds to what is chosen, or takes from it. */
  readonly several: boolean;
  readonly setSeveral: (on: boolean) => void;
  /** Words that a slot is tried with, in view alone. */
  readonly trying: { readonly slot: string; readonly with: TryId } | undefined;
}

const WorkContext = createContext<Work | undefined>(undefined);
export const WorkProvider = WorkContext.Provider;

const MadeContext = createContext<Made | undefined>(undefined);
export const MadeProvider = MadeContext.Provider;

const ActionsContext = createContext<WorkActions | undefined>(undefined);
export const ActionsProvider = ActionsContext.Provider;

export const useWorkActions = (): WorkActions => useShared(ActionsContext);
export const useMade = (): Made => useShared(MadeContext);
export const useWork = (): Work => useShared(WorkContext);

function useShared<T>(context: Context<T | undefined>): T {
  const shared = useContext(context);
  if (!shared) throw new Error('No template is made here.');
  return shared;
}

/** The work on the bench that is open, and the ways to change it. */
export function useWorkState(): {
  readonly work: Work;
  readonly made: Made;
  readonly actions: WorkActions;
} {
  const { reel, settle } = useReelEditor();
  if (!isBench(reel)) throw new Error('This reel is no bench.');
  const attempt = useAttempt();
  const toast = useToast();
  const [all, choose] = useState<readonly string[]>([]);
  const [several, setSeveral] = useState(false);
  const [trying, setTrying] = useState<Work['trying']>();
  const template = madeOn(reel);
  // What is not there any more is not chosen; after an undo it is again.
  const there = all.filter((id) => isPart(template, id)).join('\n');
  const chosen = useMemo(() => (there === '' ? [] : there.split('\n')), [there]);
  const now = useRef({ reel, several });
  now.current = { reel, several };
  const [actions] = useState((): WorkActions => {
    const make: WorkActions['make'] = (by, gesture) => attempt((r) => changeMade(r, by), gesture);
    return {
      choose,
      touch: (id) =>
        choose((held) =>
          !now.current.several
            ? [id]
            : held.includes(id)
              ? held.filter((other) => other !== id)
              : [...held, id],
        ),
      make,
      makePart: (id, by, gesture) => {
        const bench = now.current.reel;
        if (!isBench(bench) || !isLocked(bench, id)) return make(by, gesture);
        const name = nameOfPart(partOf(madeOn(bench), id));
        toast({ text: `“${name}” is locked. Unlock it in the list of parts.` });
        return false;
      },
      aside: (ids, what, on) => void attempt((r) => setAside(r, ids, what, on)),
      tryWith: (slot, words) => setTrying(words === 'as-is' ? undefined : { slot, with: words }),
      settle,
    };
  });
  const made = useMemo(() => ({ ...actions, template }), [actions, template]);
  const work = useMemo(
    () => ({ ...made, bench: reel, graphic: graphicOn(reel), chosen, several, setSeveral, trying }),
    [made, reel, chosen, several, trying],
  );
  return { work, made, actions };
}

/** Whether a template has a part of an id. */
export function isPart(template: Template, id: string): boolean {
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
