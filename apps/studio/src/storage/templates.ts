import { type ListedTemplate, listedOf, openedListed, type Template, templateKind } from '@fresh-reel/core';
import { checkedText } from './checked';
import { openedText } from './opened';
import { removeToKeep } from './removed';
import { jsonOf, keysWith, store, write } from './store';
import { tellTabs, whileHeld } from './tabs';

const PREFIX = 'template/';

/** Where the editions of a template lie that are not the present one. */
const editionsOf = (id: string) => `edition/${id}/`;

const opened = (text: string | null): Template | undefined => openedText(templateKind, text);

/** Where it lies what lists tell of all of them: one entry, since each that is read takes its time. */
const LISTED = 'listed';

const idsIn = (keys: readonly string[]) =>
  keys.filter((key) => key.startsWith(PREFIX)).map((key) => key.slice(PREFIX.length));
const kept = async () => openedListed(jsonOf(await store.getItem(LISTED)));

/**
 * Writes something together with what lists tell of the templates in the store. Other tabs wait, so that none writes
 * over what another one tells.
 * @param told what is told, given what is told now
 * @throws {StorageError} leaving what was there before in place
 */
function writeTold(
  told: (now: ReadonlyMap<string, ListedTemplate>) => readonly ListedTemplate[],
  entries: Record<string, string> = {},
): Promise<void> {
  return whileHeld('templates', async () => {
    const now = await kept();
    const next = new Map([...now, ...told(now).map((one) => [one.id, one] as const)]);
    const here = new Set(idsIn([...(await keysWith(PREFIX)), ...Object.keys(entries)]));
    const left = [...next.values()].filter(({ id }) => here.has(id));
    await write({ ...entries, [LISTED]: JSON.stringify(left) });
  });
}

/** Writes templates as the present editions, and other entries with them. @throws {StorageError} */
async function put(templates: readonly Template[], others: Record<string, string> = {}): Promise<void> {
  await writeTold(() => templates.map(listedOf), {
    ...others,
    ...Object.fromEntries(templates.map((t) => [PREFIX + t.id, checkedText(templateKind, t)])),
  });
  tellTabs('templates');
}

const byName = new Intl.Collator().compare;

/**
 * The user's templates by name. What is told of them is read, not they themselves: only those of which nothing is kept
 * yet are opened, once. One that does not open any more is left out, and stays as it is.
 */
export async function listTemplates(): Promise<ListedTemplate[]> {
  const [keys, told] = await Promise.all([keysWith(PREFIX), kept()]);
  const ids = idsIn(keys);
  const unknown = await Promise.all(ids.filter((id) => !told.has(id)).map(readTemplate));
  const found = unknown.flatMap((t) => (t ? [listedOf(t)] : []));
  for (const one of found) told.set(one.id, one);
  // What could not be kept is found again the next time; what was told meanwhile is newer.
  if (found.length > 0)
    await writeTold((now) => found.filter(({ id }) => !now.has(id))).catch(() => undefined);
  return ids.flatMap((id) => told.get(id) ?? []).sort((a, b) => byName(a.name, b.name));
}

/** One of the user's templates; nothing of one that is not there, or does not open any more. */
export const readTemplate = async (id: string): Promise<Template | undefined> =>
  opened(await store.getItem(PREFIX + id));

/** @throws {StorageError} leaving what was there before in place */
export async function saveTemplate(template: Template): Promise<void> {
  await put([template]);
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
export function saveEdition(template: Template): Promise<Template> {
  // Of two tabs that keep one at once, each counts on from the other.
  return whileHeld(editionsOf(template.id), async () => {
    const present = await store.getItem(PREFIX + template.id);
    const last = Math.max(0, ...(await listEditions(template.id)).map(editionOf));
    const newest: Template = { ...template, edition: last + 1 };
    const before = opened(present);
    await put([newest], before ? { [editionsOf(template.id) + editionOf(before)]: present! } : {});
    return newest;
  });
}

/** Keeps templates as they were kept elsewhere: of those with one id, the last edition is the present one. */
export async function putTemplates(templates: readonly Template[]): Promise<void> {
  const newest = new Map<string, Template>();
  for (const template of templates) {
    const held = newest.get(template.id);
    if (!held || editionOf(template) >= editionOf(held)) newest.set(template.id, template);
  }
  const older = templates.filter((t) => newest.get(t.id) !== t);
  await put(
    [...newest.values()],
    Object.fromEntries(older.map((t) => [editionsOf(t.id) + editionOf(t), checkedText(templateKind, t)])),
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
