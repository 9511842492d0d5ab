import { readFile, stat } from 'node:fs/promises';
import { createRequire } from 'node:module';
import {
  type AssetSource,
  clipFramesOf,
  EMOJI_FAMILY,
  type EvaluatedFrame,
  FontBook,
  GraphicItem,
  type GraphicScene,
  type Item,
  LayoutCache,
  layoutFrame,
  loadHarfBuzz,
  type MediaFacts,
  Memo,
  type Op,
  Painter,
  type Picture,
  type Resources,
  type Surface,
  type Template,
} from '@fresh-reel/core';
import { fontsFor, type Needs } from '@fresh-reel/fonts';
import { unpackFont } from '@fresh-reel/fonts/unpack';
import { PlaneMaker } from '@fresh-reel/pixels';
import { StrokeLayer } from '@fresh-reel/pixels/strokes';
import { GlobalFonts, loadImage } from '@napi-rs/canvas';
import { NodeClip } from './clip';
import { NodeSequence } from './sequence';
import { NodeSound } from './sound';
import { streamsOf } from './streams';
import { createNodePath, createNodeSurface } from './surface';

const require = createRequire(import.meta.url);

/** The kernel that draws thousands of lines, and planes of video. */
const kernel = (): Promise<Uint8Array> => readFile(require.resolve('@fresh-reel/pixels/kernel.wasm'));

/** Bytes of a file that is still tried as a picture, for which all of it is read. */
const LARGEST_PICTURE = 2 ** 28;

/** Files that are opened at once. */
const AT_ONCE = 4;

/** The engine in Node: fonts from the installed packages, pictures from files, painting on a native canvas. */
export class NodeStudio implements Resources {
  private readonly pictures = new Map<string, Picture>();
  private readonly clips = new Map<string, NodeClip | NodeSequence>();
  private readonly vectors = new Set<string>();
  private readonly heard = new Map<string, NodeSound>();
  /** Files with sound that was left closed. */
  private readonly closed = new Set<string>();
  readonly painter: Painter;
  readonly memo = new Memo();

  private constructor(
    readonly layouts: LayoutCache,
    private readonly assets: AssetSource,
    strokes: StrokeLayer,
    /** Makes planes of video. */
    readonly planes: PlaneMaker,
    /** Whether sounds are left closed. */
    readonly paintsOnly: boolean,
  ) {
    this.painter = new Painter({
      createSurface: createNodeSurface,
      createPath: createNodePath,
      layStrokes: (rows, width, height) => strokes.lay(rows, width, height),
      picture: (id, at) => (at === undefined ? this.pictures.get(id) : this.clipFrame(id, at)),
    });
  }

  /**
   * @param assets where media is found that is not added; none, when absent
   * @param paintsOnly whether sounds are left closed: they are decoded whole, and what only paints has no use for them
   */
  static async start(
    assets: AssetSource = { find: () => undefined },
    { paintsOnly = false }: { readonly paintsOnly?: boolean } = {},
  ): Promise<NodeStudio> {
    const hb = await loadHarfBuzz(await readFile(require.resolve('harfbuzzjs/hb.wasm')));
    const wasm = await kernel();
    const [strokes, planes] = [await StrokeLayer.load(wasm), await PlaneMaker.load(wasm)];
    return new NodeStudio(new LayoutCache(new FontBook(hb)), assets, strokes, planes, paintsOnly);
  }

  mediaFacts(media: string): MediaFacts | undefined {
    const picture = this.pictures.get(media);
    if (!picture) return this.clips.get(media)?.facts;
    const { width, height } = picture;
    return { width, height, ...(this.vectors.has(media) ? { density: Number.POSITIVE_INFINITY } : {}) };
  }

  /** Loads the shipped fonts that are asked for and not there yet. */
  async loadFonts(needs: Needs): Promise<void> {
    for (const font of fontsFor(needs)) {
      if (this.layouts.fonts.has(font.family, font.weight)) continue;
      const bytes = await unpackFont(await readFile(require.resolve(font.source)));
      this.layouts.fonts.add(font, bytes);
      if (font.standsInFor?.includes('Emoji')) GlobalFonts.register(Buffer.from(bytes), EMOJI_FAMILY);
    }
  }

  /** Adds a font that does not ship. @throws {Error} when the bytes are not a usable font. */
  addFont(family: string, weight: number, bytes: Uint8Array): void {
    this.layouts.fonts.add({ family, weight }, bytes);
  }

  /**
   * Decodes a picture under an id.
   * @throws {Error} when the bytes are not a picture that can be read.
   */
  async addPicture(id: string, bytes: Uint8Array): Promise<void> {
    const image = await loadImage(Buffer.from(bytes));
    // Of the pictures that are read, SVG alone is text.
    if (/^\s*</.test(new TextDecoder().decode(bytes.subarray(0, 64)))) this.vectors.add(id);
    this.pictures.set(id, { image, width: image.width, height: image.height });
  }

