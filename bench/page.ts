/**
 * What is measured inside the browser, in a worker as in the app. Each figure comes with what it is held against,
 * taken in the same run.
 */
import {
  COMING,
  clipFramesOf,
  EMPTY_FILL,
  FRAMES,
  newReel,
  openDocument,
  ReelScene,
  STANDING,
  secondsAt,
  setMotionBlur,
  type Template,
  templateKind,
  videoBitrate,
} from '@fresh-reel/core';
import { assetFile, TEMPLATES, templateById } from '@fresh-reel/templates';
import { BufferTarget, CanvasSource, Mp4OutputFormat, Output, Quality } from 'mediabunny';
import { BrowserStudio, surfaceOf } from '../apps/studio/src/engine/browserStudio';
import { at } from './figures';
import fourLines from './four-lines.json';
import { adding, clipPreview, clipRender, firstThumb, longClip } from './media';

export interface PreviewFigures {
  readonly id: string;
  /** Milliseconds a frame, 95th percentile and median. */
  readonly p95: number;
  readonly median: number;
  readonly evaluateP95: number;
}

const PREVIEW = { width: 960, height: 540 };

async function sceneOf(studio: BrowserStudio, template: Template): Promise<ReelScene> {
  const reel = newReel(template, { id: 'bench', name: 'Bench', now: '', shape: 'wide', fill: EMPTY_FILL });
  const scene = new ReelScene(reel, studio);
  await studio.loadFonts(scene);
  for (const id of scene.media()) {
    if (await studio.openClip(id)) continue;
    const response = await fetch(`/bench-pictures/${assetFile(id).replace('.svg', '.png')}`);
    const bitmap = await createImageBitmap(await response.blob());
    studio.addPicture(id, { bitmap, width: bitmap.width, height: bitmap.height });
  }
  return scene;
}

/** Every frame of a template, evaluated, painted and read back, so that deferred painting counts. */
async function preview(studio: BrowserStudio, scene: ReelScene, id: string): Promise<PreviewFigures> {
  const surface = surfaceOf(new OffscreenCanvas(PREVIEW.width, PREVIEW.height));
  const all: number[] = [];
  const evaluating: number[] = [];
  const count = scene.frameCount(scene.reel.rate);
  for (let round = 0; round < 2; round++) {
    for (let n = 0; n < count; n += 2) {
      const start = performance.now();
      const { ops } = scene.frameAt(n, scene.reel.rate);
      const evaluated = performance.now();
      await studio.framesReady(clipFramesOf([ops]));
      studio.painter.paint(ops, surface, scene.frame);
      surface.context.getImageData(0, 0, 1, 1);
      if (round === 0) continue;
      all.push(performance.now() - start);
      evaluating.push(evaluated - start);
    }
  }
  all.sort((a, b) => a - b);
  evaluating.sort((a, b) => a - b);
  return { id, p95: at(all, 0.95), median: at(all, 0.5), evaluateP95: at(evaluating, 0.95) };
}

/** Frames a second of encoding a lower third at full HD: the whole render, and the encoder alone on ready frames. */
async function encode(studio: BrowserStudio): Promise<{ render: number; alone: number }> {
  const scene = await sceneOf(studio, templateById('name-strap'));
  const rate = { num: 60000, den: 1001 };
  const size = FRAMES.wide;
  const count = 120;
  const run = async (paint: (canvas: OffscreenCanvas, i: number) => void) => {
    const canvas = new OffscreenCanvas(size.width, size.height);
    const output = new Output({ format: new Mp4OutputFormat(), target: new BufferTarget() });
    const source = new CanvasSource(canvas, {
      codec: 'avc',
      quality: new Quality({ bitrate: videoBitrate(size, rate) }),
      keyFrameInterval: 2,
    });
    output.addVideoTrack(source, { frameRate: rate.num / rate.den });
    await output.start();
    const start = performance.now();
    for (let i = 0; i < count; i++) {
      paint(canvas, i);
      await source.add(secondsAt(i, rate), secondsAt(1, rate));
    }
    await output.finalize();
    return (count * 1000) / (performance.now() - start);
  };
  const ready: ImageBitmap[] = [];
  const sheet = new OffscreenCanvas(size.width, size.height);
  const surface = surfaceOf(sheet);
  for (let i = 0; i < 30; i++) {
    studio.painter.paint(scene.frameAt(i * 2, rate).ops, surface, scene.frame);
    ready.push(await createImageBitmap(sheet));
  }
  const alone = () => run((canvas, i) => canvas.getContext('2d')!.drawImage(ready[i % ready.length]!, 0, 0));
  const render = () =>
    run((canvas, i) => studio.painter.paint(scene.frameAt(i, rate).ops, surfaceOf(canvas), scene.frame));
  await alone();
  const pairs: { alone: number; render: number }[] = [];
  for (let i = 0; i < 2; i++) pairs.push({ alone: await alone(), render: await render() });
  const mean = (pick: (p: { alone: number; render: number }) => number) =>
    pairs.reduce((s, p) => s + pick(p), 0) / pairs.length;
  return { render: mean((p) => p.render), alone: mean((p) => p.alone) };
}

