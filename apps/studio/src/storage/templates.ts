import { type Template, templateKind } from '@fresh-reel/core';
import { openedText } from './opened';
import { removeToKeep } from './removed';
import { keysWith, store, write } from './store';

const PREFIX = 'template/';

/** Where the editions of a template lie that are not the present one. */
const editionsOf = (id: string) => `edition/${id}/`;

const opened = (text: string | null): Template | undefined => openedText(templateKind, text);

/** The user's templates by name. One that does not open any more is left out, and stays as it is. */
export async function listTemplates(): Promise<Template[]> {
  const texts = await store.getMany(await keysWith(PREFIX));
  return Object.values(texts)
    .flatMap((text) => opened(text) ?? [])
    .sort((a, b) => a.name.localeCompare(b.name));
}

/** @throws {StorageError} leaving what was there before in place */
export async function saveTemplate(template: Template): Promise<void> {
  await write({ [PREFIX + template.id]: JSON.stringify(template) });
}

/** Which edition a template is; those that are not counted are the first. */
export const editionOf = ({ edition = 1 }: Template): number => edition;

/** All editions of a template that are there, the newest first, which is the present one. */
export async function listEditions(id: string): Promise<Template[]> {
  const texts = await store.getMany([PREFIX + id, ...(await keysWith(editionsOf(id)))]);
  return Object.values(texts)
    .flatMap((text) => opened(text) ?? [])
    .sort((a, b) => editionOf(b) - editionOf(a));
}

/**
 * Keeps a template as the newest edition of the one of its id; the present one is kept among the others.
 * @returns it, with its number
 * @throws {StorageError} leaving what was there before in place
 */
export async function saveEdition(template: Template): Promise<Template> {
  const present = await store.getItem(PREFIX + template.id);
  const last = Math.max(0, ...(await listEditions(template.id)).map(editionOf));
  const newest: Template = { ...template, edition: last + 1 };
  const before = opened(present);
  await write({
    [PREFIX + template.id]: JSON.stringify(newest),
    ...(before ? { [editionsOf(template.id) + editionOf(before)]: present! } : {}),
  });
  return newest;
}

/** Keeps templates as they were kept elsewhere: of those with one id, the last edition is the present one. */
export async function putTemplates(templates: readonly Template[]): Promise<void> {
  const newest = new Map<string, Template>();
  for (const template of templates) {
    const held = newest.get(template.id);
    if (!held || editionOf(template) >= editionOf(held)) newest.set(template.id, template);
  }
  await write(
    Object.fromEntries(
      templates.map((template) => [
        newest.get(template.id) === template
          ? PREFIX + template.id
          : editionsOf(template.id) + editionOf(template),
        JSON.stringify(template),
      ]),
    ),
  );
}

/** Every edition of every template of the user's. */
export async function listAllEditions(): Promise<Template[]> {
  const present = await listTemplates();
  return (await Promise.all(present.map(({ id }) => listEditions(id)))).flat();
}

/** Takes a template out; for a while it can be put back, with all its editions. */
export async function deleteTemplate({ id, name }: Pick<Template, 'id' | 'name'>): Promise<void> {
  await removeToKeep('template', id, name);
}
