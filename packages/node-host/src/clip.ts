import type { MediaFacts, Picture, Surface } from '@fresh-reel/core';
import { ImageData } from '@napi-rs/canvas';
import { ClipDecoder, type DecodedFrame, type Decoding } from './clipDecoder';
import { readFrom } from './ffmpeg';
import { frameRate, isTurned, pixelAspect } from './footage';
import { type PictureStream, type Streams, streamsOf } from './streams';
import { createNodeSurface } from './surface';

/** Frames kept of one clip, beyond those that are wanted together. */
const MOST_KEPT = 6;
/** Places of a clip that are read from at once: the same clip may show in several. */
const MOST_DECODERS = 3;
/** Seconds that reading on costs less than seeking. */
const NEAR = 2;
/** Seconds before a wanted one at which reading begins: the frame that shows then may have begun before it. */
const BEFORE = 0.5;

/** A frame that can be painted. */
type KeptFrame = Pick<DecodedFrame, 'time' | 'until'> & {
  readonly picture: Picture;
  readonly surface: Surface;
};

/** Parts by which the mean rate of a clip and its finest may differ for it to count as of one rate. */
const ONE_RATE = 0.02;

/** Whether the frames of a stream come evenly. */
function isEven({ avg_frame_rate, r_frame_rate }: PictureStream): boolean {
  const [mean, finest] = [frameRate(avg_frame_rate), frameRate(r_frame_rate)];
  return mean !== undefined && finest !== undefined && Math.abs(finest / mean - 1) < ONE_RATE;
}

/** Whether a file says nothing of how its luma and chroma are made. */
const isUntold = (space: string | undefined) => space === undefined || space === 'unknown';

/** Whether frames of a stream are what films of 4:2:0 are made of: upright, even, 8 bits, BT.709, limited range. */
function isPlain(stream: PictureStream): boolean {
  const { color_space: space, color_range: range, pix_fmt, sample_aspect_ratio: aspect } = stream;
  return (
    pix_fmt === 'yuv420p' &&
    (isUntold(space) || space === 'bt709') &&
    range !== 'pc' &&
    pixelAspect(aspect) === 1 &&
    !stream.side_data_list?.some(({ rotation = 0 }) => rotation !== 0) &&
    stream.tags?.alpha_mode !== '1' &&
    isEven(stream)
  );
}

/** A clip file, decoded by ffmpeg. The frame that shows at a second is the last that began by then, by ffmpeg's times. */
export class NodeClip {
  private readonly decoders: ClipDecoder[] = [];
  private kept: KeptFrame[] = [];
  /** Surfaces of frames that are over, as large as those to come. */
  private free: Surface[] = [];
  private busy: Promise<void> = Promise.resolve();

  private constructor(
    private decoding: Decoding,
    readonly facts: MediaFacts & { readonly duration: number },
    /** Path of the file, where its frames can go into a film as they are. */
    readonly asItIs: string | undefined,
  ) {}

  /**
   * @param looked what ffprobe says of the file, where it has been asked
   * @throws {Error} when ffprobe is not there or finds no moving picture in the file.
   */
  static async open(path: string, looked: Promise<Streams> = streamsOf(path)): Promise<NodeClip> {
    const { picture: stream, duration } = await looked;
    if (!stream) throw new Error(`"${path}" has no moving picture in it.`);
    const turned = isTurned(stream.side_data_list);
    const wide = Math.max(1, Math.round(stream.width * pixelAspect(stream.sample_aspect_ratio)));
    const [width, height] = turned ? [stream.height, wide] : [wide, stream.height];
    const alpha = stream.tags?.alpha_mode === '1';
    // ffmpeg's own decoders of VP8 and VP9 leave the alpha out.
    const decoder = alpha ? (stream.codec_name === 'vp8' ? 'libvpx' : 'libvpx-vp9') : undefined;
    const rate = frameRate(stream.avg_frame_rate);
    const facts = { width, height, duration, ...(rate ? { rate } : {}) };
    // What is not told is BT.709, as browsers take it; ffmpeg would take BT.601.
    const matrix = isUntold(stream.color_space) && stream.pix_fmt?.startsWith('yuv') ? 'bt709' : undefined;
    const decoding = { path, width, height, decoder, matrix };
    return new NodeClip(decoding, facts, isPlain(stream) ? path : undefined);
  }

