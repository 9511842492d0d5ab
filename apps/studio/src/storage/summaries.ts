import { documentOnly, graphicsOf, type Reel, ReelScene, secondsAt } from '@fresh-reel/core';
import { z } from 'zod';
import { jsonOf, store } from './store';

const summarySchema = z.strictObject({
  id: z.string().min(1),
  name: z.string(),
  changed: z.string(),
  /** Names of the templates in it, and their ids. */
  templates: z.array(z.string()),
  templateIds: z.array(z.string()),
  seconds: z.number().min(0),
  /** Hashes of the files it shows. */
  media: z.array(z.string()),
  /** It is the bench of a template that is being made. */
  making: z.boolean().optional(),
});

/** What lists tell of a reel, kept beside it, so that a list need not open it. */
export type ReelSummary = z.infer<typeof summarySchema>;

/** Where the summary of a reel lies. */
export const summaryKey = (id: string) => `summary/${id}`;
const RESOURCES = documentOnly();

export function summarise(reel: Reel): ReelSummary {
  const graphics = graphicsOf(reel);
  const scene = new ReelScene(reel, RESOURCES);
  // Ids stand in slots, in fills of texts, in sounds and on tracks; all of them have the one form.
  const fills = JSON.stringify([reel.tracks, scene.held()]);
  return {
    id: reel.id,
    name: reel.name,
    changed: reel.changed,
    templates: [...new Set(graphics.map((g) => g.template.name))],
    templateIds: [...new Set(graphics.map((g) => g.template.id))],
    seconds: secondsAt(scene.frameCount(reel.rate), reel.rate),
    media: [...new Set(fills.match(/sha256:[0-9a-f]{64}/g) ?? [])],
    ...(reel.making ? { making: true } : {}),
  };
}

/** The entry of the store that a summary is. */
export const summaryEntry = (summary: ReelSummary): Record<string, string> => ({
  [summaryKey(summary.id)]: JSON.stringify(summary),
});

/** Summaries of reels, by id; one that is not there or does not read is left out. */
export async function readSummaries(ids: readonly string[]): Promise<Map<string, ReelSummary>> {
  const texts = await store.getMany(ids.map(summaryKey));
  const found = new Map<string, ReelSummary>();
  for (const text of Object.values(texts)) {
    const { data } = summarySchema.safeParse(jsonOf(text));
    if (data) found.set(data.id, data);
  }
  return found;
}
