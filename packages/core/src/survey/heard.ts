import type { ReelCheck, ReelScene } from '../reel/reelScene';
import type { SoundSource } from '../sound/mix';
import type { SoundFacts } from '../sound/play';
import { type MixFacts, MixRender } from '../sound/render';
import { SOUND_RATE } from '../sound/sound';
import { framesIn, secondsAt } from '../time/rate';

/** Highest true peak that EBU R 128 permits, in dBTP. */
const MOST_PEAK = -1;
/** Loudness units that a programme may be off its target by (EBU R 128, live programmes). */
const LOUDNESS_ROOM = 1;

/** Seconds of a file after a cut, and of a fade before it, from which on it is one that is meant. */
const GOES_ON = 0.1;
const FADES = 0.08;
/** Amplitude below which nobody hears that a sound breaks off: -46 dB of full scale (common practice). */
const HEARD = 0.005;

/** Stretches that loudness over time is told in. */
const COURSE = 60;

/** A sound that can be read, and how long it is. */
export type OpenedSound = SoundSource & { readonly facts: SoundFacts };

/** What was heard of a whole reel. */
export interface Heard {
  readonly facts: MixFacts;
  /** LUFS of equal stretches of it, as many as a chart has room for. */
  readonly course: readonly number[];
  /** How long it is. */
  readonly seconds: number;
  readonly checks: readonly ReelCheck[];
}

/** What is said of a loudness that is not the one that is wanted, in LUFS. */
export function loudnessCheck({ loudness }: MixFacts, wanted: number | undefined): ReelCheck[] {
  if (wanted === undefined || !Number.isFinite(loudness) || Math.abs(loudness - wanted) <= LOUDNESS_ROOM)
    return [];
  return [{ kind: 'loudness', loudness, wanted, ...OF_ALL }];
}

const OF_ALL = { slot: '', item: '', frame: 0, time: 0 } as const;

/** Mixes all of a reel and listens to it. Nothing where nothing is heard. */
export async function hearReel(
  scene: ReelScene,
  soundOf: (media: string) => OpenedSound | undefined,
): Promise<Heard | undefined> {
  const { rate } = scene.reel;
  const plays = scene.plays((id) => soundOf(id)?.facts);
  if (plays.length === 0) return undefined;
  const seconds = secondsAt(scene.frameCount(rate), rate);
  const mix = new MixRender(plays, 0, seconds, soundOf, () => undefined);
  const facts = await mix.end();
  return {
    facts,
    course: mix.course(COURSE),
    seconds,
    checks: [
      ...(facts.peak > MOST_PEAK ? [{ kind: 'peaks', peak: facts.peak, ...OF_ALL } as const] : []),
      ...(await cutSounds(scene, soundOf)),
    ],
  };
}

/**
 * Sounds of the line that break off while they are heard. A clip's own is cut with its picture, which is what a cut is,
 * and a graphic's goes with the graphic.
 */
async function cutSounds(
  scene: ReelScene,
  soundOf: (media: string) => OpenedSound | undefined,
): Promise<ReelCheck[]> {
  const found: ReelCheck[] = [];
  for (const { item, ends, play } of scene.soundEnds((id) => soundOf(id)?.facts)) {
    const source = soundOf(play.media);
    if (!source || play.fadeOut > FADES) continue;
    const at = play.from + play.length * play.speed;
    if (at > source.facts.duration - GOES_ON) continue;
    const frames = Math.round(GOES_ON * SOUND_RATE);
    const last = await source.read(Math.round(at * SOUND_RATE) - frames, frames);
    const peak = Math.max(...last.map((samples) => samples.reduce((m, v) => Math.max(m, Math.abs(v)), 0)));
    if (peak * play.gain < HEARD) continue;
    const frame = Math.max(0, Math.round(framesIn(ends, scene.reel.rate)) - 1);
    found.push({ kind: 'cut-sound', slot: '', item, frame, time: frame });
  }
  return found;
}
