import {
  browserFilm,
  formatFacts,
  messageOf,
  movingPicture,
  type Op,
  type ReelScene,
  type Surface,
  sameMoments,
} from '@fresh-reel/core';
import { PlaneMaker } from '@fresh-reel/pixels';
import { fetchBytes, surfaceOf } from '../engine/browserStudio';
import { opaquePlanes } from '../engine/opaquePlanes';
import type { FromPaint, PaintedFrame, PaintJob, ToPaint, ToPainter } from './paintMessages';
import { askForPicture, pictureGiven, SuppliedStudio } from './suppliedStudio';

let port: MessagePort | undefined;
const tell = (message: FromPaint, transfer: Transferable[] = []) => port?.postMessage(message, transfer);

/** Of 1: letters stay sharp, and a file stays small enough to be sent around. */
const WEBP_QUALITY = 0.9;

/** Planes and pixels that came back, to be written again. */
const free: ArrayBuffer[] = [];

/** Paints frames of one render and hands them over as their format takes them. */
class RenderPainter {
  private last: readonly (readonly Op[])[] | undefined;

  private constructor(
    private readonly studio: SuppliedStudio,
    private readonly scene: ReelScene,
    private readonly job: PaintJob,
    private readonly canvas: OffscreenCanvas,
    private readonly surface: Surface,
    /** Of videos alone. */
    private readonly planes: PlaneMaker | undefined,
  ) {}

  static async start(job: PaintJob): Promise<RenderPainter> {
    const { plan, reel } = job;
    const side = Math.max(plan.width, plan.height);
    const studio = await SuppliedStudio.start(job, side, askForPicture, plan.draft);
    const scene = studio.sceneOf(reel);
    const video = browserFilm(plan.format) !== undefined;
    const planes = video
      ? await PlaneMaker.load(await fetchBytes('/engine/pixels.wasm', 'The part that prepares video frames'))
      : undefined;
    const canvas = new OffscreenCanvas(plan.width, plan.height);
    return new RenderPainter(studio, scene, job, canvas, surfaceOf(canvas), planes);
  }

  /** Frames from one on, each told as soon as it is there. */
  async paint(first: number, count: number): Promise<void> {
    // The frame before is another painter's; a frame that is like it is not painted.
    this.last =
      first > (this.job.first ?? 0) && follows(this.job, first) ? this.momentsOf(first - 1) : undefined;
    for (let index = first; index < first + count; index++) {
      const moments = this.momentsOf(index);
      const same = this.last !== undefined && sameMoments(this.last, moments);
      this.last = moments;
      if (same) {
        tell({ type: 'painted', index, frame: undefined });
        continue;
      }
      await this.studio.paint(moments, this.surface, this.scene.frame);
      const frame = await this.frame();
      tell({ type: 'painted', index, frame }, frame instanceof ArrayBuffer ? [frame] : []);
    }
  }

  private momentsOf(index: number): readonly (readonly Op[])[] {
    const { plan } = this.job;
    return this.scene.subFrames(plan.from + frameAt(this.job, index), plan.rate).map((f) => f.ops);
  }

  /** What is on the canvas, as its format takes it. */
  private async frame(): Promise<NonNullable<PaintedFrame>> {
    if (this.planes) return this.videoFrame(this.planes);
    const moving = movingPicture(this.job.plan.format);
    if (moving === 'gif') {
      const { width, height } = this.canvas;
      return handedOver(this.surface.context.getImageData(0, 0, width, height).data);
    }
    return this.canvas.convertToBlob(
      moving === 'webp' ? { type: 'image/webp', quality: WEBP_QUALITY } : { type: 'image/png' },
    );
  }

  private async videoFrame(planes: PlaneMaker): Promise<ArrayBuffer> {
    const { width, height } = this.canvas;
    const { context } = this.surface;
    const alpha = keepsAlpha(this.job, this.scene);
    if (!alpha) {
      // What has no transparency stands on black.
      context.globalCompositeOperation = 'destination-over';
      context.fillStyle = '#000000';
      context.fillRect(0, 0, width, height);
      context.globalCompositeOperation = 'source-over';
    }
    const made = alpha
      ? planes.planes(context.getImageData(0, 0, width, height).data, width, height, true)
      : await opaquePlanes(planes, this.canvas, this.surface);
    return handedOver(made);
  }
}

/** Bytes in a buffer that can be sent away. */
function handedOver(bytes: Uint8Array | Uint8ClampedArray): ArrayBuffer {
  const buffer = free.pop() ?? new ArrayBuffer(bytes.length);
  new Uint8Array(buffer).set(bytes);
  return buffer;
}

function keepsAlpha({ plan }: PaintJob, scene: ReelScene): boolean {
  return (
    browserFilm(plan.format) !== undefined && formatFacts(plan.format).alpha === true && scene.transparent
  );
}

/** The frame of the plan that is painted as number `index`. */
const frameAt = ({ sample }: PaintJob, index: number): number => sample?.[index] ?? index;

/** Whether a frame comes right after the one that was painted before it. */
const follows = (job: PaintJob, index: number): boolean =>
  frameAt(job, index) === frameAt(job, index - 1) + 1;

let painter: Promise<RenderPainter> | undefined;

async function receive(message: ToPaint): Promise<void> {
  if (message.type === 'start') painter = RenderPainter.start(message);
  else if (message.type === 'back') free.push(message.planes);
  else await (await painter)?.paint(message.first, message.count);
}

self.onmessage = ({ data }: MessageEvent<ToPainter>) => {
  if (data.type === 'picture') {
    pictureGiven(data.id, data.picture);
    return;
  }
  port = data.port;
  port.onmessage = (event: MessageEvent<ToPaint>) => {
    receive(event.data).catch((error: unknown) => tell({ type: 'fault', message: messageOf(error) }));
  };
};
