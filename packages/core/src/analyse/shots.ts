import { cutBetween } from '../follow/cuts';
import type { Grey } from '../follow/grey';

/** Pixels of the small pictures in which shots are told apart. */
export const SHOT_PICTURE = { width: 48, height: 27 } as const;
/** Seconds that a shot lasts at least: a flash is not two shots. */
const LEAST = 0.2;

/** Finds where shots change in pictures that follow each other. */
export class ShotFinder {
  private before: Grey | undefined;
  private last = Number.NEGATIVE_INFINITY;

  /**
   * @param picture of {@link SHOT_PICTURE}'s size
   * @param second at which it begins to show
   * @returns whether another shot begins with it
   */
  next(picture: Grey, second: number): boolean {
    const cut = this.before !== undefined && cutBetween(this.before, picture) && second - this.last >= LEAST;
    this.before = picture;
    if (cut || this.last === Number.NEGATIVE_INFINITY) this.last = second;
    return cut;
  }
}
