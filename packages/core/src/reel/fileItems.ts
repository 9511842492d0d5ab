import type { Check } from '../checks/finding';
import type { ReelItemOf } from '../documents/item';
import type { EvaluatedFrame, Resources } from '../evaluate/graphicScene';
import type { FontNeeds } from '../evaluate/needs';
import type { Region } from '../evaluate/paintPass';
import { IDENTITY_PLANE, IDENTITY4 } from '../geometry/matrix';
import { rectanglePath } from '../geometry/path';
import type { Rect } from '../geometry/rect';
import type { Size } from '../layers/kind';
import { coverOps } from '../layers/picture';
import { clipStretch, clipTime, inRound } from '../media/clipTime';
import { freshPicture } from '../media/pictureFill';
import { type FindSound, gainOf, MOST_ROUNDS, SOFT_EDGE, type SoundPlay } from '../sound/play';
import { framesIn, type Rate, secondsAt } from '../time/rate';
import type { Item } from './item';

const NO_FONTS: FontNeeds = { faces: [], scripts: [] };
const NOTHING: EvaluatedFrame = { ops: [], regions: [], notices: [], parts: [] };

/** Where a file item shows: it is one region, of no slot. */
function wholeRegion(box: Rect): Region {
  const quad = [
    [box.x, box.y],
    [box.x + box.width, box.y],
    [box.x + box.width, box.y + box.height],
    [box.x, box.y + box.height],
  ] as const;
  const { width, height } = box;
  return {
    slot: '',
    layer: '',
    kind: 'picture',
    quad,
    box: { width, height },
    unit: [1, 0, 0, 1],
    opacity: 1,
  };
}

/** What items that count in frames of the reel have in common. */
abstract class ReelTimed implements Omit<Item, 'evaluate'> {
  readonly id: string;
  readonly length: number;
  readonly transparent: boolean = false;

  constructor(
    document: { readonly id: string; readonly length: number },
    readonly rate: Rate,
  ) {
    this.id = document.id;
    this.length = document.length;
  }

  get still(): number {
    return Math.floor(this.length / 2);
  }

  media(): string[] {
    return [];
  }

  held(): string[] {
    return [...this.media(), ...this.sounds()];
  }

  sounds(): string[] {
    return [];
  }

  plays(_sound: FindSound): SoundPlay[] {
    return [];
  }

  fonts(): FontNeeds {
    return NO_FONTS;
  }

  checks(): Check[] {
    return [];
  }
}

/** A picture or clip that is the item, whole or filling the frame. */
abstract class Shown extends ReelTimed {
  constructor(
    protected readonly document: ReelItemOf<'clip' | 'still'>,
    rate: Rate,
    private readonly frame: Size,
    protected readonly resources: Resources,
  ) {
    super(document, rate);
  }

  protected abstract at(time: number): number | undefined;

  evaluate(time: number, _lettersOf?: string, _driven?: object, filmed: number = time): EvaluatedFrame {
    const { media, fit = 'fit' } = this.document;
    const facts = this.resources.mediaFacts(media);
    const whole = { x: 0, y: 0, ...this.frame };
    if (!facts)
      return this.resources.isComing?.(media)
        ? NOTHING
        : {
            ...NOTHING,
            regions: [wholeRegion(whole)],
            notices: [{ kind: 'missing-picture', slot: '' }],
          };
    const at = this.at(filmed);
    const found = { ...freshPicture(media), ...facts, id: media, fit, ...(at === undefined ? {} : { at }) };
    const ops = coverOps(found, whole, IDENTITY4);
    const shown = ops.find((op) => op.op === 'picture');
    const box = fit === 'fit' && shown ? shown.target : whole;
    return { ...NOTHING, ops, regions: [wholeRegion(box)] };
  }

  override media(): string[] {
    return [this.document.media];
  }

  override checks(): Check[] {
    return this.evaluate(0).notices.map((notice) => ({ ...notice, time: this.still }));
  }
}

/** A picture for a while. */
export class StillItem extends Shown {
  protected at(): undefined {
    return undefined;
  }
}

/** A stretch of a clip. */
export class ClipItem extends Shown {
  private readonly clip: ReelItemOf<'clip'>;

  constructor(document: ReelItemOf<'clip'>, rate: Rate, frame: Size, resources: Resources) {
    super(document, rate, frame, resources);
    this.clip = document;
  }

  protected at(time: number): number | undefined {
    const { media, clip } = this.clip;
    const duration = this.resources.mediaFacts(media)?.duration;
    if (duration === undefined) return undefined;
    return clipTime(secondsAt(time, this.rate), clip, duration, secondsAt(this.length, this.rate));
  }

