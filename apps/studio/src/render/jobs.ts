import { type Reel, ReelScene, type RenderPlan } from '@fresh-reel/core';
import { useSyncExternalStore } from 'react';
import { DOCUMENT_ONLY } from '../engine/documentOnly';
import { ownFontFiles } from '../fonts/useFamilies';
import type { DecodedPicture } from '../media/decode/picture';
import { decodePicture } from '../media/decode/picture';
import { forgetRenderRecord } from '../storage/renders';
import { keepRender, keptRenders } from './keptRenders';
import type { FromRender, ToRender } from './messages';
import { crewSize } from './paintCrew';
import type { ToPainter } from './paintMessages';
import { removeStoredRender } from './storeFile';

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
let worker: Worker | undefined;
let made = 0;

function set(next: readonly RenderJob[]): void {
  jobs = next;
  for (const listener of listeners) listener();
}

function update(id: string, part: Partial<RenderJob>): void {
  set(jobs.map((job) => (job.id === id ? { ...job, ...part } : job)));
}

/** All renders, the newest first, with the finished ones of earlier visits. They go on while the user works elsewhere in the app. */
export function useRenderJobs(): readonly RenderJob[] {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => jobs,
  );
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
  if (job?.state === 'running') worker?.postMessage({ type: 'cancel' } satisfies ToRender);
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
  if (worker) return;
  const job = jobs.findLast((j) => j.state === 'waiting');
  if (!job) return;
  worker = new Worker(new URL('./render.worker', import.meta.url));
  const size = crewSize(job.plan.count, navigator.hardwareConcurrency || 1);
  const painters = Array.from({ length: size }, () => new Worker(new URL('./paint.worker', import.meta.url)));
  const ended = (part: Partial<RenderJob>) => {
    update(job.id, { ...part, ...timeOf(job.id) });
    reels.delete(job.id);
    worker?.terminate();
    for (const painter of painters) painter.terminate();
    worker = undefined;
    runNext();
  };
  worker.onmessage = ({ data }: MessageEvent<FromRender>) => {
    if (data.type === 'progress') update(job.id, { frames: data.frames });
    else if (data.type === 'done') {
      const { file, frames, stored, sound } = data;
      const done = { state: 'done', file, frames, stored, sound } as const;
      // Its file is held until what it is has been written down.
      void keepRender({ ...jobs.find((j) => j.id === job.id)!, ...done, ...timeOf(job.id) })
        .catch(() => undefined)
        .finally(() => ended(done));
    } else if (data.type === 'cancelled') ended({ state: 'cancelled' });
    else ended({ state: 'fault', message: data.message });
  };
  for (const each of [worker, ...painters]) {
    each.onerror = (event) =>
      ended({
        state: 'fault',
        message: event.message || 'The render stopped for a reason the browser does not tell.',
      });
  }
  update(job.id, { state: 'running', startedAt: performance.now() });
  begin(worker, painters, reels.get(job.id)!, job.plan).catch((error: unknown) =>
    ended({ state: 'fault', message: error instanceof Error ? error.message : String(error) }),
  );
}

/** A port to each painter, through which the worker that conducts the render speaks with it. */
function portsTo(painters: readonly Worker[]): MessagePort[] {
  return painters.map((painter) => {
    const { port1, port2 } = new MessageChannel();
    painter.postMessage({ port: port1 } satisfies ToPainter, [port1]);
    return port2;
  });
}

async function begin(to: Worker, painters: readonly Worker[], reel: Reel, plan: RenderPlan): Promise<void> {
  const pictures: [string, DecodedPicture][] = [];
  const scene = new ReelScene(reel, DOCUMENT_ONLY);
  for (const media of scene.media()) {
    // A picture that is missing or damaged is left out; the checks have said so before the start.
    const picture = await decodePicture(media).catch(() => null);
    if (picture) pictures.push([media, picture]);
  }
  const families = new Set(scene.fonts().faces.map((f) => f.family));
  const fonts = await ownFontFiles(families).catch(() => []);
  const ports = portsTo(painters);
  const job = { reel, plan, pictures, fonts };
  to.postMessage({ type: 'start', job, painters: ports } satisfies ToRender, [
    ...pictures.map(([, p]) => p.bitmap),
    ...ports,
  ]);
}
