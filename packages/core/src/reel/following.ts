import type { ControlValue } from '../documents/fill';
import type { ReelItem, ReelItemOf } from '../documents/item';
import type { Reel } from '../documents/reel';
import type { Follow, Way } from '../documents/way';
import type { Resources } from '../evaluate/graphicScene';
import { invertAffine, multiplyAffine } from '../geometry/matrix';
import type { Size } from '../layers/kind';
import { frameOfSecond, playedOf } from './fileTime';
import { type Framed, onFrame } from './framing';
import type { Placed } from './item';
import { clipPlane, heldSecond, type Seen, SURE, secondOf, seenIn, takenAlong, wayAt } from './way';

/** A clip of a reel, and the frames it takes. */
interface PlacedClip extends Pick<Placed, 'start' | 'end'> {
  readonly document: ReelItemOf<'clip'>;
}

/**
 * What goes along with things in the clips of a reel. Moments are two frames of the reel, fractional: `at`, the one whose
 * picture the clips show, and `moved`, which differs while the shutter is open and by which all that moves in the reel itself
 * goes. A clip shows one picture meanwhile, so what is on a thing in it stays on it; a cut is never between them.
 */
export class Following {
  private readonly clips: readonly PlacedClip[];

  constructor(
    private readonly reel: Pick<Reel, 'rate' | 'ways'>,
    placed: readonly Placed[],
    private readonly frame: Size,
    private readonly resources: Pick<Resources, 'mediaFacts'>,
  ) {
    this.clips = placed.flatMap(({ document, start, end }) =>
      document.kind === 'clip' ? [{ document, start, end }] : [],
    );
  }

  /** Where a thing that is followed shows in the frame; nothing while its clip is not there. */
  seenAt(way: Way, at: number, moved: number = at, smooth?: number): Seen | undefined {
    const clip = this.clipOf(way, at);
    if (!clip) return undefined;
    const { document, start } = clip;
    const within = (frame: number) => Math.min(document.length - 1, Math.max(0, frame - start));
    const second = secondOf(document, within(at), this.reel.rate, this.durationOf(document));
    return this.seenIn(document, way, second, within(moved), smooth);
  }

  /** Where a thing showed in the frame at a second of the clip that shows it now. */
  private seenThen(way: Way, at: number, { at: second, smooth }: Follow): Seen | undefined {
    const clip = this.clipOf(way, at)?.document;
    if (!clip) return undefined;
    const { rate } = this.reel;
    const played = playedOf(clip, rate, this.durationOf(clip));
    return this.seenIn(clip, way, second, frameOfSecond(played, second, rate), smooth);
  }

  private durationOf({ media }: ReelItemOf<'clip'>): number {
    return this.resources.mediaFacts(media)?.duration ?? Number.POSITIVE_INFINITY;
  }

  /** @param time frame of the clip's item by which it lies in the frame */
  private seenIn(
    clip: ReelItemOf<'clip'>,
    way: Way,
    second: number,
    time: number,
    smooth?: number,
  ): Seen | undefined {
    const facts = this.resources.mediaFacts(clip.media);
    const sighted = facts && wayAt(way, heldSecond(way, second, facts.rate), smooth);
    return sighted && seenIn(sighted, clipPlane(clip, facts, this.frame, time));
  }

  /** The item that shows a way's clip at a frame: a clip that was cut goes on in another. */
  private clipOf({ of, media }: Way, at: number): PlacedClip | undefined {
    const own = this.clips.find((c) => c.document.id === of);
    const covers = (c: PlacedClip) => at >= c.start && at < c.end;
    if (own && covers(own)) return own;
    const others = this.clips.filter((c) => c.document.media === media);
    return others.find(covers) ?? own ?? others[0];
  }

  /** How an item lies that goes along with a thing. What cannot be told yet leaves it where it is. */
  along(lies: Framed, follow: Follow, at: number, moved: number): Framed {
    const way = this.reel.ways.find((w) => w.id === follow.way);
    const from = way && this.seenThen(way, at, follow);
    const to = way && this.seenAt(way, at, moved, follow.smooth);
    if (!from || !to) return lies;
    const { matrix, scale } = takenAlong(from, to, follow);
    return {
      ...lies,
      matrix: multiplyAffine(matrix, lies.matrix),
      scale: lies.scale * scale,
      opacity: follow.hides && to.sure < SURE ? 0 : lies.opacity,
    };
  }

  /**
   * Point controls of a graphic that go along with things. They are on them in the frame, wherever the graphic itself lies.
   * @param lies how it lies; as it comes, when absent
   */
  drivenAt(
    document: ReelItem,
    lies: Framed | undefined,
    at: number,
    moved: number,
  ): Record<string, ControlValue> | undefined {
    if (document.kind !== 'graphic' || !document.points) return undefined;
    const { width, height } = this.frame;
    const back = lies && invertAffine(lies.matrix);
    const driven = Object.entries(document.points).flatMap(
      ([control, { way: id, smooth, offset = [0, 0] }]) => {
        const way = this.reel.ways.find((w) => w.id === id);
        const seen = way && this.seenAt(way, at, moved, smooth);
        if (!seen) return [];
        const [dx = 0, dy = 0] = offset;
        const there = [seen.at[0] + dx * width, seen.at[1] + dy * height] as const;
        const [x, y] = back ? onFrame(back, there) : there;
        return [[control, [x / width, y / height]] as const];
      },
    );
    return driven.length > 0
      ? (Object.fromEntries(driven) as unknown as Record<string, ControlValue>)
      : undefined;
  }
}
