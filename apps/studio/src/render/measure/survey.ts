import type { Heard, Reel, ReelCheck } from '@fresh-reel/core';
import { type QueryClient, useQuery } from '@tanstack/react-query';
import { startWorker } from '../../workers/startWorker';
import { givePicture, suppliesOf } from '../workers/supplies';
import type { FromSurvey, ToSurvey } from '../workers/surveyMessages';
import { useGivesWay } from './giveWay';

/** What has been found by looking at all of a reel as it will be rendered; more comes until all has been looked at. */
export interface Survey {
  readonly checks: readonly ReelCheck[];
  /** Nothing where nothing is heard, or before it has been listened to. */
  readonly heard?: Heard | undefined;
  /** The part of it that was looked at, 0..1. */
  readonly looked: number;
}

/** Milliseconds without a change before it is looked at. */
const REST = 4000;

/** Looks at a reel in a worker of its own. @param told what has been found so far */
async function survey(reel: Reel, told: (so: Survey) => void, signal: AbortSignal): Promise<Survey> {
  await new Promise((resolve) => setTimeout(resolve, REST));
  signal.throwIfAborted();
  const supplies = await suppliesOf(reel);
  const worker = startWorker('survey');
  let so: Survey = { checks: [], looked: 0 };
  const more = (part: Partial<Survey>) => {
    so = { ...so, ...part };
    told(so);
  };
  try {
    return await new Promise<Survey>((resolve, reject) => {
      signal.addEventListener('abort', () => reject(signal.reason));
      worker.onerror = (event) => reject(new Error(event.message || 'Looking at it stopped.'));
      worker.onmessage = ({ data }: MessageEvent<FromSurvey>) => {
        if ('needs' in data) void givePicture(worker, data.needs);
        else if (data.type === 'heard')
          more({ heard: data.heard, checks: [...so.checks, ...(data.heard?.checks ?? [])] });
        else if (data.type === 'words') more({ checks: [...so.checks, ...data.checks] });
        else if (data.type === 'looked') more({ looked: data.part });
        else if (data.type === 'done') resolve({ ...so, checks: [...so.checks, ...data.checks], looked: 1 });
        else if (data.type === 'fault') reject(new Error(data.message));
      };
      worker.postMessage({ type: 'start', supplies } satisfies ToSurvey);
    });
  } finally {
    worker.terminate();
  }
}

/** How a reel is known to what looks at it: by all that shows or is heard. */
const keyOf = (reel: Reel) => ['survey', { ...reel, name: '', changed: '', output: undefined }];

/** What is found by looking at all of a reel, as far as it has been; looked at while `enabled`. */
export function useSurvey(
  reel: Reel,
  enabled: boolean,
): { readonly survey?: Survey; readonly fault?: Error } {
  const queryKey = keyOf(reel);
  useGivesWay(queryKey, enabled);
  const { data, error } = useQuery({
    queryKey,
    queryFn: ({ signal, client }: { signal: AbortSignal; client: QueryClient }) =>
      survey(reel, (so) => client.setQueryData(keyOf(reel), so), signal),
    enabled,
    retry: false,
    gcTime: 600_000,
    staleTime: Number.POSITIVE_INFINITY,
  });
  return { ...(data ? { survey: data } : {}), ...(error ? { fault: error } : {}) };
}
