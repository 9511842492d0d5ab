import { parentPort, workerData } from 'node:worker_threads';
import { messageOf } from '@fresh-reel/core';
import type { FromRangeThread, ToRangeThread } from './localCrew';
import { pieceKey } from './order';
import { RangeMaker } from './rangeMaker';
import { Store } from './store';

/** Makes what is asked of this thread, one range after the other, until it is ended. */
export function makeRanges(): void {
  const store = new Store((workerData as { folder: string }).folder);
  const maker = new RangeMaker(store);
  const tell = (message: FromRangeThread) => parentPort!.postMessage(message);
  let wanted = true;
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
}
