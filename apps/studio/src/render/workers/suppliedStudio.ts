import {
  clipFramesOf,
  type Op,
  type Place,
  picturesOf,
  type Reel,
  ReelScene,
  type Size,
  type Surface,
} from '@fresh-reel/core';
import type { DecodedPicture } from '../../decode/picture';
import { BrowserStudio } from '../../engine/browserStudio';
import type { FromPainter, Supplies } from './paintMessages';

/** Pictures held; the oldest that the frame does not show go first. */
const MOST_PICTURES = 16;

type Moments = readonly (readonly Op[])[];

/** The engine with everything one reel shows: what a render, or a look before it, paints with. */
export class SuppliedStudio {
  private readonly coming = new Map<string, Promise<void>>();

  private constructor(
    private readonly studio: BrowserStudio,
    private readonly pictureOf: (id: string) => Promise<DecodedPicture | null>,
  ) {}

  /**
   * @param side pixels of the longest side painted
   * @param draft whether it paints as a preview is that has to keep up
   * @param pictureOf a picture, asked for when a frame shows it. One that is missing or damaged is left out.
   */
  static async start(
    { reel, sizes, fonts }: Supplies,
    side: number,
    pictureOf: (id: string) => Promise<DecodedPicture | null>,
    draft = false,
  ): Promise<SuppliedStudio> {
    const studio = await BrowserStudio.start();
    studio.painter.draft = draft;
    for (const [id, size] of sizes) studio.addSize(id, size);
    studio.addFonts(fonts);
    const scene = new ReelScene(reel, studio);
    await studio.loadFonts(scene);
    for (const media of studio.missingMedia(scene)) await studio.openClip(media);
    studio.keepClipsTo(side, false);
    return new SuppliedStudio(studio, pictureOf);
  }

  /** A reel of the same files. */
  sceneOf(reel: Reel): ReelScene {
    return new ReelScene(reel, this.studio);
  }

  /** Paints moments of a frame, once the pictures and frames of clips in them are there. */
  async paint(moments: Moments, surface: Surface, frame: Size, place?: Place): Promise<void> {
    const shown = new Set(picturesOf(moments));
    await Promise.all([...shown].map((id) => this.studio.hasPicture(id) || this.add(id)));
    this.studio.dropPictures(shown, MOST_PICTURES);
    await this.studio.framesReady(clipFramesOf(moments));
    this.studio.painter.paintMoments(moments, surface, frame, place);
  }

  /** Frames that are painted side by side wait for the same picture. */
  private add(id: string): Promise<void> {
    const coming = this.coming.get(id) ?? this.fetch(id).finally(() => this.coming.delete(id));
    this.coming.set(id, coming);
    return coming;
  }

  private async fetch(id: string): Promise<void> {
    const picture = await this.pictureOf(id);
    if (picture) this.studio.addPicture(id, picture);
  }
}

const asked = new Map<string, (picture: DecodedPicture | null) => void>();

/** Asks the page for a picture, from within a worker. */
export function askForPicture(id: string): Promise<DecodedPicture | null> {
  return new Promise((resolve) => {
    asked.set(id, resolve);
    self.postMessage({ needs: id } satisfies FromPainter);
  });
}

/** What the page gave. */
export function pictureGiven(id: string, picture: DecodedPicture | null): void {
  asked.get(id)?.(picture);
  asked.delete(id);
}
