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

/** Starts a worker. It lies beside this code, and is of the very same build (`scripts/build/bundle.mjs`). */
export const startWorker = (name: WorkerName): Worker =>
  new Worker(new URL(`./${name}.js`, import.meta.url), { type: 'module', name });
