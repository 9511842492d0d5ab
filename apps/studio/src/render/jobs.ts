import type { Reel, RenderPlan } from '@fresh-reel/core';
import { useSyncExternalStore } from 'react';
import { forgetRenderRecord } from '../storage/renders';
import { announce } from '../ui/announce';
import { type Conducted, conduct } from './conduct';
import { keepRender, keptRenders } from './keptRenders';
import type { FromRender } from './messages';
import { removeStoredRender } from './storeFile';
import { whileRendering } from './whileRendering';

/** One render, from waiting to its file. */
export interface RenderJob {
  readonly id: string;
  readonly reelId: string;
  readonly reelName: string;
  readonly plan: RenderPlan;
  readonly state: 'waiting' | 'running' | 'done' | 'cancelled' | 'fault';
  readonly frames: number;
  /** When the first frame was begun, in performance time. */
  readonly startedAt: number | undefined;
  readonly seconds: number | undefined;
  readonly file: Blob | undefined;
  readonly stored: string | undefined;
  readonly message: string | undefined;
  readonly sound: Extract<FromRender, { type: 'done' }>['sound'];
}

let jobs: readonly RenderJob[] = [];
const reels = new Map<string, Reel>();
const listeners = new Set<() => void>();
let running: Conducted | undefined;
let made = 0;

function set(next: readonly RenderJob[]): void {
  jobs = next;
  whileRendering(jobs.some((j) => j.state === 'running' || j.state === 'waiting'));
  for (const listener of listeners) listener();
}

function update(id: string, part: Partial<RenderJob>): void {
  set(jobs.map((job) => (job.id === id ? { ...job, ...part } : job)));
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** Whether a render runs: tells of its beginning and its end, and not of each frame. */
export const useIsRendering = (): boolean =>
  useSyncExternalStore(subscribe, () => jobs.some((job) => job.state === 'running'));

/** All renders, the newest first, with the finished ones of earlier visits. They go on while the user works elsewhere in the app. */
export function useRenderJobs(): readonly RenderJob[] {
  return useSyncExternalStore(subscribe, () => jobs);
}

/** Puts a render in the queue. The reel is taken as it is now; later edits do not touch it. */
export function startRender(reel: Reel, plan: RenderPlan): void {
  const id = `render-${++made}`;
  reels.set(id, reel);
  set([
    {
      id,
      reelId: reel.id,
      reelName: reel.name,
      plan,
      state: 'waiting',
      frames: 0,
      startedAt: undefined,
      seconds: undefined,
      file: undefined,
      stored: undefined,
      message: undefined,
      sound: undefined,
    },
    ...jobs,
  ]);
  runNext();
}

/** Stops a render; its half-written file is removed. */
export function cancelRender(id: string): void {
  const job = jobs.find((j) => j.id === id);
  if (job?.state === 'waiting') update(id, { state: 'cancelled' });
  if (job?.state === 'running') running?.cancel();
}

/** Takes a finished render from the list, with its file. */
export function forgetRender(id: string): void {
  const job = jobs.find((j) => j.id === id);
  if (!job || job.state === 'running') return;
  if (job.stored) void removeStoredRender(job.stored).then(() => forgetRenderRecord(job.stored!));
  set(jobs.filter((j) => j.id !== id));
}

/** How long a render has run. */
function timeOf(id: string): { readonly seconds?: number } {
  const started = jobs.find((j) => j.id === id)?.startedAt;
  return started === undefined ? {} : { seconds: (performance.now() - started) / 1000 };
}

/** Shows the finished renders of earlier visits below those of this one. */
export async function restoreRenders(): Promise<void> {
  const finished = await keptRenders();
  set([...jobs, ...finished]);
}

function runNext(): void {
  if (running) return;
  const job = jobs.findLast((j) => j.state === 'waiting');
  if (!job) return;
  const ended = (part: Partial<RenderJob>) => {
    update(job.id, { ...part, ...timeOf(job.id) });
    reels.delete(job.id);
    running?.end();
    running = undefined;
    announce(endText(jobs.find((j) => j.id === job.id)!));
    runNext();
  };
  update(job.id, { state: 'running', startedAt: performance.now() });
  running = conduct(reels.get(job.id)!, job.plan, (message) => {
    if (message.type === 'progress') update(job.id, { frames: message.frames });
    else if (message.type === 'done') {
      const { file, frames, stored, sound } = message;
      const done = { state: 'done', file, frames, stored, sound } as const;
      // Its file is held until what it is has been written down.
      void keepRender({ ...jobs.find((j) => j.id === job.id)!, ...done, ...timeOf(job.id) })
        // A record that cannot be kept leaves the file in this visit's list.
        .catch(() => undefined)
        .finally(() => ended(done));
    } else if (message.type === 'cancelled') ended({ state: 'cancelled' });
    else if (message.type === 'fault') ended({ state: 'fault', message: message.message });
  });
}

/** The end of a render, for those who hear the app. */
function endText({ state, plan, message }: RenderJob): string {
  if (state === 'done') return `${plan.fileName} is rendered.`;
  if (state === 'cancelled') return `The render of ${plan.fileName} is cancelled.`;
  return `The render of ${plan.fileName} stopped. ${message ?? ''}`;
}