  /**
   * Has its frames decoded with so many pixels on their longest side from now on, or all that there are: what is painted
   * small is not decoded large.
   */
  keepTo(side: number): void {
    this.busy = this.busy.then(() => {
      const { facts, decoding } = this;
      const scale = Math.min(1, side / Math.max(facts.width, facts.height));
      const [width, height] = [facts.width, facts.height].map((n) => Math.max(1, Math.round(n * scale)));
      if (width === decoding.width && height === decoding.height) return;
      this.decoding = { ...decoding, width: width!, height: height! };
      this.kept = [];
      this.free = [];
      this.close();
    });
  }

  /** The frame at a second, when it has been made ready. */
  frame(at: number): Picture | undefined {
    return this.keptAt(at)?.picture;
  }

  /**
   * Decodes the frames at some seconds, so that they can be painted together. Calls are taken one after the other.
   * @throws {Error} naming the clip and the second whose frame cannot be had
   */
  ready(seconds: readonly number[]): Promise<void> {
    const next = this.busy.then(() => this.decode(seconds));
    this.busy = next.catch(() => undefined);
    return next;
  }

  close(): void {
    for (const decoder of this.decoders.splice(0)) decoder.close();
  }

  private keptAt(at: number) {
    return this.kept.find((f) => f.time <= at && at < f.until);
  }

  private async decode(seconds: readonly number[]): Promise<void> {
    const wanted = new Set<unknown>();
    for (const at of [...seconds].sort((a, b) => a - b)) {
      if (!this.keptAt(at)) this.keep(await this.frameFor(at));
      wanted.add(this.keptAt(at));
    }
    const others = this.kept.filter((f) => !wanted.has(f)).slice(-MOST_KEPT);
    const stay = (frame: KeptFrame) => wanted.has(frame) || others.includes(frame);
    this.free.push(...this.kept.filter((f) => !stay(f)).map((f) => f.surface));
    this.kept = this.kept.filter(stay);
  }

  private async frameFor(at: number): Promise<DecodedFrame> {
    const fit = this.decoders.filter((d) => d.position <= at && at - d.position < NEAR);
    const nearest = fit.sort((a, b) => b.position - a.position)[0];
    const found = await nearest?.frameAt(at);
    if (found) return found;
    // Of a slow clip the frame may have begun long before: farther back each time, to the beginning at last.
    for (let before = BEFORE; ; before *= 8) {
      const from = readFrom(at - before);
      const decoder = this.startAt(from);
      const frame = await decoder.frameAt(at);
      if (frame) return frame;
      if (from === 0)
        throw new Error(
          `The clip "${this.decoding.path}" gave no frame at ${at.toFixed(3)} s. ${decoder.complaint}`.trim(),
        );
    }
  }

  private startAt(second: number): ClipDecoder {
    const decoder = new ClipDecoder(this.decoding, second);
    this.decoders.push(decoder);
    if (this.decoders.length > MOST_DECODERS) this.decoders.shift()!.close();
    return decoder;
  }

  private keep({ time, until, pixels }: DecodedFrame): void {
    const { width, height } = this.decoding;
    const surface = this.free.pop() ?? createNodeSurface(width, height);
    const bytes = new Uint8ClampedArray(pixels.buffer, pixels.byteOffset, pixels.length);
    surface.context.putImageData(new ImageData(bytes, width, height), 0, 0);
    const { width: w, height: h } = this.facts;
    // A new picture each time: what the painter keeps goes by it.
    this.kept.push({ time, until, surface, picture: { image: surface.canvas, width: w, height: h } });
  }
}
