import type { Check } from '../checks/finding';
import { goesEvenly } from '../checks/pace';
import type { ReelItem } from '../documents/item';
import type { Reel } from '../documents/reel';
import type { EvaluatedFrame, LaidPart, Region, Resources } from '../evaluate/graphicScene';
import type { FontNeeds } from '../evaluate/needs';
import type { LetterMap, Notice, Size } from '../layers/kind';
import { withinFrame } from '../paint/bounds';
import type { Op } from '../paint/ops';
import { shownScale } from '../paint/pictures';
import { type FindSound, gainOf, type SoundPlay } from '../sound/play';
import type { Script } from '../text/scripts';
import { convertFrames, type Rate, secondsAt } from '../time/rate';
import { layoutFrame } from '../values/frame';
import { ClipItem, ColourItem, SoundItem, StillItem } from './fileItems';
import { Following } from './following';
import {
  type Framed,
  fadeAt,
  framedAt,
  framedLetters,
  framedOps,
  framedRegion,
  isMadeSmaller,
} from './framing';
import { GraphicItem } from './graphicItem';
import type { Item, OfItem, Placed } from './item';
import { treatedOps } from './treated';

/** The last that is heard of a sound, and when it is over, in the reel's seconds. */
export interface SoundEnd extends OfItem {
  readonly play: SoundPlay;
  readonly ends: number;
}

/** One frame of a reel, ready to paint. */
export interface ReelFrame {
  readonly ops: readonly Op[];
  readonly regions: readonly (Region & OfItem)[];
  readonly notices: readonly (Notice & OfItem)[];
  /** Where the letters of one text stand, when that was asked for. */
  readonly letters?: LetterMap & OfItem;
}

/** Something to look at before a render: of which item, and in which frame of the reel. */
export type ReelCheck = Check & OfItem & { readonly frame: number };

/** Names a text of a reel whose letters' places are wanted. */
export interface TextOfItem extends OfItem {
  readonly layer: string;
}

/** Pixels of the frame for one of a picture's, up to which it looks sharp enough (common practice: a tenth more). */
const MOST_ENLARGED = 1.1;

/** Room for the rounding of quotients, in frames. */
const HAIR = 1e-6;

const each = (lists: readonly (readonly string[])[]) => [...new Set(lists.flat())];

/** A whole reel: its items, track over track. */
export class ReelScene {
  readonly frame: Size;
  readonly placed: readonly Placed[];
  /** What goes along with things in its clips. */
  readonly following: Following;

  constructor(
    readonly reel: Reel,
    private readonly resources: Resources,
  ) {
    this.frame = layoutFrame(reel.frame);
    this.placed = reel.tracks.flatMap((track) =>
      track.items.map((document) => {
        const item = this.itemFor(document, resources);
        const length = Math.round(convertFrames(item.length, item.rate, reel.rate));
        const { start } = document;
        const [seen, heard] = [!track.hidden, !track.silent];
        return { item, document, seen, heard, start, end: start + Math.max(1, length) };
      }),
    );
    this.following = new Following(reel, this.placed, this.frame, resources);
  }

  private itemFor(document: ReelItem, resources: Resources): Item {
    const { frame } = this;
    const { rate, templates } = this.reel;
    switch (document.kind) {
      case 'graphic':
        return new GraphicItem({ ...document, template: templates[document.template]! }, frame, resources);
      case 'clip':
        return new ClipItem(document, rate, frame, resources);
      case 'still':
        return new StillItem(document, rate, frame, resources);
      case 'sound':
        return new SoundItem(document, rate);
      case 'colour':
        return new ColourItem(document, rate, frame);
    }
  }

  /** Frames at a rate; at least one. */
  frameCount(rate: Rate): number {
    const end = Math.max(0, ...this.placed.map((p) => p.end));
    return Math.max(1, Math.round(convertFrames(end, this.reel.rate, rate)));
  }

  /** Whether anything behind the items shows through by design. */
  get transparent(): boolean {
    return this.placed.every(({ item, seen }) => !seen || item.transparent);
  }

  /** Pictures and clips that are shown, by media id. */
  media(): string[] {
    return each(this.placed.map(({ item }) => item.media()));
  }

  /** Every file the reel holds, shown or hidden: what has to go along with it. */
  held(): string[] {
    return each(this.placed.map(({ item }) => item.held()));
  }

  /** Every sound in slots, by its media id; clips with sound are among the media. */
  sounds(): string[] {
    return each(this.placed.map(({ item }) => item.sounds()));
  }

