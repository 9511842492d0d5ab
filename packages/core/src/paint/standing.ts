import type { PaintHost, Place, Surface } from '../canvas/surface';
import { isPlain, type Op, sameData } from './ops';

/** What was painted on a surface last, and the picture of what stands below all that moves in it. */
interface Ground {
  readonly width: number;
  readonly height: number;
  readonly place: Place;
  readonly draft: boolean;
  ops: readonly Op[];
  /** How many of the first operations were the same in the last two lists. */
  stood: number;
  /** How many of the first operations the picture shows. */
  count: number;
  picture: Surface | undefined;
  /** Its pictures then: one that comes late, or another of the same name, is not the same. */
  pictures: readonly unknown[];
}

/**
 * Pictures of what stands still below all that moves: a backdrop often costs as much as what passes before it. Only
 * whole groups from the very first operation on are kept, so their picture lies on nothing and paints exactly what they
 * would. It is made the second time in a row that they are the same.
 */
export class StandingGrounds {
  private readonly grounds = new WeakMap<Surface, Ground>();

  constructor(
    private readonly pictureOf: PaintHost['picture'],
    private readonly giveBack: (surface: Surface) => void,
  ) {}

  /**
   * The picture of the first operations of a list that is about to be painted on a surface, and how many they are.
   * @param paint makes a picture of operations, of the surface's size
   */
  under(
    ops: readonly Op[],
    target: Surface,
    place: Place,
    draft: boolean,
    paint: (ops: readonly Op[]) => Surface,
  ): { readonly count: number; readonly picture: Surface } | undefined {
    const { width, height } = target.canvas;
    const last = this.grounds.get(target);
    if (
      last?.width !== width ||
      last.height !== height ||
      last.draft !== draft ||
      !sameData(last.place, place)
    ) {
      if (last) this.drop(last);
      const first = {
        width,
        height,
        place,
        draft,
        ops,
        stood: 0,
        count: 0,
        picture: undefined,
        pictures: [],
      };
      this.grounds.set(target, first);
      return undefined;
    }
    const same = sameWhole(last.ops, ops);
    const stands = Math.min(last.stood, same);
    last.ops = ops;
    last.stood = same;
    if (last.picture && (same < last.count || !this.hasPictures(last))) this.drop(last);
    if (stands > last.count && costs(ops.slice(last.count, stands))) {
      this.drop(last);
      const below = ops.slice(0, stands);
      last.picture = paint(below);
      last.count = stands;
      last.pictures = this.picturesOf(below);
    }
    return last.picture && { count: last.count, picture: last.picture };
  }

  private drop(ground: Ground): void {
    if (ground.picture) this.giveBack(ground.picture);
    ground.picture = undefined;
    ground.count = 0;
  }

  private hasPictures({ ops, count, pictures }: Ground): boolean {
    const now = this.picturesOf(ops.slice(0, count));
    return now.length === pictures.length && now.every((picture, i) => picture === pictures[i]);
  }

  private picturesOf(ops: readonly Op[]): unknown[] {
    return ops.flatMap((op) => (op.op === 'picture' ? [this.pictureOf(op.picture, op.at)] : []));
  }
}

/**
 * How many of the first operations of two lists are the same, whole groups and clips alone. Colour signs end it: their
 * font may come later.
 */
function sameWhole(a: readonly Op[], b: readonly Op[]): number {
  let whole = 0;
  let depth = 0;
  for (let i = 0; i < a.length && i < b.length; i++) {
    const op = b[i]!;
    if (op.op === 'glyph' || !sameData(a[i], op)) break;
    if (op.op === 'open' || op.op === 'clip') depth++;
    if (op.op === 'close' || op.op === 'unclip') depth--;
    if (depth === 0) whole = i + 1;
  }
  return whole;
}

/** Whether operations cost more than laying a picture of them: a few plain fills do not. */
function costs(ops: readonly Op[]): boolean {
  const dear = (op: Op) =>
    op.op !== 'clip' &&
    op.op !== 'unclip' &&
    (op.op !== 'path' || op.fill === undefined || !isPlain(op.fill));
  return ops.length > 6 || ops.some(dear);
}
