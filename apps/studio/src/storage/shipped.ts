import type { Template } from '@fresh-reel/core';
import { LISTED } from '@fresh-reel/templates/listed';

const IDS = new Set(LISTED.map(({ id }) => id));

/** Whether a template is one of those that come with the app. */
export const isShipped = (id: string): boolean => IDS.has(id);

/** A template that comes with the app, whole. It was checked when the app was built. @throws {Error} when it does not come */
export async function shippedTemplate(id: string): Promise<Template> {
  const one = await fetch(`/templates/${id}/template.json`).catch(() => undefined);
  if (one?.ok) return one.json() as Promise<Template>;
  // Without a network, all of them are at hand as one file, which is kept with the app.
  const all = await fetch('/templates/documents.json').catch(() => undefined);
  const found = all?.ok ? ((await all.json()) as Template[]).find((t) => t.id === id) : undefined;
  if (!found) throw new Error('This template could not be loaded. Check the connection, and open it again.');
  return found;
}
