import {
  areaOf,
  layOnBlack,
  MOST_OF_FRAME,
  type Op,
  type Place,
  type Rect,
  type Size,
  type Surface,
} from '@fresh-reel/core';
import { BlackFrame, type PlaneMaker, VIDEO_COLOURS } from '@fresh-reel/pixels';
import { surfaceOf } from './browserStudio';
import { opaquePlanes } from './opaquePlanes';

type Moments = readonly (readonly Op[])[];
type Paint = (moments: Moments, surface: Surface, place: Place) => Promise<void> | void;

/** Parts of a frame begin and end at multiples of so many pixels: a canvas that is made anew costs more than a few. */
const STEP = 64;

/**
 * Frames of a film without transparency, as planes. Where little of a frame shows anything, as with most titles, that
 * little is painted and turned into planes, and the rest is black.
 */
export class OpaqueFilm {
  /** Of the part that was painted last, and of the whole. */
  private part: OffscreenCanvas | undefined;
  private whole: OffscreenCanvas | undefined;
  private readonly black: BlackFrame;

  /**
   * @param size in pixels, even
   * @param frame in frame units
   */
  constructor(
    private readonly planes: PlaneMaker,
    private readonly size: Size,
    private readonly frame: Size,
  ) {
    this.black = new BlackFrame(size);
  }

  /** Paints a frame. @returns its planes, in BT.709 and limited range; to be closed */
  async painted(moments: Moments, paint: Paint): Promise<VideoFrame> {
    const { size, frame, planes } = this;
    const scale = size.width / frame.width;
    const part = partOf(areaOf(moments, frame, size), size);
    if (!part) {
      this.whole ??= new OffscreenCanvas(size.width, size.height);
      return videoFrame(await planesOf(this.whole, { scale, x: 0, y: 0 }), size);
    }
    const { x, y, width, height } = part;
    if (this.part?.width !== width || this.part.height !== height)
      this.part = new OffscreenCanvas(width, height);
    return videoFrame(this.black.with(await planesOf(this.part, { scale, x, y }), part), size);

    async function planesOf(canvas: OffscreenCanvas, place: Place): Promise<Uint8Array> {
      const surface = surfaceOf(canvas);
      await paint(moments, surface, place);
      layOnBlack(surface);
      return opaquePlanes(planes, canvas, surface);
    }
  }
}

/**
 * The part of a film's picture that is painted for an area, where less than half of it is enough. It follows from the
 * frame alone, so a film has the same bytes wherever its render begins.
 */
function partOf(area: Rect, { width, height }: Size): Rect | undefined {
  const before = (n: number) => Math.floor(n / STEP) * STEP;
  const after = (n: number, most: number) => Math.min(most, Math.ceil(n / STEP) * STEP);
  const [x, y] = [before(area.x), before(area.y)];
  const [right, bottom] = [after(area.x + area.width, width), after(area.y + area.height, height)];
  const part = { x, y, width: right - x, height: bottom - y };
  return part.width * part.height > MOST_OF_FRAME * width * height ? undefined : part;
}

/** Planes as a frame that encoders take, which can be handed to another thread without being copied. */
export function videoFrame(planes: Uint8Array, { width, height }: Size, alpha = false): VideoFrame {
  return new VideoFrame(planes, {
    format: alpha ? 'I420A' : 'I420',
    codedWidth: width,
    codedHeight: height,
    timestamp: 0,
    colorSpace: VIDEO_COLOURS,
  });
}
