import type { ReelScene } from '@fresh-reel/core';
import type { DecodedPicture } from '../decode/picture';
import type { BrowserStudio, FontFile } from '../engine/browserStudio';
import type { StoredChange } from '../storage/changes';

/** Decoded pictures kept; the oldest that no surface shows go first. */
const MOST_PICTURES = 24;

/** What the page is asked for: it alone can draw vectors, and knows the user's fonts. */
export interface Ask {
  picture(id: string): void;
  fonts(families: readonly string[]): void;
}

/** Something that was asked for and has not come yet. */
class Coming {
  readonly settled: Promise<void>;
  settle: () => void = () => undefined;
  /** Answers that are awaited: the last one counts. */
  answers = 1;

  constructor() {
    this.settled = new Promise((resolve) => {
      this.settle = resolve;
    });
  }
}

/**
 * Pictures, clips and fonts of what previews show: asked for once, told when they are there or cannot be had, and
 * asked for anew when they change.
 */
export class Supplies {
  /** On its way, or settled: here, or not to be had. */
  private readonly media = new Map<string, Coming | 'settled'>();
  private readonly families = new Map<string, Coming | 'settled'>();

  /**
   * @param inUse media ids that any preview shows
   * @param onMedia called when something came, or turned out not to be there
   */
  constructor(
    private readonly engine: BrowserStudio,
    private readonly ask: Ask,
    private readonly inUse: () => readonly string[],
    private readonly onMedia: (media: string) => void,
  ) {}

  /** Fonts for a reel, its own and those that ship; what is not to be had is set in another. */
  async fonts(scene: ReelScene): Promise<void> {
    const shipped = this.engine.hasFonts(scene) ? undefined : this.engine.loadFonts(scene);
    const unknown = this.engine.missingFamilies(scene);
    const fresh = unknown.filter((family) => !this.families.has(family));
    for (const family of fresh) this.families.set(family, new Coming());
    if (fresh.length > 0) this.ask.fonts(fresh);
    await Promise.all([shipped, ...settling(this.families, unknown)]);
  }

  /** Pictures and clips of a reel. Settles when each is there, or is known not to be. */
  async pictures(scene: ReelScene): Promise<void> {
    const wanted = this.engine.missingMedia(scene);
    for (const id of wanted) {
      if (this.media.has(id)) continue;
      this.media.set(id, new Coming());
      this.engine.coming.add(id);
      void this.fetch(id);
    }
    await Promise.all(settling(this.media, wanted));
  }

  /** Clips are opened here; pictures are decoded by the page. */
  private async fetch(id: string): Promise<void> {
    if (!(await this.engine.openClip(id))) return this.ask.picture(id);
    this.letGo(this.engine.dropClips(new Set([id, ...this.inUse()])));
    this.settle(id);
  }

  /** The page's answer: a picture, or that there is none. */
  gotPicture(id: string, picture: DecodedPicture | null): void {
    if (picture) {
      this.engine.addPicture(id, picture);
      this.letGo(this.engine.dropPictures(new Set([id, ...this.inUse()]), MOST_PICTURES));
    }
    this.settle(id);
  }

  /** The page's answer: the fonts of some families, as many as there are. */
  gotFonts(families: readonly string[], fonts: readonly FontFile[]): void {
    this.engine.addFonts(fonts);
    for (const family of families) settleIn(this.families, family);
  }

  /** A file or a font came or went: what is known of it counts no more. */
  changed({ kind, id }: StoredChange): void {
    if (kind === 'font') {
      this.engine.dropFamily(id);
      // What is asked for just now may be answered from before the change: it is asked for once more.
      if (again(this.families, id)) this.ask.fonts([id]);
      return;
    }
    const media = `sha256:${id}`;
    this.engine.dropMedia(media);
    if (again(this.media, media)) void this.fetch(media);
  }

  /** Closes clips that no preview shows any more. */
  tidy(): void {
    this.letGo(this.engine.dropClips(new Set(this.inUse())));
  }

  private settle(id: string): void {
    if (!settleIn(this.media, id)) return;
    this.engine.coming.delete(id);
    this.onMedia(id);
  }

  private letGo(gone: readonly string[]): void {
    for (const id of gone) this.media.delete(id);
  }
}

/** Whether something that changed has to be asked for once more now; what was settled is asked for when it shows. */
function again(held: Map<string, Coming | 'settled'>, id: string): boolean {
  const state = held.get(id);
  if (state instanceof Coming) state.answers++;
  else held.delete(id);
  return state instanceof Coming;
}

/** @returns false while another answer is awaited */
function settleIn(held: Map<string, Coming | 'settled'>, id: string): boolean {
  const state = held.get(id);
  if (state instanceof Coming && --state.answers > 0) return false;
  held.set(id, 'settled');
  if (state instanceof Coming) state.settle();
  return true;
}

function settling(held: ReadonlyMap<string, Coming | 'settled'>, ids: readonly string[]): Promise<void>[] {
  return ids.flatMap((id) => {
    const state = held.get(id);
    return state instanceof Coming ? [state.settled] : [];
  });
}
