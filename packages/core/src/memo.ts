import { LRUCache } from 'lru-cache';

const MOST_KEPT = 3000;

/**
 * What follows from its key alone and costs too much to be made anew in every frame: outlines, rulers of paths, lines
 * of lists, orders. One for each engine, shared by its scenes.
 */
export class Memo {
  private readonly kept = new LRUCache<string, object>({ max: MOST_KEPT });
  private readonly numbers = new WeakMap<object, number>();
  private numbered = 0;

  /**
   * The value for a key, made when it is not there.
   * @param key says what it is and all it depends on
   * @param about an object it depends on too, and which never changes
   */
  of<T extends object>(key: string, make: () => T, about?: object): T {
    const whole = about ? `${this.numberOf(about)}/${key}` : key;
    const found = this.kept.get(whole) as T | undefined;
    if (found) return found;
    const made = make();
    this.kept.set(whole, made);
    return made;
  }

  private numberOf(about: object): number {
    let number = this.numbers.get(about);
    if (number === undefined) {
      number = ++this.numbered;
      this.numbers.set(about, number);
    }
    return number;
  }
}
