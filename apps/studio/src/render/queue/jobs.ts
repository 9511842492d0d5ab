import { isFilmFormat, type Reel, type RenderPlan } from '@fresh-reel/core';
import { useSyncExternalStore } from 'react';
import { appVersion } from '../../engine/version';
import { newId } from '../../storage/ids';
import { clearJournals, removeJournal } from '../../storage/journal';
import { forgetQueued, listQueue, queuedReel, saveQueued } from '../../storage/queue';
import { forgetRenderRecord, listRenders } from '../../storage/renders';
import { clearBrokenRenders, removeStoredRender } from '../../storage/storeFile';
import { holdWhileAlive } from '../../storage/tabs';
import { announce } from '../../ui/announce';
import { conduct } from '../workers/conduct';
import { keepRender, keptRenders } from './keptRenders';
import { notify } from './notices';
import { type QueueHost, type QueueWord, type RenderJob, RenderQueue } from './queue';
import { renderOnServer } from './serverRender';
import { whileRendering } from './whileRendering';

const channel =
  typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('fresh-reel/renders');

const host: QueueHost = {
  list: listQueue,
  reelOf: queuedReel,
  save: saveQueued,
  forget: forgetQueued,
  discard: removeJournal,
  sweep: async (queued) => {
    await clearJournals(queued);
    await clearBrokenRenders(new Set((await listRenders()).map((r) => r.stored)));
  },
  finished: keptRenders,
  keep: keepRender,
  removeFinished: async (stored) => {
    await removeStoredRender(stored);
    await forgetRenderRecord(stored);
  },
  conduct: (reel, plan, hear, along) => {
    const { format } = plan;
    return isFilmFormat(format)
      ? renderOnServer(reel, { ...plan, format }, hear, along.journal.id)
      : conduct(reel, { ...plan, format }, hear, along);
  },
  identity: appVersion,
  mine: () => holdWhileAlive('renders'),
  tell: (word) => channel?.postMessage(word),
  hear: (listener) =>
    channel?.addEventListener('message', ({ data }: MessageEvent<QueueWord>) => listener(data)),
  newId,
  now: () => performance.now(),
  after: (milliseconds, work) => void setTimeout(work, milliseconds),
};

const listeners = new Set<() => void>();
const queue = new RenderQueue(host, (ended) => {
  whileRendering(isBusy(queue.jobs));
  for (const listener of listeners) listener();
  if (!ended) return;
  announce(endText(ended));
  if (ended.state !== 'cancelled') void notify(endText(ended)).catch(() => undefined);
});

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

const isBusy = (jobs: readonly RenderJob[]) =>
  jobs.some((job) => job.state === 'running' || job.state === 'waiting');

/** Whether any render runs or waits to, in whichever tab. */
export const useIsBusy = (): boolean => useSyncExternalStore(subscribe, () => isBusy(queue.jobs));

/** Whether a render runs: tells of its beginning and its end, and not of each frame. */
export const useIsRendering = (): boolean =>
  useSyncExternalStore(subscribe, () => queue.jobs.some((job) => job.state === 'running'));

/** All renders: first those that are not finished, in their order, then the others, the newest first. */
export const useRenderJobs = (): readonly RenderJob[] => useSyncExternalStore(subscribe, () => queue.jobs);

/** Goes on with what earlier visits have left, and shows what they have finished. */
export const startQueue = () => queue.start();
export const startRender = (reel: Reel, plan: RenderPlan) => queue.add(reel, plan);
export const pauseRender = (id: string) => queue.pause(id);
export const resumeRender = (id: string) => queue.resume(id);
export const cancelRender = (id: string) => queue.cancel(id);
export const moveRender = (id: string, by: -1 | 1) => queue.move(id, by);
export const forgetRender = (id: string) => queue.remove(id);

/** The end of a render, for those who hear the app. */
function endText({ state, plan, message }: RenderJob): string {
  if (state === 'done') return `${plan.fileName} is rendered.`;
  if (state === 'cancelled') return `The render of ${plan.fileName} is cancelled.`;
  return `The render of ${plan.fileName} stopped. ${message ?? ''}`;
}
