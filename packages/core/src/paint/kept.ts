import type { PaintHost, Surface } from '../canvas/surface';
import { isOfFrame, readsBackdrop } from '../effects/registry';
import type { Homography } from '../geometry/matrix';
import type { Rect } from '../geometry/rect';
import { type Op, sameData } from './ops';

type Open = Extract<Op, { op: 'open' }>;

/** Groups remembered, at most, and pixels of those whose pictures are kept. */
const MOST = 96;
const MOST_PIXELS = 12_000_000;
/** Pictures of gradients kept, and gradients remembered, at most: they may be as large as the frame. */
const MOST_GRADIENTS = 4;
/** Frame units two places may differ by and still be one. */
const HAIR = 1e-6;

/** How a group is painted. */
interface Way {
  readonly scale: number;
  readonly draft: boolean;
  /** The box of the frame's pixels that the picture shows; of a picture that serves anywhere, nothing. */
  readonly at?: Rect | undefined;
}

/** A group's picture, its top left at the group's bounds, or what was painted of it without being kept. */
interface Entry extends Way {
  readonly open: Open;
  readonly content: readonly Op[];
  /** Its pictures then: one that comes late, or another of the same name, is not the same. */
  readonly pictures: readonly unknown[];
  surface: Surface | undefined;
  /** Pixels of the picture that nothing is seen of. */
  hole?: Rect | undefined;
}

/**
 * Pictures of groups that move as one: what their effects made of them, wherever they are. A picture is always painted
 * in the same phase, so that a frame does not depend on those before it; it is kept from the second time on that the
 * same content comes, since most that changes never comes again.
 */
export class KeptPictures {
  private readonly entries: Entry[] = [];

  constructor(
    private readonly pictureOf: PaintHost['picture'],
    private readonly giveBack: (surface: Surface) => void,
  ) {}

  /**
   * The entry for a group that is the same but for its place; it counts as new from now on. Where the way has a box, it
   * has to be in the same place as well.
   */
  find(open: Open, content: readonly Op[], { scale, draft, at }: Way): Entry | undefined {
    const pictures = this.picturesOf(content);
    const found = this.entries.findIndex(
      (e) =>
        e.scale === scale &&
        e.draft === draft &&
        sameData(e.at, at) &&
        (!at || (e.open.bounds.x === open.bounds.x && e.open.bounds.y === open.bounds.y)) &&
        e.pictures.every((picture, i) => picture === pictures[i]) &&
        sameGroup(e.open, open) &&
        sameButForPlace(e.content, content, open.bounds.x - e.open.bounds.x, open.bounds.y - e.open.bounds.y),
    );
    if (found < 0) return undefined;
    const [entry] = this.entries.splice(found, 1);
    this.entries.push(entry!);
    return entry;
  }

  /** Remembers a group, so that its picture is kept when it comes again. */
  note(open: Open, content: readonly Op[], way: Way): void {
    this.entries.push({ open, content, ...way, pictures: this.picturesOf(content), surface: undefined });
    if (this.entries.length > MOST) this.drop();
  }

  /** Keeps a picture; what was not asked for the longest makes room for it. */
  keep(entry: Entry, surface: Surface, hole?: Rect): void {
    entry.surface = surface;
    entry.hole = hole;
    const pixels = () => this.entries.reduce((sum, e) => sum + pixelsOf(e.surface), 0);
    while (pixels() > MOST_PIXELS && this.entries[0] !== entry) this.drop();
  }

  private drop(): void {
    const gone = this.entries.shift();
    if (gone?.surface) this.giveBack(gone.surface);
  }

  private picturesOf(content: readonly Op[]): unknown[] {
    return content.flatMap((op) => (op.op === 'picture' ? [this.pictureOf(op.picture, op.at)] : []));
  }
}

const pixelsOf = (surface: Surface | undefined) =>
  surface ? surface.canvas.width * surface.canvas.height : 0;

type Gradient = Extract<Op, { op: 'path' }>;

interface StillEntry {
  readonly op: Gradient;
  readonly scale: number;
  readonly box: Rect;
  surface: Surface | undefined;
  /** Whether it has clear or half-clear pixels, which are never quite the same laid over from a picture. */
  clear?: boolean;
}

