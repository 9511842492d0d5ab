import { isWords, plainText, type Reel, type ReelItem } from '@fresh-reel/core';

export const KIND_WORDS: Readonly<Record<ReelItem['kind'], string>> = {
  graphic: 'Title',
  clip: 'Clip',
  still: 'Picture',
  sound: 'Sound',
  colour: 'Colour',
};

/** What an item is called: by the user, by its words, by its file. */
export function nameOf(reel: Reel, item: ReelItem): string {
  if (item.label) return item.label;
  switch (item.kind) {
    case 'graphic': {
      const template = reel.templates[item.template]!;
      const slot = template.slots.find((s) => s.kind === 'text');
      const held = slot && item.fill.slots[slot.id];
      const words = isWords(held) ? plainText(held).split('\n')[0] : '';
      return words ? `${template.name}: ${words}` : template.name;
    }
    case 'colour':
      return item.colour;
    default:
      return item.name ?? KIND_WORDS[item.kind];
  }
}

/** What a track is called: by the user, or by where it lies. */
export function trackName(reel: Reel, id: string): string {
  const at = reel.tracks.findIndex((t) => t.id === id);
  return reel.tracks[at]?.name ?? `Track ${at + 1}`;
}
