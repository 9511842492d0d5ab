import { isFilmFormat, type OutputFormat, type Reel, type RenderPlan } from '@fresh-reel/core';
import { useQuery } from '@tanstack/react-query';
import { conduct } from '../workers/conduct';
import { useGivesWay } from './giveWay';

/** Frames in a row that a sample looks at, and in how many places. */
const ROW = 16;
const PLACES = 4;
/** Milliseconds without a change before a sample is made. */
const REST = 1500;

/**
 * Frames that tell how long all of them take: a few in a row, since frames next to each other are alike to an encoder,
 * in the middle of equal parts of the whole.
 * @returns numbers from 0, in order; all of a short render
 */
export function sampleOf(count: number, row = ROW): number[] {
  if (count <= row * PLACES * 1.5) return Array.from({ length: count }, (_, i) => i);
  return Array.from({ length: PLACES }, (_, place) => {
    const first = Math.round((count * (place + 0.5)) / PLACES - row / 2);
    return Array.from({ length: row }, (_, i) => first + i);
  }).flat();
}

/**
 * What a sample says of the whole.
 * @param sample numbers of its frames
 * @param times when each of them was there, and then when all was compressed; any unit, counted from the start
 * @returns time that a render of `count` frames takes
 */
export function wholeTime(sample: readonly number[], times: readonly number[], count: number): number {
  let [spent, steps] = [times.at(-1)! - times.at(-2)!, 0];
  for (let i = 1; i < sample.length; i++) {
    // The first two of a row are painted anew, and nothing like what was compressed before: in the whole they are neither.
    if (sample[i] !== sample[i - 2]! + 2) continue;
    spent += times[i]! - times[i - 1]!;
    steps++;
  }
  return times[0]! + (steps > 0 ? (spent / steps) * (count - 1) : 0);
}

/** What a render will take. */
export interface Estimate {
  readonly seconds: number;
  /** Of its pictures, in the file. */
  readonly bytes: number;
  /** The part of the seconds for which painting is waited for; compressing and writing is the rest. */
  readonly painting: number;
}

/**
 * Renders a sample of a plan and throws it away.
 * @param row frames in a row
 */
export function measure(
  reel: Reel,
  plan: RenderPlan<OutputFormat>,
  signal: AbortSignal,
  row = ROW,
): Promise<Estimate> {
  signal.throwIfAborted();
  const sample = sampleOf(plan.count, row);
  return new Promise((resolve, reject) => {
    const begun = performance.now();
    const times: number[] = [];
    const work = conduct(
      reel,
      plan,
      (message) => {
        times.push((performance.now() - begun) / 1000);
        if (message.type === 'progress') return;
        work.end();
        if (message.type === 'sampled')
          resolve({
            seconds: wholeTime(sample, times, plan.count),
            bytes: (message.bytes / sample.length) * plan.count,
            painting: Math.min(1, message.painting / Math.max(1e-6, times.at(-1)! - times[0]!)),
          });
        else reject(new Error(message.type === 'fault' ? message.message : 'Stopped.'));
      },
      { sample },
    );
    signal.addEventListener('abort', () => {
      work.end();
      reject(signal.reason);
    });
  });
}

/**
 * What a render will take here, measured on frames of it, and whether that is being done; nothing until it is known,
 * while it cannot be, or where another machine makes it.
 */
export function useEstimate(
  reel: Reel,
  plan: RenderPlan,
  able: boolean,
): { readonly estimate: Estimate | undefined; readonly measuring: boolean } {
  // What is written in the document beside its content does not change how long it takes.
  const queryKey = [
    'estimate',
    { ...reel, name: '', changed: '', output: undefined },
    { ...plan, fileName: '' },
  ];
  const enabled = able && !isFilmFormat(plan.format) && plan.format !== 'wav';
  useGivesWay(queryKey, enabled);
  const { data, isFetching } = useQuery({
    queryKey,
    queryFn: async ({ signal }) => {
      await new Promise((resolve) => setTimeout(resolve, REST));
      return measure(reel, { ...plan, format: plan.format as OutputFormat }, signal);
    },
    enabled,
    gcTime: 60_000,
  });
  return { estimate: data, measuring: isFetching };
}
