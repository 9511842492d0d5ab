import { type History, type Reel, reelKind, startHistory, templateKind } from '@fresh-reel/core';
import { z } from 'zod';
import { jsonOf, remove, store, write } from './store';

/** Steps kept of a reel that is left, and signs they may take in all. */
const MOST_STEPS = 40;
const MOST_SIGNS = 3_000_000;

const keptSchema = z.object({
  /** Versions of the documents in it: others are not gone back to. */
  versions: z.tuple([z.literal(reelKind.version), z.literal(templateKind.version)]),
  /** The reel the steps lead to and away from. */
  present: z.string(),
  past: z.array(z.string()),
  future: z.array(z.string()),
});

const keyOf = (id: string) => `history/${id}`;
/** A reel as text, whenever it was written. */
const textOf = (reel: Reel) => JSON.stringify({ ...reel, changed: '' });

/** Keeps the last steps of a reel that is left, as many as there is room for. */
export async function keepHistory({ past, present, future }: History<Reel>): Promise<void> {
  let left = MOST_SIGNS;
  const within = (reels: readonly Reel[]) => {
    const texts: string[] = [];
    for (const reel of reels.slice(0, MOST_STEPS)) {
      const text = JSON.stringify(reel);
      left -= text.length;
      if (left < 0) break;
      texts.push(text);
    }
    return texts;
  };
  const kept = {
    versions: [reelKind.version, templateKind.version],
    present: textOf(present),
    past: within([...past].reverse()).reverse(),
    future: within(future),
  };
  if (kept.past.length + kept.future.length === 0) await remove([keyOf(present.id)]);
  else await write({ [keyOf(present.id)]: JSON.stringify(kept) });
}

/** The steps that were kept of a reel, as long as it is as it was left; none otherwise. */
export async function readHistory(reel: Reel): Promise<History<Reel>> {
  const parsed = keptSchema.safeParse(jsonOf(await store.getItem(keyOf(reel.id))));
  if (!parsed.success || parsed.data.present !== textOf(reel)) return startHistory(reel);
  // They were checked when they were reels of this version.
  const open = (text: string) => JSON.parse(text) as Reel;
  return {
    past: parsed.data.past.map(open),
    present: reel,
    future: parsed.data.future.map(open),
    gesture: undefined,
  };
}
