import type { Template } from '@fresh-reel/core';
import { LISTED } from '@fresh-reel/templates/listed';

const IDS = new Set(LISTED.map(({ id }) => id));

/** Whether a template is one of those that come with the app. */
export const isShipped = (id: string): boolean => IDS.has(id);

/** A template that comes with the app, whole. It was checked when the app was built. @throws {Error} when it does not come */
export async function shippedTemplate(id: string): Promise<Template> {
  const reply = await fetch(`/templates/${id}/template.json`).catch(() => undefined);
  if (!reply?.ok)
    throw new Error('This template could not be loaded. Check the connection, and open it again.');
  return reply.json() as Promise<Template>;
}
