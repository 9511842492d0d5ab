import type { Slot, Template } from '@fresh-reel/core';
import type { IconName } from '../ui/Icon';

/**
 * What stands on a slot's tag: its place in the template, from 1. Slots that are numbered by their names have their own
 * number, after a letter that tells them from others of that number: Picture 1 is P1.
 */
export function slotTag(template: Template, slot: string): string {
  const found = template.slots.find((s) => s.id === slot);
  const [, initial, number] = /^(\p{L}).*?\s(\d+)$/u.exec(found?.name ?? '') ?? [];
  if (initial && number) return `${initial.toUpperCase()}${number}`;
  const others = template.slots.filter((s) => !/\s\d+$/.test(s.name));
  return String(others.findIndex((s) => s.id === slot) + 1);
}

export const SLOT_KIND: Readonly<Record<Slot['kind'], { word: string; icon: IconName }>> = {
  text: { word: 'Text', icon: 'type' },
  list: { word: 'List', icon: 'list' },
  picture: { word: 'Picture or clip', icon: 'image' },
  logo: { word: 'Logo', icon: 'aperture' },
  sound: { word: 'Sound', icon: 'music' },
};
