import {
  type ClipFrame,
  clipFramesOf,
  EMOJI_FAMILY,
  FontBook,
  LayoutCache,
  loadHarfBuzz,
  type MediaFacts,
  Memo,
  type Op,
  Painter,
  type Picture,
  type ReelScene,
  type Resources,
  type Size,
  type Surface,
} from '@fresh-reel/core';
import { FONTS, fontsFor, type ShippedFont } from '@fresh-reel/fonts';
import { StrokeLayer } from '@fresh-reel/pixels/strokes';
import { ClipReader } from '../decode/clipReader';
import type { DecodedPicture } from '../decode/picture';

/** A font of the user's, ready to use. */
export interface FontFile {
  readonly family: string;
  readonly weight: number;
  readonly bytes: Uint8Array;
}

/** The engine in a worker: fonts over HTTP, pictures as bitmaps from the page, painting on OffscreenCanvas. */
export class BrowserStudio implements Resources {
  readonly painter: Painter;
  readonly memo = new Memo();
  /** Media ids that are on their way: not there yet is not missing. */
  readonly coming = new Set<string>();
  private readonly pictures = new Map<string, Picture>();
  private readonly clips = new Map<string, ClipReader>();
  private readonly sizes = new Map<string, Size>();
  private readonly loading = new Map<string, Promise<void>>();

  private constructor(
    readonly layouts: LayoutCache,
    private readonly proxies: boolean,
    strokes: StrokeLayer,
  ) {
    this.painter = new Painter({
      createSurface: offscreenSurface,
      createPreciseSurface: preciseSurface,
      createPath: () => new Path2D(),
      layStrokes: (rows, width, height) => strokes.lay(rows, width, height),
      picture: (id, at) => (at === undefined ? this.pictures.get(id) : this.clips.get(id)?.frame(at)),
    });
  }

  /** @param proxies whether clips are shown by their proxies, where those have pixels enough */
  static async start({ proxies = false } = {}): Promise<BrowserStudio> {
    const [text, pixels] = await Promise.all([
      fetchBytes('/engine/hb.wasm', 'The text engine'),
      fetchBytes('/engine/pixels.wasm', 'The part that draws thousands of lines'),
    ]);
    const layouts = new LayoutCache(new FontBook(await loadHarfBuzz(text)));
    return new BrowserStudio(layouts, proxies, await StrokeLayer.load(pixels));
  }

  mediaFacts(media: string): MediaFacts | undefined {
    const picture = this.pictures.get(media);
    if (!picture) return this.clips.get(media)?.facts ?? this.sizes.get(media);
    const { image, width, height } = picture;
    return { width, height, density: (image as ImageBitmap).width / width };
  }

  isComing(media: string): boolean {
    return this.coming.has(media);
  }

  /**
   * Opens a clip, so that its frames can be made ready.
   * @returns false when the media is not there or is no clip that can be decoded
   */
  async openClip(media: string): Promise<boolean> {
    if (this.clips.has(media)) return true;
    const reader = await ClipReader.open(media, this.proxies).catch(() => null);
    if (reader) this.clips.set(media, reader);
    return reader !== null;
  }

  /** Frames of clips that moments show and that are not decoded yet. */
  framesMissing(moments: readonly (readonly Op[])[]): ClipFrame[] {
    return clipFramesOf(moments).filter(({ media, at }) => this.clips.get(media)?.has(at) === false);
  }

  /** Decodes frames of clips. */
  async framesReady(frames: readonly ClipFrame[]): Promise<void> {
    const seconds = new Map<string, number[]>();
    for (const { media, at } of frames) seconds.set(media, [...(seconds.get(media) ?? []), at]);
    await Promise.all([...seconds].map(([media, all]) => this.clips.get(media)?.ready(all)));
  }

  /** Says which frames of clips are wanted; see {@link ClipReader.keepTo}. */
  keepClipsTo(side: number, moving: boolean): void {
    for (const clip of this.clips.values()) clip.keepTo(side, moving);
  }

  /** The proxy of a clip came or went: what is decoded from now on is of what there is. */
  proxyChanged(media: string): void {
    this.clips.get(media)?.findProxy();
  }

  /** Closes clips that are not among those in use. @returns what went */
  dropClips(inUse: ReadonlySet<string>): string[] {
    const gone = [...this.clips].filter(([id]) => !inUse.has(id));
    for (const [id, clip] of gone) {
      clip.close();
      this.clips.delete(id);
    }
    return gone.map(([id]) => id);
  }

  addPicture(id: string, { bitmap, width, height }: DecodedPicture): void {
    this.pictures.set(id, { image: bitmap, width, height });
  }

