import { areaOf, MOST_OF_FRAME, type Op, type Place, type Size, type Surface } from '@fresh-reel/core';
import { BlackFrame, type PlaneMaker, VIDEO_COLOURS } from '@fresh-reel/pixels';
import { surfaceOf } from './browserStudio';
import { opaquePlanes } from './opaquePlanes';

type Moments = readonly (readonly Op[])[];
type Paint = (moments: Moments, surface: Surface, place: Place) => Promise<void> | void;

/** Pixels by which the sides of a part of a frame grow: a canvas that is made anew costs more than these. */
const STEP = 64;

/**
 * Frames of a film without transparency, as planes. Where little of a frame shows anything, as with most titles, that
 * little is painted and turned into planes, and the rest is black.
 */
export class OpaqueFilm {
  /** Of a part of the frame, as large as any was up to now. */
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
    const area = areaOf(moments, frame, size);
    const part = this.partFor(area);
    if (!part) {
      this.whole ??= new OffscreenCanvas(size.width, size.height);
      return videoFrame(await planesOf(this.whole, { scale, x: 0, y: 0 }), size);
    }
    const { width, height } = part;
    // The part lies in the frame: what reads beyond the frame's edge reads the same.
    const [x, y] = [Math.min(area.x, size.width - width), Math.min(area.y, size.height - height)];
    return videoFrame(this.black.with(await planesOf(part, { scale, x, y }), { x, y, width, height }), size);

    async function planesOf(canvas: OffscreenCanvas, place: Place): Promise<Uint8Array> {
      const surface = surfaceOf(canvas);
      await paint(moments, surface, place);
      layOnBlack(surface);
      return opaquePlanes(planes, canvas, surface);
    }
  }

  /** The canvas of a part, where less than half of the frame is enough for an area. */
  private partFor({ width, height }: Size): OffscreenCanvas | undefined {
    const { size } = this;
    const side = (wanted: number, had: number, most: number) =>
      Math.min(most, Math.max(had, Math.ceil(wanted / STEP) * STEP));
    const wide = side(width, this.part?.width ?? 0, size.width);
    const high = side(height, this.part?.height ?? 0, size.height);
    if (wide * high > MOST_OF_FRAME * size.width * size.height) return undefined;
    if (this.part?.width !== wide || this.part.height !== high) this.part = new OffscreenCanvas(wide, high);
    return this.part;
  }
}

function layOnBlack({ canvas, context }: Surface): void {
  context.globalCompositeOperation = 'destination-over';
  context.fillStyle = '#000000';
  context.fillRect(0, 0, canvas.width, canvas.height);
  context.globalCompositeOperation = 'source-over';
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
