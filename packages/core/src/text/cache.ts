import { LRUCache } from 'lru-cache';
import type { FontBook } from './fonts';
import { layoutText } from './layout';
import type { FitRule, TextLayout, TextStyle, WeightRun } from './textLayout';

const MOST_TEXTS = 600;
/** Styles and rules kept for one text: a size that changes over time makes a new one for each frame. */
const MOST_SETTINGS = 120;

/** Layouts by their words, style and rule: setting a text is done once per change, not once per frame. */
export class LayoutCache {
  /** By words first: a long text is then known by its hash, and not written into a key in every frame. */
  private readonly kept = new LRUCache<string, LRUCache<string, TextLayout>>({ max: MOST_TEXTS });
  private version = -1;
  /** Texts set so far: tests and benchmarks look whether it stands still. */
  made = 0;

  constructor(readonly fonts: FontBook) {}

  layout(words: string, style: TextStyle, fit: FitRule, runs: readonly WeightRun[] = []): TextLayout {
    if (this.version !== this.fonts.version) {
      this.kept.clear();
      this.version = this.fonts.version;
    }
    let settings = this.kept.get(words);
    if (!settings) {
      settings = new LRUCache({ max: MOST_SETTINGS });
      this.kept.set(words, settings);
    }
    const key = JSON.stringify([style, fit, runs]);
    const held = settings.get(key);
    if (held) return held;
    const made = layoutText(words, style, fit, this.fonts, runs);
    this.made++;
    settings.set(key, made);
    return made;
  }
}