  override checks(): Check[] {
    const { media, clip } = this.clip;
    const duration = this.resources.mediaFacts(media)?.duration;
    if (duration === undefined || clip.freeze !== undefined || (clip.end ?? 'hold') !== 'hold')
      return super.checks();
    const room = secondsAt(this.length, this.rate);
    const lasts = Math.max(0, Math.max(0, duration - (clip.in ?? 0)) / (clip.speed ?? 1) - (clip.begun ?? 0));
    // Up to a frame is rounding.
    if (room - lasts <= secondsAt(1, this.rate) + 1e-6) return super.checks();
    const time = Math.min(this.length - 1, Math.ceil(framesIn(lasts, this.rate)));
    return [...super.checks(), { kind: 'runs-out', slot: '', seconds: room - lasts, time }];
  }

  override plays(sound: FindSound): SoundPlay[] {
    const { media, clip, soundIn, soundOut } = this.clip;
    const facts = sound(media);
    if (!facts || clip.silent || clip.freeze !== undefined) return [];
    const room = secondsAt(this.length, this.rate);
    const { from, length, speed } = clipStretch(clip, facts.duration, room);
    return repeated({ media, from, speed, gain: gainOf(clip.level ?? 0) }, length / speed, {
      room,
      begun: clip.begun ?? 0,
      loops: clip.end === 'loop',
      fadeIn: secondsAt(soundIn ?? 0, this.rate),
      fadeOut: secondsAt(soundOut ?? 0, this.rate),
    });
  }
}

/** A stretch of a sound. */
export class SoundItem extends ReelTimed {
  override readonly transparent = true;

  constructor(
    private readonly document: ReelItemOf<'sound'>,
    rate: Rate,
  ) {
    super(document, rate);
  }

  evaluate(): EvaluatedFrame {
    return NOTHING;
  }

  override sounds(): string[] {
    return [this.document.media];
  }

  override plays(sound: FindSound): SoundPlay[] {
    const { media, from = 0, speed = 1, level = 0, silent, loops = false } = this.document;
    const { begun = 0, soundIn, soundOut } = this.document;
    const facts = sound(media);
    if (!facts || silent) return [];
    return repeated(
      { media, from: Math.min(from, facts.duration), speed, gain: gainOf(level) },
      Math.max(0, facts.duration - from) / speed,
      {
        room: secondsAt(this.length, this.rate),
        ...{ begun, loops },
        fadeIn: secondsAt(soundIn ?? 0, this.rate),
        fadeOut: secondsAt(soundOut ?? 0, this.rate),
      },
    );
  }
}

/** One colour all over the frame. */
export class ColourItem extends ReelTimed {
  private readonly frameNow: EvaluatedFrame;

  constructor(document: ReelItemOf<'colour'>, rate: Rate, frame: Size) {
    super(document, rate);
    this.frameNow = {
      ...NOTHING,
      regions: [wholeRegion({ x: 0, y: 0, ...frame })],
      ops: [
        {
          op: 'path',
          path: rectanglePath({ x: 0, y: 0, ...frame }),
          plane: IDENTITY_PLANE,
          fill: { kind: 'solid', colour: document.colour },
          opacity: 1,
        },
      ],
    };
  }

  evaluate(): EvaluatedFrame {
    return this.frameNow;
  }
}

interface Repeating {
  readonly room: number;
  readonly begun: number;
  readonly loops: boolean;
  readonly fadeIn: number;
  readonly fadeOut: number;
}

/**
 * A stretch of a sound in the room it has, once or again and again; it comes at the beginning and goes at the end of
 * what is heard.
 * @param lasts seconds the stretch takes, played
 * @param begun seconds of it that are over when it comes
 */
function repeated(
  play: Pick<SoundPlay, 'media' | 'from' | 'speed' | 'gain'>,
  lasts: number,
  { room, begun, loops, fadeIn, fadeOut }: Repeating,
): SoundPlay[] {
  if (lasts <= 0 || room <= 0) return [];
  const past = loops ? inRound(begun, lasts) : Math.max(0, begun);
  if (past >= lasts) return [];
  const rounds = loops ? Math.min(MOST_ROUNDS, Math.ceil((room + past) / lasts - 1e-9)) : 1;
  const heard = Math.min(room, rounds * lasts - past);
  return Array.from({ length: rounds }, (_, i): SoundPlay => {
    const start = Math.max(0, i * lasts - past);
    const length = Math.min((i + 1) * lasts - past, room) - start;
    const last = start + length >= heard - 1e-9;
    return {
      ...play,
      from: play.from + (i === 0 ? past : 0) * play.speed,
      start,
      length,
      fadeIn: Math.min(length, i === 0 ? Math.max(SOFT_EDGE, fadeIn) : SOFT_EDGE),
      fadeOut: Math.min(length, last ? Math.max(SOFT_EDGE, fadeOut) : SOFT_EDGE),
    };
  });
}
