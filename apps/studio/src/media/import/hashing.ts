import { startWorker } from '../../workers/startWorker';
import { MediaError } from './mediaError';
import type { FromImport, ToImport } from './messages';

/** Works out hashes of files one after the other, apart from the page. */
export interface Hashing {
  /** SHA-256 of a file. @throws {MediaError} when it cannot be read */
  hash(file: File): Promise<string>;
  end(): void;
}

/** Starts a worker for as many files as there are; end it when they are done. */
export function startHashing(): Hashing {
  const worker = startWorker('import');
  return {
    hash: (file) =>
      new Promise((resolve, reject) => {
        const fail = (why: string) => reject(new MediaError(`"${file.name}" cannot be read. ${why}`.trim()));
        worker.onmessage = ({ data }: MessageEvent<FromImport>) => {
          if (data.type === 'hashed') resolve(data.hash);
          else if (data.type === 'fault') fail(data.message);
        };
        worker.onerror = (event) => fail(event.message ?? '');
        worker.postMessage({ hash: file } satisfies ToImport);
      }),
    end: () => worker.terminate(),
  };
}

/** SHA-256 of one file. @throws {MediaError} when it cannot be read */
export async function hashOfFile(file: File): Promise<string> {
  const hashing = startHashing();
  return hashing.hash(file).finally(hashing.end);
}
