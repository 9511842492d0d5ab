import { type Brand, EMPTY_FILL, type Fill, freshPicture, type Template, wearBrand } from '@fresh-reel/core';

/** A template as it comes, wearing the user's brand if there is one. */
export const wornFill = (template: Template, brand: Brand | null | undefined): Fill =>
  brand ? wearBrand(template, EMPTY_FILL, brand) : EMPTY_FILL;

/**
 * A template with what the user has at hand, so that several can be told apart by more than their samples.
 * @param lines words, a line for each text in the order of the template; a list takes all of them where there is no text
 * @param pictures ids of media, one for each picture in the order of the template; the rest keep their samples
 */
export function ownFill(
  template: Template,
  lines: readonly string[],
  pictures: readonly string[],
  brand: Brand | undefined,
): Fill {
  const worn = wornFill(template, brand);
  const of = (kind: string) => template.slots.filter((s) => s.kind === kind);
  const texts = of('text').flatMap((slot, i) => (lines[i] ? [[slot.id, lines[i]] as const] : []));
  const lists = of('text').length === 0 && lines.length > 0 ? of('list') : [];
  const shown = of('picture').flatMap((slot, i) =>
    pictures[i] ? [[slot.id, freshPicture(pictures[i])] as const] : [],
  );
  return {
    ...worn,
    slots: {
      ...worn.slots,
      ...Object.fromEntries([...texts, ...lists.map((s) => [s.id, lines.join('\n')] as const), ...shown]),
    },
  };
}
