import '../../workers/alive';
import {
  browserFilm,
  formatFacts,
  messageOf,
  movingPicture,
  type Op,
  type ReelScene,
  sameMoments,
} from '@fresh-reel/core';
import { PlaneMaker } from '@fresh-reel/pixels';
import { fetchBytes, surfaceOf } from '../../engine/browserStudio';
import { OpaqueFilm, videoFrame } from '../../engine/opaqueFilm';
import type { FromPaint, PaintedFrame, PaintJob, ToPaint, ToPainter } from './paintMessages';
import { askForPicture, pictureGiven, SuppliedStudio } from './suppliedStudio';

let port: MessagePort | undefined;
const tell = (message: FromPaint, transfer: Transferable[] = []) => port?.postMessage(message, transfer);

/** Of 1: letters stay sharp, and a file stays small enough to be sent around. */
const WEBP_QUALITY = 0.9;

/** Pixels that came back, to be written again. */
const free: ArrayBuffer[] = [];

type Moments = readonly (readonly Op[])[];

/** A frame as its format takes it. */
type Frame = NonNullable<PaintedFrame>;

/** Makes frames as a format takes them. */
type Maker = (moments: Moments) => Promise<Frame>;

/** Paints frames of one render and hands them over as their format takes them. */
class RenderPainter {
  private last: Moments | undefined;

  private constructor(
    private readonly scene: ReelScene,
    private readonly job: PaintJob,
    private readonly make: Maker,
  ) {}

  static async start(job: PaintJob): Promise<RenderPainter> {
    const { plan, reel } = job;
    const studio = await SuppliedStudio.start(
      job,
      Math.max(plan.width, plan.height),
      askForPicture,
      plan.draft,
    );
    const scene = studio.sceneOf(reel);
    const film = browserFilm(plan.format) !== undefined;
    const make = film ? await filmMaker(studio, scene, plan) : pictureMaker(studio, scene, plan);
    return new RenderPainter(scene, job, make);
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
      const frame = same ? undefined : await this.make(moments);
      tell({ type: 'painted', index, frame }, frame === undefined || frame instanceof Blob ? [] : [frame]);
    }
  }

  private momentsOf(index: number): Moments {
    const { plan } = this.job;
    return this.scene.subFrames(plan.from + frameAt(this.job, index), plan.rate).map((f) => f.ops);
  }
}

type Plan = PaintJob['plan'];

/** Planes of a film. What keeps no transparency stands on black. */
async function filmMaker(studio: SuppliedStudio, scene: ReelScene, plan: Plan): Promise<Maker> {
  const planes = await PlaneMaker.load(
    await fetchBytes('/engine/pixels.wasm', 'The part that prepares video frames'),
  );
  if (formatFacts(plan.format).alpha === true && scene.transparent) {
    const { width, height } = plan;
    const surface = surfaceOf(new OffscreenCanvas(width, height));
    return async (moments) => {
      await studio.paint(moments, surface, scene.frame);
      const { data } = surface.context.getImageData(0, 0, width, height);
      return videoFrame(planes.planes(data, width, height, true), plan, true);
    };
  }
  const film = new OpaqueFilm(planes, plan, scene.frame);
  return (moments) =>
    film.painted(moments, (shown, surface, place) => studio.paint(shown, surface, scene.frame, place));
}

/** Pixels of a GIF, and files of any other picture. */
function pictureMaker(studio: SuppliedStudio, scene: ReelScene, { format, width, height }: Plan): Maker {
  const canvas = new OffscreenCanvas(width, height);
  const surface = surfaceOf(canvas);
  const moving = movingPicture(format);
  return async (moments) => {
    await studio.paint(moments, surface, scene.frame);
    if (moving === 'gif') return handedOver(surface.context.getImageData(0, 0, width, height).data);
    return canvas.convertToBlob(
      moving === 'webp' ? { type: 'image/webp', quality: WEBP_QUALITY } : { type: 'image/png' },
    );
  };
}

/** Bytes in a buffer that can be sent away. */
function handedOver(bytes: Uint8Array | Uint8ClampedArray): ArrayBuffer {
  const buffer = free.pop() ?? new ArrayBuffer(bytes.length);
  new Uint8Array(buffer).set(bytes);
  return buffer;
}

/** The frame of the plan that is painted as number `index`. */
const frameAt = ({ sample }: PaintJob, index: number): number => sample?.[index] ?? index;

/** Whether a frame comes right after the one that was painted before it. */
const follows = (job: PaintJob, index: number): boolean =>
  frameAt(job, index) === frameAt(job, index - 1) + 1;

let painter: Promise<RenderPainter> | undefined;

/** Ends when all stretches are painted that were asked for. */
let painting: Promise<void> = Promise.resolve();

async function receive(message: ToPaint): Promise<void> {
  if (message.type === 'start') painter = RenderPainter.start(message);
  else if (message.type === 'back') free.push(message.pixels);
  else {
    painting = painting.then(async () => (await painter)?.paint(message.first, message.count));
    await painting;
  }
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
