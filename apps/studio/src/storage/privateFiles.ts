/** Folders of the browser's private files (Origin private file system). */

/** A folder; nothing where the browser keeps no private files, or, where it is not to be made, there is none yet. */
export async function privateFolder(
  name: string,
  create: boolean,
): Promise<FileSystemDirectoryHandle | undefined> {
  try {
    const root = await navigator.storage.getDirectory();
    return await root.getDirectoryHandle(name, { create });
  } catch {
    return undefined;
  }
}

/** Names of what is in a folder. */
export async function namesIn(folder: FileSystemDirectoryHandle): Promise<string[]> {
  const names: string[] = [];
  for await (const name of (folder as unknown as { keys(): AsyncIterable<string> }).keys()) names.push(name);
  return names;
}
