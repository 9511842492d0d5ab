import { newId } from './ids';
import { writtenWhole } from './journal';
import { namesIn, privateFolder } from './privateFiles';
import { holdWhileAlive, ifFree, whileHeld } from './tabs';

/** A file that grows at any position. On disk where the browser keeps private files, else in memory. */
export interface GrowingFile {
  write(data: Uint8Array, position: number): void;
  /** Ends writing and gives the whole. */
  finish(type: string): Promise<{ file: Blob; stored: string | undefined }>;
  discard(): Promise<void>;
}

/** What is written into a file piece by piece, as a muxer writes it. */
export const streamInto = (file: GrowingFile): WritableStream<{ data: Uint8Array; position: number }> =>
  new WritableStream({ write: ({ data, position }) => file.write(data, position) });

const FOLDER = 'renders';

interface SyncHandle {
  write(data: Uint8Array, options: { at: number }): number;
  flush(): void;
  close(): void;
}

/** Opens a new file for a render, in a worker. */
export async function growFile(name: string): Promise<GrowingFile> {
  try {
    const root = await navigator.storage.getDirectory();
    const folder = await root.getDirectoryHandle(FOLDER, { create: true });
    // The name on disk is its own, so that two renders of one name do not meet.
    const stored = newId();
    // Held as long as this worker lives.
    await holdWhileAlive(renderLock(stored));
    const handle = await folder.getFileHandle(stored, { create: true });
    const sync = await (
      handle as unknown as { createSyncAccessHandle(): Promise<SyncHandle> }
    ).createSyncAccessHandle();
    return {
      write: (data, position) => {
        if (!writtenWhole(sync, data, position))
          throw new Error('The disk is full. Free some space and try again.');
      },
      finish: async (type) => {
        sync.flush();
        sync.close();
        const file = await handle.getFile();
        return { file: new File([file], name, { type }), stored };
      },
      discard: async () => {
        sync.close();
        await folder.removeEntry(stored);
      },
    };
  } catch {
    return inMemory(name);
  }
}

/**
 * Keeps what comes as a finished render, on the page.
 * @returns as a growing file does when it is finished
 */
export async function storeStream(
  stream: ReadableStream<Uint8Array>,
  name: string,
  type: string,
): Promise<{ file: Blob; stored: string | undefined }> {
  const root = await navigator.storage?.getDirectory?.().catch(() => undefined);
  if (!root || !('createWritable' in FileSystemFileHandle.prototype))
    return { file: new File([await new Response(stream).blob()], name, { type }), stored: undefined };
  const folder = await root.getDirectoryHandle(FOLDER, { create: true });
  const stored = newId();
  return whileHeld(renderLock(stored), async () => {
    const handle = await folder.getFileHandle(stored, { create: true });
    await stream.pipeTo((await handle.createWritable()) as WritableStream<Uint8Array>);
    return { file: new File([await handle.getFile()], name, { type }), stored };
  });
}

/** A file that grows in memory. */
export function inMemory(name: string): GrowingFile {
  let bytes = new Uint8Array(1 << 20);
  let length = 0;
  return {
    write: (data, position) => {
      const end = position + data.byteLength;
      if (end > bytes.byteLength) {
        const larger = new Uint8Array(Math.max(end, bytes.byteLength * 2));
        larger.set(bytes.subarray(0, length));
        bytes = larger;
      }
      bytes.set(data, position);
      length = Math.max(length, end);
    },
    finish: async (type) => ({
      file: new File([bytes.subarray(0, length)], name, { type }),
      stored: undefined,
    }),
    discard: async () => {
      bytes = new Uint8Array(0);
    },
  };
}

/** The lock that a render holds while it writes its file, in whichever tab. */
export const renderLock = (stored: string) => `render/${stored}`;

/** A stored render's file, or nothing when it is gone. */
export async function storedRender(stored: string): Promise<File | undefined> {
  const folder = await privateFolder(FOLDER, false);
  return folder?.getFileHandle(stored).then(
    (handle) => handle.getFile(),
    () => undefined,
  );
}

/** Removes files that no finished render is, and that no tab is writing: what was cut off has left them. */
export async function clearBrokenRenders(finished: ReadonlySet<string>): Promise<void> {
  const folder = await privateFolder(FOLDER, false);
  if (!folder) return;
  for (const name of await namesIn(folder)) {
    if (!finished.has(name)) await ifFree(renderLock(name), () => folder.removeEntry(name));
  }
}

/** Removes one stored render; one that is gone already is left at that. */
export async function removeStoredRender(name: string): Promise<void> {
  const folder = await privateFolder(FOLDER, false);
  await folder?.removeEntry(name).catch(() => undefined);
}
