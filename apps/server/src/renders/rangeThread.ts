import { parentPort, workerData } from 'node:worker_threads';
import { messageOf } from '@fresh-reel/core';
import type { FromRangeThread, ToRangeThread } from './localCrew';
import { pieceKey } from './order';
import { RangeMaker, warmUp } from './rangeMaker';
import { Store } from './store';

/** A thread that makes what is asked of it, one range after the other, until it is ended. */
const store = new Store((workerData as { folder: string }).folder);
const maker = new RangeMaker(store);
const tell = (message: FromRangeThread) => parentPort!.postMessage(message);
let wanted = true;
// What fails is told by the render that meets it.
warmUp().catch(() => undefined);
parentPort!.on('message', (message: ToRangeThread) => {
  if (message === 'give up') {
    wanted = false;
    return;
  }
  wanted = true;
  maker
    .make(message, () => {
      tell({ type: 'frame' });
      return wanted;
    })
    .then((path) => store.take('pieces', pieceKey(message), path))
    .then(
      () => tell({ type: 'made' }),
      (error: unknown) => tell({ type: 'failed', message: messageOf(error) }),
    );
});
