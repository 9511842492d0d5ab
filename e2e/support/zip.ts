import { Uint8ArrayReader, Uint8ArrayWriter, ZipReader } from '@zip.js/zip.js';

/** The files of a zip by their names. */
export async function unzipped(bytes: Uint8Array): Promise<Record<string, Uint8Array>> {
  const entries = await new ZipReader(new Uint8ArrayReader(bytes)).getEntries();
  const files: Record<string, Uint8Array> = {};
  for (const entry of entries) {
    if (!entry.directory) files[entry.filename] = await entry.getData(new Uint8ArrayWriter());
  }
  return files;
}
