import {
  addWay,
  correctWay,
  type Footing,
  itemOf,
  partPlayed,
  playedOf,
  putSamples,
  type Reel,
  type ReelItemOf,
  secondOf,
  setFollow,
  stretchOf,
  type Way,
  type WaySample,
  wayAt,
} from '@fresh-reel/core';
import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState } from 'react';
import { useDuration, useMediaFacts } from '../../media/useMediaFacts';
import { announce } from '../../ui/announce';
import { startWorker } from '../../workers/startWorker';
import { useDesk, useRestingFrame } from '../session/desk';
import { useReelEditor } from '../session/useReelEditor';
import type { FromFollow, Patch, ToFollow } from './messages';

/** The clip below an item at the playhead, and what of it shows there. */
export interface ClipBelow {
  readonly clip: ReelItemOf<'clip'>;
  /** The second of its file. */
  readonly second: number;
  /** The frame of the item. */
  readonly time: number;
  readonly size: { readonly width: number; readonly height: number };
}

/** Where the patch lies that is to be followed, in pixels of the clip. */
export interface PatchPlace {
  readonly x: number;
  readonly y: number;
  readonly half: number;
}

/** What the picture and the sheet share while something is followed. */
export interface Following {
  /** What the chosen item lies over. */
  readonly below: ClipBelow | undefined;
  /** The way that the chosen item goes along with. */
  readonly way: Way | undefined;
  /** The patch that is being chosen. */
  readonly patch: PatchPlace | undefined;
  choosePatch(patch: PatchPlace | undefined): void;
  /** How well it can be followed, once that is known. */
  readonly footing: Footing['verdict'] | undefined;
  /** What has been found so far, and how far it is. */
  readonly running: { readonly samples: readonly WaySample[]; readonly part: number } | undefined;
  readonly fault: string | undefined;
  start(way: 'back' | 'on' | 'both'): void;
  stop(): void;
}

const FollowingContext = createContext<Following | undefined>(undefined);
export const FollowingProvider = FollowingContext.Provider;

export function useFollowing(): Following {
  const following = useContext(FollowingContext);
  if (!following) throw new Error('Nothing can be followed here.');
  return following;
}

/** The uppermost clip that shows below an item at a frame of the reel. */
export function clipBelow(reel: Reel, id: string, frame: number): ReelItemOf<'clip'> | undefined {
  const at = reel.tracks.findIndex((t) => t.items.some((i) => i.id === id));
  for (const track of reel.tracks.slice(0, Math.max(0, at)).reverse()) {
    if (track.hidden) continue;
    const found = track.items.find(
      (i) => i.kind === 'clip' && frame >= i.start && frame < i.start + i.length,
    );
    if (found?.kind === 'clip') return found;
  }
  return undefined;
}

