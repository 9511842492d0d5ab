import { StorageError } from '../../storage/store';
import type { FromImport, ToImport } from './messages';
import { takeIn } from './takeIn';

const tell = (message: FromImport) => postMessage(message);

self.onmessage = ({ data }: MessageEvent<ToImport>) => {
  takeIn(data, (part, storing) => tell({ type: 'progress', part, storing })).then(
    (taken) => tell({ type: 'done', ...taken }),
    (error: unknown) =>
      tell({
        type: 'fault',
        message: error instanceof Error ? error.message : String(error),
        full: error instanceof StorageError && error.full,
      }),
  );
};
