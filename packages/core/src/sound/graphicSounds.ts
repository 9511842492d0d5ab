import type { GraphicScene } from '../evaluate/graphicScene';
import type { ClipWindow } from '../layers/kind';
import { everyLayer } from '../layers/registry';
import { clipStretch } from '../media/clipTime';
import { secondsAt } from '../time/rate';
import { type FindSound, gainOf, MOST_ROUNDS, SOFT_EDGE, type SoundPlay } from './play';

/**
 * Everything that is heard in a graphic, in its own seconds: the template's sounds at their cues, and the sound of
 * clips where they show.
 */
export function graphicSounds(scene: GraphicScene, sound: FindSound): SoundPlay[] {
  return [...slotSounds(scene, sound), ...clipSounds(scene, sound)];
}

/** Seconds over which a slot's sound goes where the graphic ends before it, and a clip's where it is cut off. */
const END_FADE = 0.1;
const CUT_FADE = 0.25;

function slotSounds(scene: GraphicScene, sound: FindSound): SoundPlay[] {
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
    const room = secondsAt(scene.length, template.rate) - start;
    // What is cut off by the end of the graphic goes there, and does not break off.
    const goes = (length: number) => Math.max(base.fadeOut, Math.min(END_FADE, length / 2));
    if (!slot.loops) {
      if (rest <= room) return [{ ...base, start, from, length: rest }];
      return room > 0 ? [{ ...base, start, from, length: room, fadeOut: goes(room) }] : [];
    }
    // A bed goes on to the end of the graphic, from its beginning again when it is over.
    const plays: SoundPlay[] = [];
    for (let t = 0; t < room && plays.length < MOST_ROUNDS; ) {
      const length = Math.min(t === 0 ? rest : facts.duration, room - t);
      plays.push({
        ...base,
        start: start + t,
        from: t === 0 ? from : 0,
        length,
        fadeIn: t === 0 ? base.fadeIn : SOFT_EDGE,
        fadeOut: t + length >= room - 1e-6 ? goes(length) : SOFT_EDGE,
      });
      t += length;
    }
    return plays;
  });
}

function clipSounds(scene: GraphicScene, sound: FindSound): SoundPlay[] {
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
    const rounds = clip.end === 'loop' ? Math.min(MOST_ROUNDS, Math.ceil(room / lasts)) : 1;
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
function clipWindow(scene: GraphicScene, slot: string): ClipWindow {
  for (const layer of everyLayer(scene.layers)) {
    if (layer.kind === 'picture' && layer.slot === slot && layer.clip) return layer.clip;
  }
  return {};
}