/** Follows things for the item that is chosen. There is one in the editor. */
export function useFollowingState(): Following {
  const { reel, edit, settle, mayEdit } = useReelEditor();
  const { item: chosen, surface } = useDesk();
  const frame = useRestingFrame(surface);
  const [patch, setPatch] = useState<PatchPlace & { of: string }>();
  const [footing, setFooting] = useState<{ of: string; verdict: Footing['verdict'] }>();
  const [running, setRunning] = useState<{ samples: readonly WaySample[]; part: number }>();
  const [fault, setFault] = useState<string>();
  const worker = useRef<Worker | undefined>(undefined);

  const clip = chosen === undefined ? undefined : clipBelow(reel, chosen, frame);
  const facts = useMediaFacts(clip?.media);
  const duration = useDuration(clip?.media);
  const below = useMemo((): ClipBelow | undefined => {
    if (!clip || !facts?.size) return undefined;
    const time = frame - clip.start;
    const second = secondOf(clip, time, reel.rate, duration);
    return { clip, second, time, size: facts.size };
  }, [clip, duration, facts, frame, reel.rate]);
  const followed = chosen === undefined ? undefined : itemOf(reel, chosen)?.item.follow;
  const way = followed && reel.ways.find((w) => w.id === followed.way);
  const own = patch && patch.of === chosen ? patch : undefined;

  const stop = useCallback(() => {
    worker.current?.terminate();
    worker.current = undefined;
    setRunning(undefined);
  }, []);
  useEffect(() => stop, [stop]);

  const looking: Patch | undefined = useMemo(
    () =>
      own && below
        ? {
            media: below.clip.media,
            at: below.second,
            pose: { x: own.x, y: own.y, a: 1, b: 0 },
            half: own.half,
          }
        : undefined,
    [own, below],
  );
  const lookedAt = JSON.stringify(looking);
  // A moment after the last drag, it is looked at how well the patch can be followed.
  useEffect(() => {
    if (lookedAt === undefined) return;
    const looker = startWorker('follow');
    const wait = setTimeout(() => {
      looker.onmessage = ({ data }: MessageEvent<FromFollow>) => {
        if (data.type === 'footing') setFooting({ of: lookedAt, verdict: data.verdict });
        else if (data.type === 'fault') setFault(data.message);
      };
      looker.postMessage({ type: 'look', patch: JSON.parse(lookedAt) } satisfies ToFollow);
    }, 250);
    return () => {
      clearTimeout(wait);
      looker.terminate();
    };
  }, [lookedAt]);

  const choosePatch = useCallback(
    (next: PatchPlace | undefined) => {
      setFault(undefined);
      setPatch(next && chosen !== undefined ? { ...next, of: chosen } : undefined);
    },
    [chosen],
  );

  const start = (which: 'back' | 'on' | 'both') => {
    if (!looking || !below || chosen === undefined || !mayEdit) return;
    stop();
    // Where it is known how it was grown and turned, a correction goes on from that.
    const before = way && wayAt(way, looking.at);
    const pose = { ...looking.pose, ...(before ? { a: before.a, b: before.b } : {}) };
    const begun = way
      ? { reel: correctWay(reel, way.id, looking.at, pose), id: way.id }
      : addWay(reel, below.clip, looking.at, pose, looking.half);
    const base = way
      ? begun.reel
      : setFollow(begun.reel, chosen, { way: begun.id, at: looking.at, smooth: 0.1 });
    const [first, last] = partPlayed(playedOf(below.clip, reel.rate, duration), duration);
    const [from, to] = way ? stretchOf(base.ways.find((w) => w.id === begun.id)!, looking.at) : [first, last];
    edit(() => base, `follow-${begun.id}`);
    setPatch(undefined);
    const following = startWorker('follow');
    worker.current = following;
    let found: WaySample[] = [];
    setRunning({ samples: [], part: 0 });
    const put = () => {
      const sorted = [...found].sort((p, q) => p[0] - q[0]);
      edit((r) => putSamples(r, begun.id, sorted), `follow-${begun.id}`);
      settle();
      stop();
    };
    const end = (words: string) => {
      put();
      announce(words);
    };
    stopping.current = () => end('Stopped. What was followed is kept.');
    following.onmessage = ({ data }: MessageEvent<FromFollow>) => {
      if (data.type === 'found') {
        found = [...found, ...data.samples];
        setRunning({ samples: found, part: data.part });
      } else if (data.type === 'done') end('Followed.');
      else if (data.type === 'fault') {
        setFault(data.message);
        put();
      }
    };
    following.onerror = (event) => {
      setFault(event.message || 'It could not be followed. Try again.');
      put();
    };
    const message: ToFollow = {
      type: 'follow',
      patch: { ...looking, pose },
      back: which === 'on' ? undefined : Math.max(first, from),
      on: which === 'back' ? undefined : Math.min(last, to),
    };
    following.postMessage(message);
  };
  const stopping = useRef<() => void>(stop);
  return {
    below,
    way,
    patch: own,
    choosePatch,
    footing: footing?.of === lookedAt ? footing?.verdict : undefined,
    running,
    fault,
    start,
    stop: () => stopping.current(),
  };
}
