import type { ReelScene } from '../evaluate/reelScene';
import type { ClipWindow, MediaFacts } from '../layers/kind';
import { everyLayer } from '../layers/registry';
import { clipStretch } from '../media/clipTime';
import { secondsAt } from '../time/rate';

/** A stretch of a sound in the reel's time. All times are seconds. */
export interface SoundPlay {
  readonly media: string;
  /** When it begins in the reel, and how long it is heard. */
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

/** Amplitude of a level in decibels. */
export const gainOf = (decibels: number) => 10 ** (decibels / 20);

/** How long a sound lasts, and whether a clip has one. */
export interface SoundFacts {
  readonly duration: number;
}
export type FindSound = (media: string) => SoundFacts | undefined;

/** Shortest fade, so that nothing begins or ends with a click. */
const SOFT_EDGE = 0.004;

/**
 * Everything that is heard in a reel: the templates' sounds at their cues, and the sound of clips where they show.
 * @param sound what is known of a sound, or of a clip's own; nothing where there is none
 */
export function soundPlan(reel: ReelScene, sound: FindSound): SoundPlay[] {
  return reel.placed.flatMap(({ graphic, scene }) => {
    const begins = secondsAt(graphic.start, reel.reel.rate);
    const ends = begins + secondsAt(scene.length, scene.template.rate);
    const plays = [...slotSounds(scene, sound), ...clipSounds(scene, sound)];
    return plays
      .map((p) => ({ ...p, start: p.start + begins }))
      .flatMap((p) => (p.start < ends ? [{ ...p, length: Math.min(p.length, ends - p.start) }] : []))
      .filter((p) => p.length > 0 && p.gain > 0);
  });
}

type Scene = ReelScene['placed'][number]['scene'];

function slotSounds(scene: Scene, sound: FindSound): SoundPlay[] {
  const { template } = scene;
  return template.slots.flatMap((slot): SoundPlay[] => {
    if (slot.kind !== 'sound') return [];
    const held = scene.slots.soundFill(slot.id);
    const facts = held && !held.silent ? sound(held.sound) : undefined;
    if (!held || !facts) return [];
    const cue = template.cues.find((c) => c.id === slot.cue);
    if (!cue) return [];
    const at = secondsAt(scene.timeOf(cue.at), template.rate) + secondsAt(slot.offset, template.rate);
    // A sound that is to reach its height at the cue begins before it, and is cut where it would begin too early.
    const early = Math.max(0, -at);
    const from = (held.from ?? 0) + early;
    const rest = facts.duration - from;
    if (rest <= 0) return [];
    const base = {
      media: held.sound,
      speed: 1,
      gain: gainOf(held.level ?? slot.level),
      fadeIn: Math.max(SOFT_EDGE, held.fadeIn ?? slot.fadeIn),
      fadeOut: Math.max(SOFT_EDGE, held.fadeOut ?? slot.fadeOut),
    };
    const start = Math.max(0, at);
    if (!slot.loops) return [{ ...base, start, from, length: rest }];
    // A bed goes on to the end of the graphic, from its beginning again when it is over.
    const room = secondsAt(scene.length, template.rate) - start;
    const plays: SoundPlay[] = [];
    for (let t = 0; t < room && plays.length < 1000; ) {
      const length = Math.min(t === 0 ? rest : facts.duration, room - t);
      plays.push({
        ...base,
        start: start + t,
        from: t === 0 ? from : 0,
        length,
        fadeIn: t === 0 ? base.fadeIn : SOFT_EDGE,
        fadeOut: t + length >= room - 1e-6 ? base.fadeOut : SOFT_EDGE,
      });
      t += length;
    }
    return plays;
  });
}

/** Seconds over which a clip's sound goes where it is cut off, by the end of its picture or of the graphic. */
const CUT_FADE = 0.25;

function clipSounds(scene: Scene, sound: FindSound): SoundPlay[] {
  const { template } = scene;
  const seconds = (frames: number) => secondsAt(frames, template.rate);
  return template.slots.flatMap((slot): SoundPlay[] => {
    if (slot.kind !== 'picture') return [];
    const held = scene.slots.pictureFill(slot.id);
    const facts = held && sound(held.media);
    const clip = held?.clip ?? {};
    // The editor's word counts, else the template's.
    const heard = clip.silent === undefined ? slot.heard : !clip.silent;
    if (!held || !facts || !heard || clip.freeze !== undefined) return [];
    const window = clipWindow(scene, slot.id);
    const [from, to] = scene.clipSpan(slot.id, window).map(seconds) as [number, number];
    const until = slot.heardUntil ?? window.freeze;
    const room = Math.min(to, until ? seconds(scene.timeOf(until)) : to) - from;
    const { from: begin, length, speed } = clipStretch(clip, facts.duration, to - from);
    const lasts = length / speed;
    if (lasts <= 0 || room <= 0) return [];
    const fades = scene.fadesOf(slot.id).map(seconds) as [number, number];
    const rounds = clip.end === 'loop' ? Math.min(1000, Math.ceil(room / lasts)) : 1;
    return Array.from({ length: rounds }, (_, i): SoundPlay => {
      const start = from + i * lasts;
      const plays = Math.min(lasts, room - i * lasts);
      const isCut = i * lasts + plays >= room - 1e-6 && room < rounds * lasts - 1e-6;
      const isLast = start + plays > to - fades[1];
      return {
        media: held.media,
        start,
        length: plays,
        from: begin,
        speed,
        gain: gainOf(clip.level ?? 0),
        fadeIn: Math.min(plays, Math.max(SOFT_EDGE, i === 0 ? fades[0] : 0)),
        fadeOut: Math.min(
          plays / 2,
          Math.max(SOFT_EDGE, isLast ? start + plays - (to - fades[1]) : 0, isCut ? CUT_FADE : 0),
        ),
      };
    });
  });
}

/** When the first layer that shows a slot says that its clip plays. */
function clipWindow(scene: Scene, slot: string): ClipWindow {
  for (const layer of everyLayer(scene.layers)) {
    if (layer.kind === 'picture' && layer.slot === slot && layer.clip) return layer.clip;
  }
  return {};
}

/** What media facts say of a clip's own sound. */
export function clipSound(facts: MediaFacts | undefined): SoundFacts | undefined {
  return facts?.duration !== undefined && facts.sound ? { duration: facts.duration } : undefined;
}
