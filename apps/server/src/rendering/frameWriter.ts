import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import {
  layOnBlack,
  type Op,
  overClip,
  type Rate,
  type Rect,
  type Reel,
  type ReelScene,
  type Surface,
  sameMoments,
  sequenceName,
} from '@fresh-reel/core';
import { createNodeSurface, type NodeStudio, pngOf } from '@fresh-reel/node-host';
import { asItIs } from './overFootage';

/** A font that came with a reel. */
export interface OwnFont {
  readonly family: string;
  readonly weight: number;
  readonly bytes: Uint8Array;
}

/** What painting the frames of a render takes; plain data, for threads. */
export interface PaintJob {
  readonly reel: Reel;
  /** Files by media id. */
  readonly files: readonly (readonly [id: string, path: string])[];
  readonly fonts: readonly OwnFont[];
  readonly size: { readonly width: number; readonly height: number };
  readonly rate: Rate;
  /** First frame of the reel, and how many. */
  readonly from: number;
  readonly count: number;
  /** Where the pictures go, and what their names begin with. */
  readonly folder: string;
  readonly stem: string;
  /** For a film: frames are given as pixels, and not written. */
  readonly raw?: boolean;
  /** What is transparent is laid on black: for films that keep no transparency. */
  readonly onBlack?: boolean;
  /** For a film over footage: the pixels, with even sides, of which planes are given; what lies below is left out. */
  readonly over?: Rect | undefined;
}

/** What goes into a file of one frame. */
export type FramePixels = Uint8ClampedArray | Uint8Array;

/** A frame of a render, painted. */
export interface PaintedFrame {
  /** Counted from the render's first. */
  readonly index: number;
  /** What the next frame is painted on as well. */
  readonly surface: Surface;
  /** Whether it is the frame before it once more. */
  readonly again: boolean;
}

/**
 * Paints frames of a render, counted from its first, one after the other; a frame like the one before it is not painted
 * anew.
 * @throws {Error} when a frame of a clip cannot be had
 */
export async function* paintedFrames(
  studio: NodeStudio,
  scene: ReelScene,
  job: Pick<PaintJob, 'size' | 'rate' | 'from' | 'onBlack' | 'over'>,
  first: number,
  count: number,
): AsyncGenerator<PaintedFrame> {
  const surface = createNodeSurface(job.size.width, job.size.height);
  let last: readonly (readonly Op[])[] | undefined;
  for (let index = first; index < first + count; index++) {
    const whole = scene.subFrames(job.from + index, job.rate).map((f) => f.ops);
    const found = job.over && overClip(whole, scene.frame, asItIs(studio, job.size));
    const moments = found?.above ?? whole;
    const again = last !== undefined && sameMoments(last, moments);
    if (!again) {
      await studio.framesReady(moments);
      studio.painter.paintMoments(moments, surface, scene.frame);
      if (job.onBlack) layOnBlack(surface);
      last = moments;
    }
    yield { index, surface, again };
  }
}

/**
 * The pixels of those frames, for what takes them one after the other.
 * @throws {Error} when a frame of a clip cannot be had
 */
export async function* rawFrames(...painting: Parameters<typeof paintedFrames>): AsyncGenerator<FramePixels> {
  const [studio, , { over }] = painting;
  let pixels: FramePixels | undefined;
  for await (const { surface, again } of paintedFrames(...painting)) {
    if (!pixels || !again) pixels = pixelsOf(surface, studio, over);
    yield pixels;
  }
}

/** Straight pixels of a frame, four bytes each; or, of a part that is laid over footage, planes with alpha. */
export function pixelsOf({ canvas, context }: Surface, { planes }: NodeStudio, over?: Rect): FramePixels {
  if (!over) return context.getImageData(0, 0, canvas.width, canvas.height).data;
  const { x, y, width, height } = over;
  // The memory of planes is written anew for the next frame.
  return planes.planes(context.getImageData(x, y, width, height).data, width, height, true).slice();
}

/** Frames that are compressed while the next is painted: that runs on threads of its own. */
const AT_ONCE = 4;

/** Paints frames of a render and writes them as numbered PNGs. */
export class FrameWriter {
  constructor(
    private readonly studio: NodeStudio,
    private readonly scene: ReelScene,
    private readonly job: PaintJob,
  ) {}

  /**
   * Writes some frames, counted from the render's first.
   * @throws {Error} when a frame of a clip cannot be had, or a file not be written
   */
  async write(first: number, count: number, onFrame: (index: number) => void): Promise<void> {
    const { job } = this;
    const running = new Set<Promise<void>>();
    let png: Promise<Buffer> | undefined;
    for await (const { index, surface, again } of paintedFrames(this.studio, this.scene, job, first, count)) {
      if (!png || !again) png = pngOf(surface);
      const task = png
        .then((bytes) => writeFile(join(job.folder, sequenceName(job.stem, index, job.count)), bytes))
        .then(() => onFrame(index));
      running.add(task);
      task.then(
        () => running.delete(task),
        () => undefined,
      );
      if (running.size >= AT_ONCE) await Promise.race(running);
    }
    await Promise.all(running);
  }
}
