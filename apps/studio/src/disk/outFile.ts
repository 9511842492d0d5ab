import { holdWhileAlive, ifFree } from '../storage/tabs';

/** A file that is written piece by piece and then given to the user: on disk where the browser keeps private files. */
export interface OutFile {
  write(bytes: Uint8Array): Promise<void>;
  finish(): Promise<Blob>;
}

const FOLDER = 'saved';

/** Says that a file is in use for as long as its tab lives. */
const lockOf = (file: string) => `${FOLDER}/${file}`;

/**
 * Opens a file to write. It stays while its tab does: the browser may still be reading it.
 * @param name what it will be called
 */
export async function outFile(name: string): Promise<OutFile> {
  const root = await navigator.storage?.getDirectory?.().catch(() => undefined);
  if (!root || !('createWritable' in FileSystemFileHandle.prototype)) return inMemory();
  const file = `${Date.now()}-${name}`;
  await holdWhileAlive(lockOf(file));
  const folder = await root.getDirectoryHandle(FOLDER, { create: true });
  const handle = await folder.getFileHandle(file, { create: true });
  const stream = await handle.createWritable();
  return {
    write: (bytes) => stream.write(bytes as Uint8Array<ArrayBuffer>),
    finish: async () => {
      await stream.close();
      return handle.getFile();
    },
  };
}

function inMemory(): OutFile {
  const parts: BlobPart[] = [];
  return {
    write: async (bytes) => {
      parts.push(bytes.slice() as Uint8Array<ArrayBuffer>);
    },
    finish: async () => new Blob(parts),
  };
}

/** Removes what was written for the user in earlier visits: what no tab that is open has in use. */
export async function clearOutFiles(): Promise<void> {
  const root = await navigator.storage?.getDirectory?.().catch(() => undefined);
  // There may be nothing to remove.
  const folder = await root?.getDirectoryHandle(FOLDER).catch((error: DOMException) => {
    if (error.name !== 'NotFoundError') throw error;
  });
  const files: string[] = [];
  for await (const file of folder?.keys() ?? []) files.push(file);
  for (const file of files) await ifFree(lockOf(file), () => folder!.removeEntry(file));
}
