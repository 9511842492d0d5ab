import { useEffect, useSyncExternalStore } from 'react';
import { assetUrl } from '../../decode/assets';
import { startWorker } from '../../workers/startWorker';
import type { FromProxies, ToProxies } from './messages';

type Making = FromProxies['making'];

/** Milliseconds of quiet before making goes on: a short stop while playing is no quiet. */
const QUIET = 800;

let worker: Worker | undefined;
let making: Making;
const listeners = new Set<() => void>();

function send(message: ToProxies): void {
  if (!worker) {
    if (message.wanted.length === 0) return;
    worker = startWorker('proxies');
    worker.onmessage = ({ data }: MessageEvent<FromProxies>) => {
      making = data.making;
      for (const listener of listeners) listener();
    };
    // One that has ended is begun anew when something is wanted next.
    worker.onerror = () => {
      worker = undefined;
      making = undefined;
      for (const listener of listeners) listener();
    };
  }
  worker.postMessage(message);
}

/**
 * Has proxies made of clips while nothing else needs the machine: of large ones of the user's, so that going through
 * them is quick. Renders never use them.
 * @param media ids of what is shown; what needs no proxy is passed over
 * @param busy something plays or is rendered
 */
export function useProxies(media: readonly string[], busy: boolean): void {
  const wanted = media.filter((id) => !assetUrl(id)).join();
  useEffect(() => {
    const all = wanted === '' ? [] : wanted.split(',');
    const tellFree = () => send({ wanted: all, held: false });
    if (busy) send({ wanted: all, held: true });
    const timer = busy ? undefined : setTimeout(tellFree, QUIET);
    return () => clearTimeout(timer);
  }, [wanted, busy]);
  useEffect(() => () => send({ wanted: [], held: false }), []);
}

/** The proxy that is being made. */
export function useProxyMaking(): Making {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => making,
  );
}