  /** Every font its items may use. */
  fonts(): FontNeeds {
    const needs = this.placed.map(({ item }) => item.fonts());
    const faces = new Map(needs.flatMap((n) => n.faces.map((f) => [`${f.family}/${f.weight}`, f] as const)));
    return { faces: [...faces.values()], scripts: [...new Set<Script>(needs.flatMap((n) => n.scripts))] };
  }

  /** Everything that is heard, in the reel's seconds, each item until it ends. */
  plays(sound: FindSound): SoundPlay[] {
    return this.placed.flatMap((placed) => this.playsOf(placed, sound));
  }

  private playsOf({ item, start, heard }: Placed, sound: FindSound): SoundPlay[] {
    if (!heard) return [];
    const begins = secondsAt(start, this.reel.rate);
    const ends = begins + secondsAt(item.length, item.rate);
    const level = gainOf(this.reel.level ?? 0);
    return item
      .plays(sound)
      .map((p) => ({ ...p, start: p.start + begins, gain: p.gain * level }))
      .flatMap((p) => (p.start < ends ? [{ ...p, length: Math.min(p.length, ends - p.start) }] : []))
      .filter((p) => p.length > 0 && p.gain > 0);
  }

  /** The last that is heard of every sound that stands on the line. */
  soundEnds(sound: FindSound): SoundEnd[] {
    return this.placed.flatMap((placed) => {
      if (placed.document.kind !== 'sound') return [];
      const play = this.playsOf(placed, sound).at(-1);
      return play ? [{ item: placed.item.id, play, ends: play.start + play.length }] : [];
    });
  }

  /** The frame of the reel in which an item is best seen; 0 where there is none of that id. */
  stillOf(id: string): number {
    const placed = this.placed.find((p) => p.item.id === id);
    if (!placed) return 0;
    const { item, start, end } = placed;
    const still = start + Math.round(convertFrames(item.still, item.rate, this.reel.rate));
    return Math.min(still, end - 1);
  }

  /** What to look at before a render: of each item, and of the places where there is none. */
  checks(): ReelCheck[] {
    const ofItems = this.placed.flatMap(({ item, start }) =>
      item.checks().map((check) => {
        const frame = start + Math.round(convertFrames(check.time, item.rate, this.reel.rate));
        return { ...check, item: item.id, frame };
      }),
    );
    return [...ofItems, ...this.enlarged(), ...this.uneven(), ...this.gaps()];
  }

  /** Pictures and clips that show larger than they are, in pixels of the reel's own size, where they stand for it. */
  private enlarged(): ReelCheck[] {
    const perUnit = this.reel.frame.width / this.frame.width;
    return this.placed.flatMap((placed): ReelCheck[] => {
      const { item, document, start, seen } = placed;
      if (!seen || (document.kind !== 'clip' && document.kind !== 'still')) return [];
      const frame = start + item.still;
      const lies = this.liesAt(placed, frame, frame);
      const { ops } = this.inFrame(item.evaluate(item.still), placed, lies, item.still);
      const shown = Math.max(0, ...ops.map((op) => (op.op === 'picture' ? shownScale(op, perUnit) : 0)));
      const scale = shown / (this.resources.mediaFacts(document.media)?.density ?? 1);
      if (scale <= MOST_ENLARGED) return [];
      const percent = Math.round(scale * 100);
      return [{ kind: 'enlarged', slot: '', percent, item: item.id, frame, time: frame - start }];
    });
  }

  /** Clips whose frames stand for different times in the reel's rate. */
  private uneven(): ReelCheck[] {
    const { num, den } = this.reel.rate;
    return this.placed.flatMap(({ document, seen, start, item }): ReelCheck[] => {
      if (!seen || document.kind !== 'clip' || document.clip.freeze !== undefined) return [];
      const facts = this.resources.mediaFacts(document.media);
      if (!facts?.rate) return [];
      const plays = facts.rate * (document.clip.speed ?? 1);
      if (goesEvenly(plays, num / den)) return [];
      return [
        {
          kind: 'uneven',
          slot: '',
          plays,
          reel: num / den,
          item: item.id,
          frame: start + item.still,
          time: item.still,
        },
      ];
    });
  }

  /** Stretches within the reel in which nothing is seen, where black is not meant: something else fills the frame. */
  private gaps(): ReelCheck[] {
    if (this.transparent) return [];
    const seen = this.placed.filter((p) => p.seen && p.document.kind !== 'sound');
    const found: ReelCheck[] = [];
    let until = 0;
    const next = (start: number) => {
      const seconds = secondsAt(start - until, this.reel.rate);
      if (start > until) found.push({ kind: 'gap', slot: '', seconds, item: '', frame: until, time: until });
    };
    for (const { start, end } of seen.toSorted((a, b) => a.start - b.start)) {
      next(start);
      until = Math.max(until, end);
    }
    // A sound may go on after the last picture, and the film as long as it.
    next(Math.max(until, ...this.placed.map((p) => p.end)));
    return found;
  }

