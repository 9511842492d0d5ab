import '../../workers/alive';
import { messageOf } from '@fresh-reel/core';
import { hashOf, piecesOf } from '../../disk/hash';
import { StorageError } from '../../storage/store';
import { DamagedError, NeedsCopyError } from './mediaError';
import type { FromImport, ToImport } from './messages';
import { takeIn } from './takeIn';

const tell = (message: FromImport) => postMessage(message);

async function answer(what: ToImport): Promise<FromImport> {
  if ('hash' in what) return { type: 'hashed', hash: (await hashOf(piecesOf(what.hash))).hash };
  const taken = await takeIn(what, (part, storing) => tell({ type: 'progress', part, storing }));
  return { type: 'done', ...taken };
}

self.onmessage = ({ data }: MessageEvent<ToImport>) => {
  answer(data).then(tell, (error: unknown) =>
    tell({
      type: 'fault',
      message: messageOf(error),
      full: error instanceof StorageError && error.full,
      damaged: error instanceof DamagedError,
      ...(error instanceof NeedsCopyError ? { needs: error.needs } : {}),
    }),
  );
};
