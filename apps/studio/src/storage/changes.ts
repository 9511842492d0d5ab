/** A file or a font that came, went, or was put back; or the proxy of a clip. */
export interface StoredChange {
  readonly kind: 'media' | 'font' | 'proxy';
  /** Hash of a file, or of the clip whose proxy it is, or the family of a font. */
  readonly id: string;
}

const NAME = 'fresh-reel/stored';
// A channel does not hear itself, but any other of the same name does: also in this page, its workers and other tabs.
const open = () => (typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel(NAME));
let speaking: BroadcastChannel | undefined;
let hearing: BroadcastChannel | undefined;

/** Tells everybody who shows a file or a font that it is there now, or not any more. */
export function tellStored(change: StoredChange): void {
  speaking ??= open();
  speaking?.postMessage(change);
}

/** Hears of files and fonts that come and go, from this page, its workers and other tabs. */
export function onStored(listener: (change: StoredChange) => void): () => void {
  hearing ??= open();
  const channel = hearing;
  const heard = ({ data }: MessageEvent<StoredChange>) => listener(data);
  channel?.addEventListener('message', heard);
  return () => channel?.removeEventListener('message', heard);
}
