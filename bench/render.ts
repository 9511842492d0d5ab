import { FRAMES, type RenderPlan, secondsAt, videoBitrate } from '@fresh-reel/core';
import { PlaneMaker } from '@fresh-reel/pixels';
import { templateById } from '@fresh-reel/templates';
import {
  BufferTarget,
  CanvasSource,
  Mp4OutputFormat,
  Output,
  Quality,
  VideoSample,
  VideoSampleSource,
} from 'mediabunny';
import { type BrowserStudio, fetchBytes, surfaceOf } from '../apps/studio/src/engine/browserStudio';
import { PaintCrew } from '../apps/studio/src/render/paintCrew';
import { samplePicture, sceneOf } from './scene';

const RATE = { num: 60000, den: 1001 };
const { width, height } = FRAMES.wide;

const settings = {
  codec: 'avc',
  quality: new Quality({ bitrate: videoBitrate(FRAMES.wide, RATE) }),
  keyFrameInterval: 2,
} as const;

const plane = (planes: Uint8Array, index: number) =>
  new VideoSample(planes, {
    ...{ format: 'I420', codedWidth: width, codedHeight: height },
    ...{ timestamp: secondsAt(index, RATE), duration: secondsAt(1, RATE) },
    colorSpace: { primaries: 'bt709', transfer: 'bt709', matrix: 'bt709', fullRange: false },
  });

/** Frames a second of an encoder that is given frames one after the other. */
async function encoded<S extends CanvasSource | VideoSampleSource>(
  source: S,
  count: number,
  give: (source: S, index: number) => Promise<void>,
): Promise<number> {
  const output = new Output({ format: new Mp4OutputFormat(), target: new BufferTarget() });
  output.addVideoTrack(source, { frameRate: RATE.num / RATE.den });
  await output.start();
  const start = performance.now();
  for (let i = 0; i < count; i++) await give(source, i);
  await output.finalize();
  return (count * 1000) / (performance.now() - start);
}

const mean = (list: readonly number[]) => list.reduce((s, v) => s + v, 0) / list.length;

/**
 * Frames a second of a lower third at full HD: rendered as planes, rendered from the canvas itself (as the encoder
 * would turn it, in full range), and the encoder alone on planes that are ready.
 */
export async function encode(
  studio: BrowserStudio,
): Promise<{ render: number; canvas: number; alone: number }> {
  const scene = await sceneOf(studio, templateById('name-strap'));
  const maker = await PlaneMaker.load(await fetchBytes('/engine/pixels.wasm', 'The pixel kernel'));
  const sheet = new OffscreenCanvas(width, height);
  const surface = surfaceOf(sheet);
  const paint = (i: number) => studio.painter.paint(scene.frameAt(i, RATE).ops, surface, scene.frame);
  const planesOf = () =>
    maker.planes(surface.context.getImageData(0, 0, width, height).data, width, height, false);
  const ready = Array.from({ length: 30 }, (_, i) => {
    paint(i * 2);
    return planesOf().slice();
  });
  const add = async (source: VideoSampleSource, sample: VideoSample) => {
    await source.add(sample);
    sample.close();
  };
  const count = 120;
  const ways = {
    alone: () =>
      encoded(new VideoSampleSource(settings), count, (s, i) => add(s, plane(ready[i % ready.length]!, i))),
    render: () =>
      encoded(new VideoSampleSource(settings), count, (s, i) => {
        paint(i);
        return add(s, plane(planesOf(), i));
      }),
    canvas: () =>
      encoded(new CanvasSource(sheet, settings), count, (s, i) => {
        paint(i);
        return s.add(secondsAt(i, RATE), secondsAt(1, RATE));
      }),
  };
  await ways.alone();
  const found = { alone: [] as number[], render: [] as number[], canvas: [] as number[] };
  for (let i = 0; i < 3; i++) {
    for (const way of ['alone', 'render', 'canvas'] as const) found[way].push(await ways[way]());
  }
  return { render: mean(found.render), canvas: mean(found.canvas), alone: mean(found.alone) };
}

/**
 * Frames a second of the wall of pictures at full HD, painted by one worker and by all that are given, each encoded as
 * in the app; and of the encoder alone on those frames.
 */
export async function crew(
  studio: BrowserStudio,
  painters: readonly MessagePort[],
): Promise<{ one: number; all: number; alone: number; painters: number }> {
  const scene = await sceneOf(studio, templateById('drift-wall'));
  const pictures = await Promise.all(
    scene
      .media()
      .filter((id) => studio.mediaFacts(id)?.duration === undefined)
      .map(async (id) => [id, await samplePicture(id)] as const),
  );
  const count = 96;
  const plan: RenderPlan = {
    format: 'mp4',
    width,
    height,
    rate: RATE,
    from: 60,
    count,
    fileName: 'bench.mp4',
  };
  const kept: Uint8Array[] = [];
  const run = async (ports: readonly MessagePort[], keep = false) => {
    const shared = new PaintCrew({ reel: scene.reel, plan, pictures, fonts: [] }, count, ports);
    // Starting the painters, with their fonts and pictures, is not what is measured.
    const first = new Uint8Array((await shared.take()) as ArrayBuffer).slice();
    return encoded(new VideoSampleSource(settings), count, async (source, i) => {
      const planes = i === 0 ? first : new Uint8Array((await shared.take()) as ArrayBuffer);
      if (keep && i % 6 === 0) kept.push(planes.slice());
      const sample = plane(planes, i);
      await source.add(sample);
      sample.close();
    });
  };
  const [first, ...others] = painters;
  const one = await run([first!], true);
  const all = await run(others);
  const alone = await encoded(new VideoSampleSource(settings), count, async (source, i) => {
    const sample = plane(kept[i % kept.length]!, i);
    await source.add(sample);
    sample.close();
  });
  return { one, all, alone, painters: others.length };
}
