import { align, type Found } from './align';
import { cutBetween } from './cuts';
import { type Grey, pyramidOf } from './grey';
import { type Patch, takePatch } from './patch';
import { apart, type Pose } from './pose';
import { seek } from './seek';

/** Where what is followed is in one picture. */
export interface Sighting extends Pose {
  /** How sure that is, from 0 (it is not seen) to 1. */
  readonly sure: number;
}

/** Pictures that are looked at: the picture itself and halves of it. */
const LEVELS = 5;
/** How alike the patch must look to count as seen. */
const SEEN = 0.6;
/** How alike a place must look to be taken for what was lost. */
const FOUND_AGAIN = 0.8;
/** How alike an earlier look must be to set a place right by it. */
const HELD = 0.85;
/** How alike the picture before must be for a new look to be remembered. */
const CLEAR = 0.92;
/** Looks that are remembered, the first among them. */
const LOOKS = 5;
/** Pixels around its last place in which a lost thing is looked for, and by how many more in each next picture. */
const AROUND = 60;
const WIDER = 20;

/**
 * Follows a patch from picture to picture. In each it is found from how it looked in the one before, and set right
 * against how it looked when it was chosen, so that small errors do not add up (Matthews, Ishikawa & Baker, The Template
 * Update Problem, 2004). When it does not look like that any more, how it looks now is remembered as well.
 */
export class Follower {
  private readonly looks: Patch[];
  private recent: Patch;
  private coarse: Grey;
  private last: Sighting;
  private speed: readonly [number, number] = [0, 0];
  private lostFor = 0;

  /**
   * @param picture the first picture
   * @param start where the patch is in it
   * @param half half the patch's width, in pixels
   */
  constructor(
    picture: Grey,
    start: Pose,
    private readonly half: number,
  ) {
    const pyramid = pyramidOf(picture, LEVELS);
    this.coarse = pyramid.at(-1)!;
    this.recent = takePatch(pyramid, start, half);
    this.looks = [this.recent];
    this.last = { ...start, sure: 1 };
  }

  /** Where the patch is in the next picture, which is as large as the first. Where it is lost, where it was last. */
  next(picture: Grey): Sighting {
    const pyramid = pyramidOf(picture, LEVELS);
    const cut = cutBetween(this.coarse, pyramid.at(-1)!);
    this.coarse = pyramid.at(-1)!;
    const found = this.lostFor > 0 || cut ? this.search(pyramid, cut) : this.track(pyramid);
    if (!found) {
      this.lostFor++;
      this.speed = [0, 0];
      this.last = { ...this.last, sure: 0 };
      return this.last;
    }
    const { pose } = found;
    this.speed = this.lostFor > 0 || cut ? [0, 0] : [pose.x - this.last.x, pose.y - this.last.y];
    this.lostFor = 0;
    this.recent = takePatch(pyramid, pose, this.half);
    this.last = { ...pose, sure: sureOf(found.alike) };
    return this.last;
  }

  private track(pyramid: readonly Grey[]): Found | undefined {
    const { last, recent } = this;
    const [vx, vy] = this.speed;
    let near = align(recent, pyramid, { ...last, x: last.x + vx, y: last.y + vy });
    if (near.alike < CLEAR && Math.hypot(vx, vy) > 0.5) near = better(near, align(recent, pyramid, last));
    if (near.alike < HELD) {
      const sought = seek(recent, pyramid, last, AROUND);
      if (sought) near = better(near, align(recent, pyramid, sought));
    }
    if (near.alike < SEEN || !inside(pyramid[0]!, near.pose)) return this.search(pyramid, false);
    return this.settle(pyramid, near);
  }

  /** Sets a place right by how the thing looked before. */
  private settle(pyramid: readonly Grey[], near: Found): Found {
    let best: Found | undefined;
    for (const look of this.looks) {
      const found = align(look, pyramid, near.pose);
      const same = apart(found.pose, near.pose, this.half) < Math.max(2, this.half * 0.15);
      if (found.alike < HELD || !same) continue;
      // The first look is the one that was chosen: where it still fits, nothing has crept in.
      if (look === this.looks[0]) return found;
      if (!best || found.alike > best.alike) best = found;
    }
    if (best) return best;
    if (near.alike >= CLEAR) {
      this.looks.push(takePatch(pyramid, near.pose, this.half));
      if (this.looks.length > LOOKS) this.looks.splice(1, 1);
    }
    return near;
  }

  /** Looks for what was lost: near where it was, or everywhere when the shot has changed. */
  private search(pyramid: readonly Grey[], everywhere: boolean): Found | undefined {
    const reach = everywhere ? Number.POSITIVE_INFINITY : AROUND + WIDER * this.lostFor;
    let best: Found | undefined;
    for (const look of new Set([this.looks[0]!, this.looks.at(-1)!, this.recent])) {
      const sought = seek(look, pyramid, this.last, reach);
      if (!sought) continue;
      const found = align(look, pyramid, sought);
      if (found.alike >= FOUND_AGAIN && inside(pyramid[0]!, found.pose)) best = better(found, best);
    }
    return best;
  }
}

const better = (a: Found, b: Found | undefined): Found => (b && b.alike > a.alike ? b : a);

const inside = ({ width, height }: Grey, { x, y }: Pose) =>
  x > -0.5 && y > -0.5 && x < width - 0.5 && y < height - 0.5;

const sureOf = (alike: number) => Math.min(1, Math.max(0.01, (alike - 0.4) / 0.55));
