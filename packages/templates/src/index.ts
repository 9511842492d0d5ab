import { openDocument, type Template, templateKind } from '@fresh-reel/core';
import { SOURCES } from './sources';

/** The built-in templates as they lie on disk, by id, in the order they are shown. */
const sources = new Map<string, unknown>(SOURCES.map((source) => [source.id, source]));
const opened = new Map<string, Template>();

/** The ids of the built-in templates, in the order they are shown. */
export const TEMPLATE_IDS: readonly string[] = [...sources.keys()];

/**
 * A built-in template, checked as one of a stranger's would be: once, when it is first asked for.
 * @throws {Error} naming the templates there are, when none has this id
 */
export function templateById(id: string): Template {
  const known = opened.get(id);
  if (known) return known;
  if (!sources.has(id))
    throw new Error(`There is no template "${id}". There are: ${TEMPLATE_IDS.join(', ')}.`);
  const template = openDocument(templateKind, sources.get(id));
  opened.set(id, template);
  return template;
}

/** All built-in templates, in the order they are shown. What needs one asks for that one: checking all takes seconds. */
export const allTemplates = (): readonly Template[] => TEMPLATE_IDS.map(templateById);

/**
 * The media id of an asset of a built-in template.
 * @throws {Error} when there is no such template or asset
 */
export function assetOf(template: string, name: string): string {
  const { assets } = templateById(template);
  if (!Object.hasOwn(assets, name)) throw new Error(`The template "${template}" has no asset "${name}".`);
  return assets[name]!;
}

export { SHIPPED } from './files';