/** Four lines of words that come, or stand, by one kind of motion each, letter by letter. */
function linesMovedBy(motion: object): Template {
  const [words] = fourLines.layers;
  return openDocument(templateKind, { ...fourLines, version: 2, layers: [{ ...words, motion }] });
}

/** What each kind of motion costs in a frame: letter by letter, while all of the letters are on their way. */
async function kinds(studio: BrowserStudio): Promise<PreviewFigures[]> {
  const start = { at: 0, of: 'in' as const };
  const coming = COMING.map((kind) => {
    const moved = { ...kind.make(), unit: 'letter', start, stagger: 0.5, length: 60 };
    return [`comes-${kind.id}`, { in: [moved] }] as const;
  });
  const standing = STANDING.map((kind) => {
    return [`stands-${kind.id}`, { during: [{ ...kind.make(), unit: 'letter' }] }] as const;
  });
  const figures: PreviewFigures[] = [];
  for (const [id, motion] of [...coming, ...standing]) {
    figures.push(await preview(studio, await sceneOf(studio, linesMovedBy(motion)), id));
  }
  return figures;
}

/** Milliseconds of a frame of four lines on their way, sharp and as the mean of eight moments. */
async function motionBlur(studio: BrowserStudio): Promise<{ sharp: number; blurred: number }> {
  const { reel } = await sceneOf(studio, openDocument(templateKind, fourLines));
  const scene = new ReelScene(setMotionBlur(reel, { samples: 8, shutter: 0.5 }), studio);
  const surface = surfaceOf(new OffscreenCanvas(PREVIEW.width, PREVIEW.height));
  const times = { sharp: [] as number[], blurred: [] as number[] };
  for (let round = 0; round < 2; round++) {
    for (let n = 0; n < 80; n += 2) {
      for (const way of ['sharp', 'blurred'] as const) {
        const began = performance.now();
        const frames = way === 'sharp' ? [scene.frameAt(n, reel.rate)] : scene.subFrames(n, reel.rate);
        studio.painter.paintMoments(
          frames.map((f) => f.ops),
          surface,
          scene.frame,
        );
        surface.context.getImageData(0, 0, 1, 1);
        if (round > 0) times[way].push(performance.now() - began);
      }
    }
  }
  const median = (list: number[]) =>
    at(
      list.sort((a, b) => a - b),
      0.5,
    );
  return { sharp: median(times.sharp), blurred: median(times.blurred) };
}

const OF_FILES = {
  adding,
  'first-thumb': firstThumb,
  'one-clip': (studio: BrowserStudio, file: File) => clipPreview(studio, file, 1),
  'three-clips': (studio: BrowserStudio, file: File) => clipPreview(studio, file, 3),
  'clip-render': clipRender,
  'long-clip': (studio: BrowserStudio, file: File) =>
    longClip(studio, file, () => postMessage({ tenth: true })),
} as const;

async function measure(what: string, file: File | undefined): Promise<unknown> {
  const studio = await BrowserStudio.start();
  if (file) return OF_FILES[what as keyof typeof OF_FILES](studio, file);
  if (what === 'encode') return encode(studio);
  if (what === 'kinds') return kinds(studio);
  if (what === 'motion-blur') return motionBlur(studio);
  const templates = what === 'four-lines' ? [openDocument(templateKind, fourLines)] : TEMPLATES;
  const figures: PreviewFigures[] = [];
  for (const template of templates)
    figures.push(await preview(studio, await sceneOf(studio, template), template.id));
  return figures;
}

self.onmessage = async ({ data }: MessageEvent<{ what: string; file?: File }>) => {
  try {
    postMessage({ value: await measure(data.what, data.file) });
  } catch (error) {
    postMessage({ fault: String((error as Error).stack ?? error) });
  }
};
