import {
  FRAMES,
  openDocument,
  type RenderPlan,
  secondsAt,
  templateKind,
  videoBitrate,
} from '@fresh-reel/core';
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
import { type BrowserStudio, fetchBytes, surfaceOf } from '../../apps/studio/src/engine/browserStudio';
import { OpaqueFilm } from '../../apps/studio/src/engine/opaqueFilm';
import { PaintCrew } from '../../apps/studio/src/render/workers/paintCrew';
import { sceneOf } from './scene';
import twoLines from './two-lines.json';

const RATE = { num: 60000, den: 1001 };
const { width, height } = FRAMES.wide;

const settings = {
  codec: 'avc',
  quality: new Quality({ bitrate: videoBitrate(FRAMES.wide, RATE) }),
  keyFrameInterval: 2,
} as const;

/** Adds a frame, which stays. */
async function add(source: VideoSampleSource, frame: VideoFrame, index: number): Promise<void> {
  const times = { timestamp: secondsAt(index, RATE), duration: secondsAt(1, RATE) };
  const sample = new VideoSample(frame.clone(), times);
  await source.add(sample);
  sample.close();
}

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
  const film = new OpaqueFilm(maker, FRAMES.wide, scene.frame);
  const frameOf = (i: number) =>
    film.painted([scene.frameAt(i, RATE).ops], (moments, on, place) =>
      studio.painter.paintMoments(moments, on, scene.frame, place),
    );
  const ready: VideoFrame[] = [];
  for (let i = 0; i < 30; i++) ready.push(await frameOf(i * 2));
  const count = 120;
  const ways = {
    alone: () =>
      encoded(new VideoSampleSource(settings), count, (s, i) => add(s, ready[i % ready.length]!, i)),
    render: () =>
      encoded(new VideoSampleSource(settings), count, async (s, i) => {
        const frame = await frameOf(i);
        await add(s, frame, i);
        frame.close();
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

export interface CrewFigures {
  /**
   * Frames a second: rendered with one painter, with all others given, painted by those alone; and the encoder alone, on
   * all of the same frames.
   */
  readonly one: number;
  readonly all: number;
  readonly painting: number;
  readonly alone: number;
  readonly painters: number;
}

/** Frames that are rendered at most: as long as titles are, and no more than memory holds. */
const MOST_FRAMES = 360;

/** A template rendered at full HD as in the app, by one worker that paints and by all others that are given. */
export async function crew(
  studio: BrowserStudio,
  template: string,
  painters: readonly MessagePort[],
): Promise<CrewFigures> {
  const scene = await sceneOf(
    studio,
    template === twoLines.id ? openDocument(templateKind, twoLines) : templateById(template),
  );
  const sizes = scene.media().flatMap((id) => {
    const facts = studio.mediaFacts(id);
    return facts && facts.duration === undefined ? [[id, facts] as const] : [];
  });
  const count = Math.min(MOST_FRAMES, scene.frameCount(RATE));
  const plan: RenderPlan<'mp4'> = {
    format: 'mp4',
    width,
    height,
    rate: RATE,
    from: 0,
    count,
    fileName: 'bench.mp4',
  };
  const kept: VideoFrame[] = [];
  /** Begun: starting the painters, with their fonts and pictures, is not what is measured. */
  const begun = async (ports: readonly MessagePort[]) => {
    const shared = new PaintCrew({ reel: scene.reel, plan, sizes, fonts: [] }, count, ports);
    const first = (await shared.take()) as VideoFrame;
    return async (i: number) => (i === 0 ? first : ((await shared.take()) as VideoFrame));
  };
  const rendered = async (ports: readonly MessagePort[], keep = false) => {
    const take = await begun(ports);
    return encoded(new VideoSampleSource(settings), count, async (source, i) => {
      const frame = await take(i);
      if (keep) kept.push(frame.clone());
      await add(source, frame, i);
    });
  };
  const [first, ...others] = painters;
  const one = await rendered([first!], true);
  const all = await rendered(others);
  const take = await begun(others);
  const start = performance.now();
  for (let i = 0; i < count; i++) await take(i);
  const painting = (count * 1000) / (performance.now() - start);
  const alone = await encoded(new VideoSampleSource(settings), count, (source, i) =>
    add(source, kept[i]!, i),
  );
  for (const frame of kept) frame.close();
  return { one, all, painting, alone, painters: others.length };
}
