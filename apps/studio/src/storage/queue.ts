import { openDocument, parseJson, type Reel, reelKind } from '@fresh-reel/core';
import { z } from 'zod';
import { reelText } from './reels';
import { planSchema } from './renders';
import { jsonOf, keysWith, remove, store, write } from './store';
import { whileHeld } from './tabs';

const PREFIX = 'queue/';
/** The reel of a render as it was when it was put in the queue; apart, since it does not change and may be long. */
const reelKey = (id: string) => `queued/${id}`;

const queuedSchema = z.strictObject({
  id: z.string().min(1),
  /** Its place in the order; smaller comes first. */
  place: z.number(),
  reelId: z.string(),
  reelName: z.string(),
  plan: planSchema,
  state: z.enum(['waiting', 'paused', 'fault']),
  /** Frames that are painted, as far as is known. */
  frames: z.number(),
  /** Why it stopped. */
  message: z.string().optional(),
});
/** A render that is not finished: it waits or runs, was paused, or stopped by a fault. */
export type QueuedRender = z.infer<typeof queuedSchema>;

/** The queue in its order. */
export async function listQueue(): Promise<QueuedRender[]> {
  const texts = await store.getMany(await keysWith(PREFIX));
  const found = Object.values(texts).flatMap((text) => {
    const parsed = queuedSchema.safeParse(jsonOf(text));
    return parsed.success ? [parsed.data] : [];
  });
  return found.sort((a, b) => a.place - b.place);
}

/** Held while the queue is changed: no tab writes down what another has just taken out. */
const LOCK = 'queue';

/**
 * Writes a render down: with its reel when it joins the queue, without it afterwards.
 * @returns whether it is in the queue: one that another tab has taken out is not put back
 * @throws {StorageError}
 */
export function saveQueued(render: QueuedRender, reel?: Reel): Promise<boolean> {
  return whileHeld(LOCK, async () => {
    const key = PREFIX + render.id;
    if (!reel && (await store.getItem(key)) === null) return false;
    const more = reel ? { [reelKey(render.id)]: reelText(reel) } : {};
    await write({ [key]: JSON.stringify(render), ...more });
    return true;
  });
}

/**
 * The reel that a render in the queue was put there with.
 * @throws {DocumentError} when it is damaged
 */
export async function queuedReel(id: string): Promise<Reel | undefined> {
  const text = await store.getItem(reelKey(id));
  return text === null ? undefined : openDocument(reelKind, parseJson(text, 'reel'));
}

export function forgetQueued(id: string): Promise<void> {
  return whileHeld(LOCK, () => remove([PREFIX + id, reelKey(id)]));
}
