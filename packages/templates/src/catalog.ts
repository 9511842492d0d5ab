import type { Template } from '@fresh-reel/core';

/** Templates, and the ways to find one. */
export interface Catalog {
  readonly TEMPLATES: readonly Template[];
  /** @throws {Error} naming the templates there are, when none has this id. */
  templateById(id: string): Template;
  /**
   * The media id of an asset of a built-in template.
   * @throws {Error} when there is no such template or asset
   */
  assetOf(template: string, name: string): string;
}

/** @param templates checked already: by the tests, when the app is built, or as they are opened */
export function catalogOf(templates: readonly Template[]): Catalog {
  const templateById = (id: string): Template => {
    const found = templates.find((t) => t.id === id);
    if (!found)
      throw new Error(`There is no template "${id}". There are: ${templates.map((t) => t.id).join(', ')}.`);
    return found;
  };
  return {
    TEMPLATES: templates,
    templateById,
    assetOf: (template, name) => {
      const { assets } = templateById(template);
      if (!Object.hasOwn(assets, name)) throw new Error(`The template "${template}" has no asset "${name}".`);
      return assets[name]!;
    },
  };
}
