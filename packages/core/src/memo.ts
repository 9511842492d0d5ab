import { LRUCache } from 'lru-cache';

const MOST_KEPT = 2000;

/**
 * What follows from its key alone and costs too much to be made anew in every frame: outlines, rulers of paths, lines
 * of lists, orders. One for each engine, shared by its scenes.
 */
export class Memo {
  private readonly kept = new LRUCache<string, object>({ max: MOST_KEPT });

  /**
   * The value for a key, made when it is not there.
   * @param key says what it is and all it depends on
   */
  of<T extends object>(key: string, make: () => T): T {
    const found = this.kept.get(key) as T | undefined;
    if (found) return found;
    const made = make();
    this.kept.set(key, made);
    return made;
  }
}
