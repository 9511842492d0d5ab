import { DocumentError, openDocument, parseJson, type Template, templateKind } from '@fresh-reel/core';
import { keysWith, remove, store, write } from './store';

const PREFIX = 'template/';

/** The user's templates by name. One that does not open any more is left out, and stays as it is. */
export async function listTemplates(): Promise<Template[]> {
  const texts = await store.getMany(await keysWith(PREFIX));
  const opened = Object.values(texts).flatMap((text) => {
    try {
      return text === null ? [] : [openDocument(templateKind, parseJson(text, 'template'))];
    } catch (error) {
      if (error instanceof DocumentError) return [];
      throw error;
    }
  });
  return opened.sort((a, b) => a.name.localeCompare(b.name));
}

/** @throws {StorageError} leaving what was there before in place */
export async function saveTemplate(template: Template): Promise<void> {
  await write({ [PREFIX + template.id]: JSON.stringify(template) });
}

export async function deleteTemplate(id: string): Promise<void> {
  await remove([PREFIX + id]);
}
