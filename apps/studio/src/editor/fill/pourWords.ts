import { type Fill, isPicture, type Template } from '@fresh-reel/core';

const few = (names: readonly string[]) =>
  names.length > 3 ? `${names.slice(0, 3).join(', ')} and ${names.length - 3} more` : names.join(', ');

/**
 * Where files went that were put in a slot, in words.
 * @param slots how many slots there were for them
 * @param names of the files, in their order
 */
export function pouredText(slots: number, names: readonly string[]): string | undefined {
  const left = names.slice(slots);
  if (left.length > 0) {
    const there =
      slots === 1 ? 'The first is in this slot' : `The first ${slots} are in this slot and those after it`;
    const rest = left.length === 1 ? 'One more is' : `${left.length} more are`;
    return `${there}. ${rest} on the Shelf: ${few(left)}.`;
  }
  return names.length > 1 ? `${names.length} files are in this slot and those after it.` : undefined;
}

/** What is still the template's own among several pictures, in words; nothing when all are, or none. */
export function samplesText({ slots }: Template, fill: Fill): string | undefined {
  const pictures = slots.filter((s) => s.kind === 'picture' && !fill.hidden?.includes(s.id));
  const own = pictures.filter((s) => isPicture(fill.slots[s.id]));
  const left = pictures.filter((s) => !(s.id in fill.slots));
  if (own.length === 0 || left.length === 0) return undefined;
  const still =
    left.length === 1 ? `${left[0]!.name} still shows its sample` : `${left.length} still show samples`;
  return `${own.length === 1 ? '1 picture of' : `${own.length} pictures of`} ${pictures.length} ${own.length === 1 ? 'is' : 'are'} yours; ${still}.`;
}
