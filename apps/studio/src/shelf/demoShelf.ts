import { useEffect } from 'react';
import { importMedia } from '../media/import/importMedia';
import { saveMediaRecord } from '../storage/media';
import { keys, queryClient } from '../storage/queries';
import { store, write } from '../storage/store';

/** What lies on the shelf at the first start, by group. */
const DEMO_SHELF: Readonly<Record<string, readonly string[]>> = {
  Saturday: [
    'hand-and-line.mp4',
    'crowd-on-the-hill.mp4',
    'drifting-sky.mp4',
    'kite-going-up.mp4',
    'kite-near.mp4',
    'kites-crossing.mp4',
    'maker.jpg',
    'dusk.jpg',
    'bed.ogg',
  ],
  Logos: ['radio-logo.svg', 'rope-logo.svg', 'bakery-logo.svg', 'festival-logo.svg'],
};
const DONE = 'shelf-started';

/**
 * Puts the demo's files on the shelf, once. A start that was cut short is gone on with the next time; the same file
 * is never there twice.
 */
async function startDemoShelf(): Promise<void> {
  if ((await store.getItem(DONE)) !== null) return;
  for (const [group, names] of Object.entries(DEMO_SHELF)) {
    for (const name of names) {
      const response = await fetch(`/templates/shared/${name}`);
      // What cannot be had now is not worth a word: the templates bring their own copies.
      if (!response.ok) continue;
      const came = await importMedia(new File([await response.blob()], name));
      if (came.kind === 'media' && !came.again) await saveMediaRecord({ ...came.record, group });
    }
  }
  await write({ [DONE]: '1' });
  await queryClient.invalidateQueries({ queryKey: keys.media });
}

let started: Promise<void> | undefined;

/** Has the demo's files put on the shelf where one first looks at it: nobody who does not waits for them on the wire. */
export function useDemoShelf(): void {
  useEffect(() => {
    if (!started)
      started = startDemoShelf().catch(() => {
        // The next look tries again; what came so far stays.
        started = undefined;
      });
  }, []);
}
