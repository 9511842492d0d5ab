import { RENDER_FORMATS, SOUND_CODECS } from '@fresh-reel/core';
import { z } from 'zod';
import { jsonOf, keysWith, remove, store, write } from './store';

const PREFIX = 'render/';

/** Decibels; silence has none, which JSON cannot say. */
const level = z
  .number()
  .nullable()
  .transform((v) => v ?? Number.NEGATIVE_INFINITY);

/** What is rendered, as it is kept. */
export const planSchema = z.strictObject({
  format: z.enum(RENDER_FORMATS),
  width: z.number(),
  height: z.number(),
  rate: z.strictObject({ num: z.number(), den: z.number() }),
  from: z.number(),
  count: z.number(),
  fileName: z.string(),
  draft: z.boolean().optional(),
});

/** A finished render; its file lies apart, on disk. */
const renderSchema = z.strictObject({
  /** Name of its file on disk. */
  stored: z.string().min(1),
  reelId: z.string(),
  reelName: z.string(),
  /** Type of the file. */
  type: z.string(),
  plan: planSchema,
  frames: z.number(),
  seconds: z.number().optional(),
  sound: z.strictObject({ codec: z.enum(SOUND_CODECS), loudness: level, peak: level }).optional(),
  /** ISO 8601 instant. */
  finished: z.string(),
  /** Its id in the queue. */
  job: z.string().optional(),
});
export type RenderRecord = z.infer<typeof renderSchema>;

export async function saveRender(record: RenderRecord): Promise<void> {
  await write({ [PREFIX + record.stored]: JSON.stringify(record) });
}

/** Finished renders of every visit, the newest first. */
export async function listRenders(): Promise<RenderRecord[]> {
  const texts = await store.getMany(await keysWith(PREFIX));
  const found = Object.values(texts).flatMap((text) => {
    const parsed = renderSchema.safeParse(jsonOf(text));
    return parsed.success ? [parsed.data] : [];
  });
  return found.sort((a, b) => b.finished.localeCompare(a.finished));
}

export async function forgetRenderRecord(stored: string): Promise<void> {
  await remove([PREFIX + stored]);
}
