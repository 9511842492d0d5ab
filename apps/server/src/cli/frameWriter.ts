import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { type Op, type Rate, type Reel, type ReelScene, sameMoments, sequenceName } from '@fresh-reel/core';
import { createNodeSurface, type NodeStudio, pngOf } from '@fresh-reel/node-host';

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
   * Writes some frames, counted from the render's first; a frame like the one before it is not painted anew.
   * @throws {Error} when a frame of a clip cannot be had, or a file not be written
   */
  async write(first: number, count: number, onFrame: () => void): Promise<void> {
    const { job, scene, studio } = this;
    const running = new Set<Promise<void>>();
    let last: { moments: readonly (readonly Op[])[]; png: Promise<Buffer> } | undefined;
    for (let i = first; i < first + count; i++) {
      const moments = scene.subFrames(job.from + i, job.rate).map((f) => f.ops);
      if (!last || !sameMoments(last.moments, moments)) {
        await studio.framesReady(moments);
        const surface = createNodeSurface(job.size.width, job.size.height);
        studio.painter.paintMoments(moments, surface, scene.frame);
        last = { moments, png: pngOf(surface) };
      }
      const { png } = last;
      const task = png
        .then((bytes) => writeFile(join(job.folder, sequenceName(job.stem, i, job.count)), bytes))
        .then(onFrame);
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
