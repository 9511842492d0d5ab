import type { GraphicScene } from '../evaluate/graphicScene';
import { graphemes } from '../text/scripts';
import { stretches } from '../time/clock';
import { secondsAt } from '../time/rate';
import type { Check } from './checks';

/** Characters that are read in a second: common practice for titles and subtitles. */
export const READ_A_SECOND = 15;

/** Seconds that reading takes at least, however short the words: the eye has to find them (common practice). */
const LEAST = 1;

/** Frames of a template within which nobody notices that time is short. */
const LENIENT = 3;

/** Characters of words as they are read: what is blank counts once. */
export const charactersOf = (text: string): number => graphemes(text.trim().replace(/\s+/gu, ' ')).length;

/**
 * What a graphic's words take to be read, and how long they stand: its hold, and half of its ways in and out, during
 * which they are there in part. Lists are looked over and not read: credits, places on a map.
 */
export function readingOf(scene: GraphicScene): { characters: number; needs: number; stands: number } {
  const { template, clock } = scene;
  let characters = 0;
  for (const slot of template.slots) {
    if (slot.kind !== 'text') continue;
    const shown = scene.evaluate(scene.timeOf(slot.moment)).regions.some((r) => r.slot === slot.id);
    if (shown) characters += charactersOf(scene.slots.words(slot.id).text);
  }
  const { holdStart, outStart, end } = stretches(clock);
  const frames = holdStart / 2 + (outStart - holdStart) + (end - outStart) / 2;
  const needs = characters === 0 ? 0 : Math.max(LEAST, characters / READ_A_SECOND);
  return { characters, needs, stands: secondsAt(frames, template.rate) };
}

/** Words that are gone before they are read, told of the graphic. */
export function readInHaste(scene: GraphicScene): Check | undefined {
  const { characters, needs, stands } = readingOf(scene);
  if (needs <= stands + secondsAt(LENIENT, scene.template.rate)) return undefined;
  const time = scene.timeOf({ at: 0, of: 'hold' });
  return { kind: 'read-in-haste', slot: '', characters, needs, stands, time };
}
