import type { Slot, Template } from '@fresh-reel/core';
import type { IconName } from '../ui/Button';

/** Number on a slot's tag, counted through the template from 1. */
export function slotNumber(template: Template, slot: string): number {
  return template.slots.findIndex((s) => s.id === slot) + 1;
}

export const SLOT_KIND: Readonly<Record<Slot['kind'], { word: string; icon: IconName }>> = {
  text: { word: 'Text', icon: 'type' },
  list: { word: 'List', icon: 'list' },
  picture: { word: 'Picture or clip', icon: 'image' },
  logo: { word: 'Logo', icon: 'aperture' },
  sound: { word: 'Sound', icon: 'music' },
};