  /**
   * Adds a file under an id: a picture, a picture sequence, or a clip or sound, which ffmpeg decodes.
   * @throws {Error} when it is none of them, or ffmpeg is not there
   */
  async addFile(id: string, path: string): Promise<void> {
    try {
      if ((await stat(path)).size <= LARGEST_PICTURE) {
        await this.addPicture(id, await readFile(path));
        return;
      }
    } catch {
      // Not a picture, then.
    }
    const sequence = await NodeSequence.open(path).catch(() => null);
    if (sequence) {
      this.clips.set(id, sequence);
      return;
    }
    const looked = streamsOf(path);
    const [clip, sound] = await Promise.all([
      NodeClip.open(path, looked).catch(() => null),
      this.paintsOnly ? null : NodeSound.open(path, looked),
    ]);
    if (this.paintsOnly && (await looked).sounds) this.closed.add(id);
    else if (!clip && !sound) throw new Error(`"${path}" is not a picture, clip or sound that can be read.`);
    if (clip) this.clips.set(id, clip);
    if (sound) this.heard.set(id, sound);
  }

  /** A sound that was added, or the sound of a clip. */
  sound(id: string): NodeSound | undefined {
    return this.heard.get(id);
  }

  /** Whether there is a sound of an id, open or closed. */
  hasSound(id: string): boolean {
    if (this.heard.has(id) || this.closed.has(id)) return true;
    return this.paintsOnly && this.assets.find(id) !== undefined;
  }

  /** Loads what a reel or an item of one needs: fonts, and the samples it shows and lets hear. */
  async prepare(scene: Pick<Item, 'fonts' | 'media' | 'sounds'>): Promise<void> {
    await this.loadFonts(scene.fonts());
    const wanted = new Set([...scene.media(), ...(this.paintsOnly ? [] : scene.sounds())]);
    const missing = [...wanted].filter((id) => !this.mediaFacts(id) && !this.heard.has(id)).values();
    // Most of the time goes to waiting for ffmpeg to begin.
    const some = async () => {
      for (const id of missing) {
        const path = this.assets.find(id);
        if (path !== undefined) await this.addFile(id, path);
      }
    };
    await Promise.all(Array.from({ length: AT_ONCE }, some));
  }

  /**
   * Decodes the frames of clips that moments show, so that they can be painted.
   * @throws {Error} naming the clip and the second whose frame cannot be had
   */
  async framesReady(moments: readonly (readonly Op[])[]): Promise<void> {
    const seconds = new Map<string, number[]>();
    for (const { media, at } of clipFramesOf(moments))
      seconds.set(media, [...(seconds.get(media) ?? []), at]);
    for (const [media, all] of seconds) await this.clips.get(media)?.ready(all);
  }

  /**
   * A frame of a clip that is ready; nothing of a clip that was never added.
   * @throws {Error} naming the clip and the second, when its frame was not made ready: a hole is never painted
   */
  clipFrame(id: string, at: number): Picture | undefined {
    const clip = this.clips.get(id);
    const frame = clip?.frame(at);
    if (clip && !frame) throw new Error(`The frame of the clip "${id}" at ${at.toFixed(3)} s is not there.`);
    return frame;
  }

  /** Path of a clip whose frames can go into a film as the file has them; nothing of any other. */
  asItIs(media: string): string | undefined {
    const clip = this.clips.get(media);
    return clip instanceof NodeClip ? clip.asItIs : undefined;
  }

  /** Has clips decoded with so many pixels on their longest side from now on, or all that there are. */
  keepClipsTo(side: number): void {
    for (const clip of this.clips.values()) if (clip instanceof NodeClip) clip.keepTo(side);
  }

  /** Ends the decoders of its clips. */
  close(): void {
    for (const opened of [...this.clips.values(), ...this.heard.values()]) opened.close();
  }

  /** A graphic ready to be evaluated. */
  async scene(
    template: Template,
    fill: GraphicScene['fill'],
    size: { width: number; height: number },
  ): Promise<GraphicScene> {
    const item = new GraphicItem({ id: template.id, template, fill }, layoutFrame(size), this);
    await this.prepare(item);
    return item.scene;
  }

  /** Paints a frame on a new surface. Frames of clips have to be ready. */
  paint(
    frame: Pick<EvaluatedFrame, 'ops'>,
    layout: { width: number; height: number },
    size: { width: number; height: number },
  ): Surface {
    const surface = createNodeSurface(size.width, size.height);
    this.painter.paint(frame.ops, surface, layout);
    return surface;
  }
}