  /** Says how large a picture is that is decoded only when it shows. */
  addSize(id: string, size: Size): void {
    this.sizes.set(id, size);
  }

  hasPicture(id: string): boolean {
    return this.pictures.has(id);
  }

  /** Lets go of pictures beyond `most` that are not among those in use. @returns what went */
  dropPictures(inUse: ReadonlySet<string>, most: number): string[] {
    const idle = [...this.pictures].filter(([id]) => !inUse.has(id));
    const gone = idle.slice(0, Math.max(0, this.pictures.size - most));
    for (const [id, { image }] of gone) {
      (image as ImageBitmap).close();
      this.pictures.delete(id);
    }
    return gone.map(([id]) => id);
  }

  /** Lets go of a picture or a clip, whether or not it is in use. */
  dropMedia(id: string): void {
    (this.pictures.get(id)?.image as ImageBitmap | undefined)?.close();
    this.pictures.delete(id);
    this.clips.get(id)?.close();
    this.clips.delete(id);
  }

  /** Media ids a reel shows that are not here yet. */
  missingMedia(scene: ReelScene): string[] {
    return scene.media().filter((id) => !this.mediaFacts(id));
  }

  /** Loads every font a reel needs and does not have. */
  async loadFonts(scene: ReelScene): Promise<void> {
    await Promise.all(fontsFor(scene.fonts()).map((font) => this.loadFont(font)));
  }

  /** Families a reel names that do not ship with the app and are not here: the user's own. */
  missingFamilies(scene: ReelScene): string[] {
    const shipped = new Set(FONTS.map((f) => f.family));
    const families = new Set(
      scene
        .fonts()
        .faces.map((f) => f.family)
        .filter((f) => !shipped.has(f)),
    );
    return [...families].filter((f) => !this.layouts.fonts.hasFamily(f));
  }

  /** Adds fonts of the user's; one that does not read is left out, and its letters are set in another. */
  addFonts(fonts: readonly FontFile[]): void {
    for (const { family, weight, bytes } of fonts) {
      try {
        this.layouts.fonts.add({ family, weight }, bytes);
      } catch {
        // It was checked when it came; what is damaged since then is told by the checks.
      }
    }
  }

  /** Lets go of a family of the user's; one that ships stays. */
  dropFamily(family: string): void {
    if (!FONTS.some((f) => f.family === family)) this.layouts.fonts.drop(family);
  }

  /** Whether every font a reel needs is here. */
  hasFonts(scene: ReelScene): boolean {
    return fontsFor(scene.fonts()).every((f) => this.layouts.fonts.has(f.family, f.weight));
  }

  private loadFont(font: ShippedFont): Promise<void> {
    let loading = this.loading.get(font.file);
    if (!loading) {
      loading = (async () => {
        const bytes = await fetchBytes(`/fonts/${font.file}`, `The font ${font.family}`);
        if (font.standsInFor?.includes('Emoji')) {
          const face = new FontFace(EMOJI_FAMILY, bytes);
          await face.load();
          (self as unknown as { fonts: FontFaceSet }).fonts.add(face);
        }
        this.layouts.fonts.add(font, new Uint8Array(bytes));
      })();
      this.loading.set(font.file, loading);
      // A font that did not come is asked for again the next time.
      loading.catch(() => this.loading.delete(font.file));
    }
    return loading;
  }
}

export async function fetchBytes(path: string, what: string): Promise<ArrayBuffer> {
  const response = await fetch(new URL(path, self.location.origin));
  if (!response.ok)
    throw new Error(`${what} could not be loaded (${response.status}). Check the connection and reload.`);
  return response.arrayBuffer();
}

export function offscreenSurface(width: number, height: number): Surface {
  return surfaceOf(new OffscreenCanvas(width, height));
}

/** A canvas in 16-bit floats, where the browser has them. */
function preciseSurface(width: number, height: number): Surface | undefined {
  const canvas = new OffscreenCanvas(width, height);
  const settings = { colorType: 'float16' } as unknown as CanvasRenderingContext2DSettings;
  const context = canvas.getContext('2d', settings);
  // A browser without them ignores the setting and says so here.
  const asks = context as unknown as { getContextAttributes?(): { colorType?: string } } | null;
  if (!context || asks?.getContextAttributes?.().colorType !== 'float16') return undefined;
  return { canvas, context: context as unknown as Surface['context'] };
}

export function surfaceOf(canvas: OffscreenCanvas): Surface {
  const context = canvas.getContext('2d');
  if (!context)
    throw new Error('This browser cannot draw off screen. Use a current Chromium, Firefox or Safari.');
  return { canvas, context: context as unknown as Surface['context'] };
}
