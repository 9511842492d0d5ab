/** A file that is written piece by piece and then given to the user: on disk where the browser keeps private files. */
export interface OutFile {
  write(bytes: Uint8Array): Promise<void>;
  finish(): Promise<Blob>;
}

const FOLDER = 'saved';

/**
 * Opens a file to write. What earlier ones left is removed first: the browser has read them by then.
 * @param name what it will be called
 */
export async function outFile(name: string): Promise<OutFile> {
  const root = await navigator.storage?.getDirectory?.().catch(() => undefined);
  if (!root || !('createWritable' in FileSystemFileHandle.prototype)) return inMemory();
  const folder = await root.getDirectoryHandle(FOLDER, { create: true });
  const handle = await folder.getFileHandle(`${Date.now()}-${name}`, { create: true });
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

/** Removes what was written for the user in earlier visits. */
export async function clearOutFiles(): Promise<void> {
  const root = await navigator.storage?.getDirectory?.().catch(() => undefined);
  // There may be nothing to remove.
  await root?.removeEntry(FOLDER, { recursive: true }).catch((error: DOMException) => {
    if (error.name !== 'NotFoundError') throw error;
  });
}
