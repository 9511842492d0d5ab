import {
  FILM_CODECS,
  type FilmCodec,
  messageOf,
  type Reel,
  type RenderPlan,
  rateText,
} from '@fresh-reel/core';
import { z } from 'zod';
import { storeStream } from '../../storage/storeFile';
import type { Conducted } from '../workers/conduct';
import { typeOf } from '../workers/fileTypes';
import type { FromRender } from '../workers/messages';

const RENDERS = '/api/renders';

/** Kinds of film that the app's server writes; none where there is no server. */
export async function serverFilms(): Promise<readonly FilmCodec[]> {
  try {
    const reply = await fetch('/api/films');
    if (!reply.ok) return [];
    const told = z.array(z.object({ codec: z.string() })).parse(await reply.json());
    return FILM_CODECS.filter((codec) => told.some((t) => t.codec === codec));
  } catch {
    return [];
  }
}

/** What the server says of a render. */
const stateSchema = z.object({
  id: z.uuid(),
  state: z.enum(['waiting', 'running', 'done', 'failed', 'cancelled']),
  frames: z.number(),
  count: z.number(),
  message: z.string().optional(),
});

/** Milliseconds without a word after which the server counts as gone. */
const PATIENCE = 60_000;

/**
 * Has the app's server make a film, and fetches it. Pieces that it made for an earlier attempt are not made again.
 * @param key of the render: what the server still makes for it from before is given up
 */
export function renderOnServer(
  reel: Reel,
  plan: RenderPlan<FilmCodec>,
  hear: (message: FromRender) => void,
  key: string,
): Conducted {
  const stop = new AbortController();
  let ended = false;
  const tell = (message: FromRender) => ended || hear(message);
  make(reel, plan, key, tell, stop.signal).catch((error: unknown) =>
    tell(stop.signal.aborted ? { type: 'stopped' } : { type: 'fault', message: messageOf(error) }),
  );
  return {
    stop: () => stop.abort(),
    end: () => {
      ended = true;
      stop.abort();
    },
  };
}

async function make(
  reel: Reel,
  plan: RenderPlan<FilmCodec>,
  key: string,
  tell: (message: FromRender) => void,
  signal: AbortSignal,
): Promise<void> {
  const { reelFile } = await import('../../files/savePackage');
  const { file } = await reelFile(reel);
  const query = new URLSearchParams({
    ...{ key, codec: plan.format, size: `${plan.width}x${plan.height}`, rate: rateText(plan.rate) },
    frames: `${plan.from}-${plan.from + plan.count - 1}`,
  });
  const headers = { 'Content-Type': 'application/octet-stream' };
  const reply = await fetch(`${RENDERS}?${query}`, { method: 'POST', body: file, headers, signal });
  if (!reply.ok) throw new Error(await faultOf(reply));
  const { id } = stateSchema.parse(await reply.json());
  // Whatever becomes of it, the server need not keep it.
  const letGo = () =>
    void fetch(`${RENDERS}/${id}`, { method: 'DELETE', keepalive: true }).catch(() => undefined);
  try {
    await ended(id, (frames) => tell({ type: 'progress', frames }), signal);
    const film = await fetch(`${RENDERS}/${id}/result`, { signal });
    if (!film.ok || !film.body) throw new Error(await faultOf(film));
    const stored = await storeStream(film.body, plan.fileName, typeOf(plan.format));
    tell({ type: 'done', frames: plan.count, ...stored });
  } finally {
    letGo();
  }
}

/** Listens until a render is done. @throws {Error} in words, when it fails or the server is gone */
function ended(id: string, onFrames: (frames: number) => void, signal: AbortSignal): Promise<void> {
  const events = new EventSource(`${RENDERS}/${id}/events`);
  let silent: ReturnType<typeof setTimeout>;
  return new Promise<void>((resolve, reject) => {
    const wait = () => {
      clearTimeout(silent);
      silent = setTimeout(
        () => reject(new Error('The app’s server does not answer. Try again when it runs.')),
        PATIENCE,
      );
    };
    signal.addEventListener('abort', () => reject(signal.reason));
    events.onopen = () => clearTimeout(silent);
    events.onerror = () => {
      // It tries again by itself, but where it was told that there is nothing.
      if (events.readyState === EventSource.CLOSED)
        reject(new Error('The app’s server does not know this render any more. Try again.'));
      else wait();
    };
    events.addEventListener('render', ({ data }: MessageEvent<string>) => {
      const { state, frames, message } = stateSchema.parse(JSON.parse(data));
      onFrames(frames);
      if (state === 'done') resolve();
      else if (state === 'failed' || state === 'cancelled')
        reject(new Error(message ?? 'It was stopped on the server.'));
    });
  }).finally(() => {
    clearTimeout(silent);
    events.close();
  });
}

async function faultOf(reply: Response): Promise<string> {
  const told = z.object({ error: z.string() }).safeParse(await reply.json().catch(() => undefined));
  return told.success ? told.data.error : `The app’s server did not take it (${reply.status}).`;
}
