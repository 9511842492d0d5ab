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

interface ReelContents {
  readonly media: readonly { readonly id: string; readonly path: string; readonly name: string }[];
}

/** A reel file as the app writes it: the document, and the files in it by their media ids. */
export async function reelFileOf(bytes: Uint8Array): Promise<{
  reel: unknown;
  media: { id: string; name: string; bytes: Uint8Array }[];
}> {
  const files = await unzipped(bytes);
  const json = (name: string) => JSON.parse(Buffer.from(files[name]!).toString());
  const { media } = json('contents.json') as ReelContents;
  return { reel: json('reel.json'), media: media.map((m) => ({ ...m, bytes: files[m.path]! })) };
}
