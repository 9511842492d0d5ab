import type { MediaFacts } from '../layers/kind';

/** A stretch of a sound in the time of a reel, or of one item of it. All times are seconds. */
export interface SoundPlay {
  readonly media: string;
  /** When it begins, and how long it is heard. */
  readonly start: number;
  readonly length: number;
  /** Second of the file it begins at. */
  readonly from: number;
  /** 2 plays twice as fast, an octave higher. */
  readonly speed: number;
  /** Factor of its amplitude. */
  readonly gain: number;
  readonly fadeIn: number;
  readonly fadeOut: number;
}

/** Rounds at most of a sound that goes round. */
export const MOST_ROUNDS = 100_000;

/** Shortest fade in seconds, so that nothing begins or ends with a click. */
export const SOFT_EDGE = 0.004;

/** Amplitude of a level in decibels. */
export const gainOf = (decibels: number) => 10 ** (decibels / 20);

/** How long a sound lasts: a clip's own as long as its picture, so that both go round and are stretched as one. */
export interface SoundFacts {
  /** Seconds. */
  readonly duration: number;
}

/** What is known of a sound, or of a clip's own; nothing where there is none. */
export type FindSound = (media: string) => SoundFacts | undefined;

/** What media facts say of a clip's own sound. */
export function clipSound(facts: MediaFacts | undefined): SoundFacts | undefined {
  return facts?.duration !== undefined && facts.sound ? { duration: facts.duration } : undefined;
}
