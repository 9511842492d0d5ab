import type { GraphicScene } from '../evaluate/graphicScene';
import { graphemes } from '../text/scripts';
import { stretches } from '../time/clock';
import { secondsAt } from '../time/rate';
import type { Check } from './finding';

/** Characters that are read in a second: common practice for titles and subtitles. */
export const READ_A_SECOND = 15;

/** Seconds that reading takes at least, however short the words: the eye has to find them (common practice). */
const LEAST = 1;

/** Frames of a template within which nobody notices that time is short. */
const LENIENT = 3;

/** Characters of words as they are read: what is blank counts once. */
export const charactersOf = (text: string): number => graphemes(text.trim().replace(/\s+/gu, ' ')).length;

/**
 * How long a graphic stands to be read, in seconds: its hold, and half of its ways in and out, during which its words
 * are there in part.
 */
export function standsFor({ clock, template }: GraphicScene): number {
  const { holdStart, outStart, end } = stretches(clock);
  const frames = holdStart / 2 + (outStart - holdStart) + (end - outStart) / 2;
  return secondsAt(frames, template.rate);
}

/**
 * Words that are gone before they are read, told of the graphic.
 * @param shown slots of words that show. Lists are looked over and not read: credits, places on a map.
 */
export function readInHaste(scene: GraphicScene, shown: readonly string[]): Check | undefined {
  const characters = shown.reduce((sum, slot) => sum + charactersOf(scene.slots.words(slot).text), 0);
  if (characters === 0) return undefined;
  const needs = Math.max(LEAST, characters / READ_A_SECOND);
  const stands = standsFor(scene);
  if (needs <= stands + secondsAt(LENIENT, scene.template.rate)) return undefined;
  const time = scene.timeOf({ at: 0, of: 'hold' });
  return { kind: 'read-in-haste', slot: '', characters, needs, stands, time };
}
