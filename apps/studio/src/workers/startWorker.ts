import { aliveName } from './alive';

/** The workers there are: the name of each is that of its file, `<name>.worker.ts`, in the room it belongs to. */
export type WorkerName =
  | 'follow'
  | 'import'
  | 'mix'
  | 'paint'
  | 'preview'
  | 'proxies'
  | 'render'
  | 'strips'
  | 'suggest'
  | 'survey'
  | 'unpack';

/** A worker has ended that nobody has ended: the browser took its memory. */
export class WorkerEnded extends Error {
  override readonly name = 'WorkerEnded';
}

const ENDED = 'The browser has ended a part of the app. Often it has too little memory: close other tabs.';

/**
 * Starts a worker. It lies beside this code, and is of the very same build (`scripts/build/bundle.mjs`). If it ends by
 * itself, it gets an error event whose error is a {@link WorkerEnded}: browsers tell nothing then. At addresses that are
 * not secure nothing is heard of it.
 */
export function startWorker(name: WorkerName): Worker {
  const own = `${name} ${Math.random().toString(36).slice(2)}`;
  const worker = new Worker(new URL(`./${name}.js`, import.meta.url), { type: 'module', name: own });
  if (navigator.locks) hearOfEnd(worker, aliveName(own));
  return worker;
}

function hearOfEnd(worker: Worker, lock: string): void {
  const wanted = new AbortController();
  const channel = new BroadcastChannel(lock);
  channel.onmessage = () => {
    channel.close();
    const { signal } = wanted;
    navigator.locks
      .request(lock, { signal }, () => {
        const error = new WorkerEnded(ENDED);
        worker.dispatchEvent(new ErrorEvent('error', { error, message: ENDED }));
      })
      // It was ended on purpose.
      .catch(() => undefined);
  };
  const end = worker.terminate.bind(worker);
  worker.terminate = () => {
    channel.close();
    wanted.abort();
    end();
  };
}