/**
 * Pictures of gradients that stand still: a backdrop costs as much as all that moves before it. A picture is made of
 * whole pixels of the frame and has no clear ones, so it paints exactly what the gradient would.
 */
export class KeptGradients {
  private readonly entries: StillEntry[] = [];

  constructor(private readonly giveBack: (surface: Surface) => void) {}

  /**
   * The picture of a gradient that was painted just so before; one that was not is remembered.
   * @param box pixels of the frame; all that can be seen of it
   * @param paint makes the picture, which covers the box
   */
  pictureOf(op: Gradient, scale: number, box: Rect, paint: () => Surface): Surface | undefined {
    const same = (e: StillEntry) => e.scale === scale && sameData(e.box, box) && sameData(e.op, op);
    const at = this.entries.findIndex(same);
    const [found] = at < 0 ? [] : this.entries.splice(at, 1);
    this.entries.push(found ?? { op, scale, box, surface: undefined });
    if (this.entries.length > MOST_GRADIENTS) {
      const gone = this.entries.shift();
      if (gone?.surface) this.giveBack(gone.surface);
    }
    if (!found || found.clear || found.surface) return found?.surface;
    const picture = paint();
    found.clear = !isOpaque(picture, box);
    if (found.clear) this.giveBack(picture);
    else found.surface = picture;
    return found.surface;
  }
}

function isOpaque({ context }: Surface, { width, height }: Rect): boolean {
  const { data } = context.getImageData(0, 0, width, height);
  for (let i = 3; i < data.length; i += 4) if (data[i] !== 255) return false;
  return true;
}

/**
 * Whether a group looks the same wherever it is: its effects and all in it move along. Colour signs are left out, since
 * their font may come later.
 */
export function movesAsOne(open: Open, content: readonly Op[]): boolean {
  if (open.effects.length === 0 || open.effects.some(isOfFrame)) return false;
  return content.every(
    (op) => op.op !== 'grain' && op.op !== 'glyph' && (op.op !== 'open' || !op.effects.some(isOfFrame)),
  );
}

/** Whether a group that is the same in the same place looks the same, whatever is below it. */
export function standsAlone(open: Open, content: readonly Op[]): boolean {
  if (open.effects.length === 0 || open.effects.some(readsBackdrop)) return false;
  return content.every(
    (op) =>
      op.op !== 'glyph' && (op.op !== 'open' || (op.draft === undefined && !op.effects.some(readsBackdrop))),
  );
}

const sameGroup = (a: Open, b: Open) =>
  near(a.bounds.width, b.bounds.width) &&
  near(a.bounds.height, b.bounds.height) &&
  sameData(a.effects, b.effects) &&
  a.luminance === b.luminance;

function sameButForPlace(a: readonly Op[], b: readonly Op[], dx: number, dy: number): boolean {
  return a.length === b.length && a.every((op, i) => sameOpButForPlace(op, b[i]!, dx, dy));
}

function sameOpButForPlace(a: Op, b: Op, dx: number, dy: number): boolean {
  if (a.op !== b.op) return false;
  if (a.op === 'open' && b.op === 'open') {
    const { bounds: from, ...one } = a;
    const { bounds: to, ...other } = b;
    return isMoved(from, to, dx, dy) && sameData(one, other);
  }
  if (!('plane' in a) || !('plane' in b)) return sameData(a, b);
  const { plane: from, ...one } = a;
  const { plane: to, ...other } = b;
  return isMovedPlane(from, to, dx, dy) && sameData(one, other);
}

const near = (a: number, b: number) => Math.abs(a - b) < HAIR;

const isMoved = (from: Rect, to: Rect, dx: number, dy: number) =>
  near(from.x + dx, to.x) &&
  near(from.y + dy, to.y) &&
  near(from.width, to.width) &&
  near(from.height, to.height);

/** Whether a plane is another moved along the picture: the two are the same up to a factor, x and y apart from that. */
function isMovedPlane(from: Homography, to: Homography, dx: number, dy: number): boolean {
  const moved = from.map((v, i) => v + (i < 3 ? dx : i < 6 ? dy : 0) * from[6 + (i % 3)]!);
  return moved.every((v, i) => Math.abs(v - to[i]!) < HAIR);
}