  /**
   * What shows while the shutter is open around a frame, as evenly spread moments: the reel's motion blur. One moment
   * when it is off. What shows at all is what shows in the frame: a cut is never blurred, and a clip shows the frame's
   * own picture.
   */
  subFrames(frame: number, rate: Rate): ReelFrame[] {
    const { samples, shutter } = this.reel.motionBlur;
    if (samples <= 1 || shutter <= 0) return [this.frameAt(frame, rate)];
    return Array.from({ length: samples }, (_, i) =>
      this.evaluated(frame, rate, shutter * ((i + 0.5) / samples - 0.5)),
    );
  }

  /** Frame number `frame` at a rate. Depends on nothing but its arguments and the document. */
  frameAt(frame: number, rate: Rate, lettersOf?: TextOfItem): ReelFrame {
    return this.evaluated(frame, rate, 0, lettersOf);
  }

  /**
   * Where every layer of one of its graphics lies in a frame, before the graphic is laid in the reel; nothing while
   * that does not show.
   */
  laidAt(frame: number, graphic: string): readonly LaidPart[] {
    const placed = this.placed.find((p) => p.document.id === graphic);
    if (!placed || frame < placed.start || frame >= placed.end) return [];
    const { item, start } = placed;
    return item.evaluate(convertFrames(frame - start, this.reel.rate, item.rate)).parts;
  }

  /** @param shift frames from the beginning of the frame at which moving things stand as they do then */
  private evaluated(frame: number, rate: Rate, shift: number, lettersOf?: TextOfItem): ReelFrame {
    const at = convertFrames(frame, rate, this.reel.rate);
    const moved = convertFrames(frame + shift, rate, this.reel.rate);
    const parts = this.placed.flatMap((placed) => {
      const { item, document, start, end, seen } = placed;
      if (!seen || at < start - HAIR || at >= end - HAIR) return [];
      const timeAt = (of: number) =>
        Math.min(Math.max(convertFrames(of - start, this.reel.rate, item.rate), 0), item.length);
      const wanted = lettersOf?.item === item.id ? lettersOf.layer : undefined;
      const lies = this.liesAt(placed, at, moved);
      const driven = this.following.drivenAt(document, lies, at, moved);
      const shown = item.evaluate(timeAt(moved), wanted, driven, timeAt(at), lies !== undefined);
      return [{ id: item.id, ...this.inFrame(shown, placed, lies, moved - start) }];
    });
    const asked = parts.find((p) => p.letters);
    return {
      ops: parts.length === 1 ? parts[0]!.ops : parts.flatMap((p) => p.ops),
      regions: parts.flatMap(({ id, regions }) => regions.map((r) => ({ ...r, item: id }))),
      notices: parts.flatMap(({ id, notices }) => notices.map((n) => ({ ...n, item: id }))),
      ...(asked?.letters ? { letters: { ...asked.letters, item: asked.id } } : {}),
    };
  }

  /** How an item lies in a frame of the reel; nothing where it lies as it comes. */
  private liesAt({ document, start }: Placed, at: number, moved: number): Framed | undefined {
    const { framing, follow } = document;
    if (!framing && !follow) return undefined;
    const lies = framedAt(framing, moved - start, this.frame);
    return follow ? this.following.along(lies, follow, at, moved) : lies;
  }

  /** What an item shows, as it lies in the frame. @param time frames of the reel from where it begins */
  private inFrame(
    shown: EvaluatedFrame,
    { document, start, end }: Placed,
    lies: Framed | undefined,
    time: number,
  ): EvaluatedFrame {
    const { fadeIn, fadeOut, treatments } = document;
    if (!lies && !fadeIn && !fadeOut && !treatments) return shown;
    const fade = fadeAt(document, time, end - start);
    const framed = lies ?? framedAt(undefined, time, this.frame);
    const treated = treatedOps(shown, treatments, time, this.frame);
    // What is made smaller is a picture of its own, and ends where its frame does.
    const ends = document.kind === 'graphic' && isMadeSmaller(document.framing);
    return {
      ...shown,
      ops: withinFrame(framedOps(treated, framed, fade, this.frame, ends), this.frame),
      regions: shown.regions.map((region) => framedRegion(region, framed, fade)),
      ...(shown.letters ? { letters: framedLetters(shown.letters, framed) } : {}),
    };
  }
}
