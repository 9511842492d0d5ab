/**
 * What is measured inside the browser, in a worker as in the app. Each figure comes with what it is held against,
 * taken in the same run.
 */
import {
  COMING,
  clipFramesOf,
  openDocument,
  ReelScene,
  STANDING,
  setMotionBlur,
  type Template,
  templateKind,
} from '@fresh-reel/core';
import { allTemplates } from '@fresh-reel/templates';
import { BrowserStudio, surfaceOf } from '../../apps/studio/src/engine/browserStudio';
import families from './families.json';
import { at } from './figures';
import fourLines from './four-lines.json';
import { adding, clipPreview, clipRender, firstThumb, longClip } from './media';
import { followFigures, longReelFigures } from './place';
import { crew, encode } from './render';
import { sceneOf } from './scene';

export interface PreviewFigures {
  readonly id: string;
  /** Milliseconds a frame, 95th percentile and median, at the pace the machine had when the budgets were set. */
  readonly p95: number;
  readonly median: number;
  readonly evaluateP95: number;
  /** As it was measured, at the pace of just now. */
  readonly rawP95: number;
  /** Milliseconds of a final frame at 1080p, the middle of some. */
  readonly final: number;
}

const PREVIEW = { width: 960, height: 540 };
const FINAL = { width: 1920, height: 1080 };
/** Frames of a final that are timed, spread over all of it. */
const FINALS = 12;

/** The middle of what frames of a final take, with all that a draft does without. */
async function finalCost(studio: BrowserStudio, scene: ReelScene): Promise<number> {
  const surface = surfaceOf(new OffscreenCanvas(FINAL.width, FINAL.height));
  const count = scene.frameCount(scene.reel.rate);
  const times: number[] = [];
  for (let i = 0; i < FINALS; i++) {
    const start = performance.now();
    const { ops } = scene.frameAt(Math.floor(((i + 0.5) * count) / FINALS), scene.reel.rate);
    await studio.framesReady(clipFramesOf([ops]));
    studio.painter.paint(ops, surface, scene.frame);
    surface.context.getImageData(0, 0, 1, 1);
    times.push(performance.now() - start);
  }
  return at(
    times.sort((a, b) => a - b),
    0.5,
  );
}

/** Milliseconds of 4,000 separate lines when the budgets were set (docs/architecture.md). */
const LINES_THEN = 30;

/**
 * How slow this machine is just now, as a multiple of what it was when the budgets were set: 4,000 separate lines, drawn
 * and read back. What else runs on the machine beneath changes that from second to second, by two and more.
 */
function slowness(): number {
  const { context } = surfaceOf(new OffscreenCanvas(PREVIEW.width, PREVIEW.height));
  const start = performance.now();
  for (let i = 0; i < 4000; i++) {
    context.beginPath();
    context.moveTo((i * 37) % PREVIEW.width, (i * 53) % PREVIEW.height);
    context.lineTo(((i + 9) * 37) % PREVIEW.width, ((i + 9) * 53) % PREVIEW.height);
    (context as unknown as CanvasRenderingContext2D).stroke();
  }
  context.getImageData(0, 0, 1, 1);
  return (performance.now() - start) / LINES_THEN;
}

/** Frames of a preview after which the machine's pace is taken again. */
const PACED = 12;

/**
 * Every frame of a template, evaluated, painted and read back, so that deferred painting counts; each against the pace
 * of the machine around it.
 */
async function preview(studio: BrowserStudio, scene: ReelScene, id: string): Promise<PreviewFigures> {
  const surface = surfaceOf(new OffscreenCanvas(PREVIEW.width, PREVIEW.height));
  const whole: number[] = [];
  const evaluating: number[] = [];
  const raw: number[] = [];
  const count = scene.frameCount(scene.reel.rate);
  // As a preview that plays is painted, where the machine cannot do all of it.
  studio.painter.draft = true;
  for (let round = 0; round < 2; round++) {
    let pace = slowness();
    let run: { whole: number; evaluating: number }[] = [];
    const settle = () => {
      const next = slowness();
      for (const frame of run) {
        whole.push((2 * frame.whole) / (pace + next));
        evaluating.push((2 * frame.evaluating) / (pace + next));
        raw.push(frame.whole);
      }
      [pace, run] = [next, []];
    };
    let { ops: next } = scene.frameAt(0, scene.reel.rate);
    let coming = studio.framesReady(clipFramesOf([next]));
    for (let n = 0; n < count; n += 2) {
      // As in the app, clips are decoded beside, and a picture does not wait for them.
      await coming;
      const ops = next;
      const start = performance.now();
      next = scene.frameAt(Math.min(n + 2, count - 1), scene.reel.rate).ops;
      const evaluated = performance.now();
      coming = studio.framesReady(clipFramesOf([next]));
      studio.painter.paint(ops, surface, scene.frame);
      surface.context.getImageData(0, 0, 1, 1);
      if (round === 0) continue;
      run.push({ whole: performance.now() - start, evaluating: evaluated - start });
      if (run.length === PACED) settle();
    }
    if (round > 0) settle();
  }
  studio.painter.draft = false;
  for (const times of [whole, evaluating, raw]) times.sort((a, b) => a - b);
  return {
    id,
    p95: at(whole, 0.95),
    median: at(whole, 0.5),
    evaluateP95: at(evaluating, 0.95),
    rawP95: at(raw, 0.95),
    final: await finalCost(studio, scene),
  };
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

/** What previews of templates cost, one after the other. */
async function previews(studio: BrowserStudio, templates: readonly Template[]): Promise<PreviewFigures[]> {
  const figures: PreviewFigures[] = [];
  for (const template of templates)
    figures.push(await preview(studio, await sceneOf(studio, template), template.id));
  return figures;
}

const opened = (sources: readonly unknown[]) => sources.map((data) => openDocument(templateKind, data));

/** From the page. */
interface Asked {
  readonly what: keyof Measures;
  /** Templates that are measured, where not all are. */
  readonly of?: readonly string[] | undefined;
  readonly file?: File | undefined;
  /** Ports to workers that paint. */
  readonly painters: readonly MessagePort[];
}

/** All that can be measured here, by name. */
const MEASURES = {
  adding: (studio: BrowserStudio, { file }: Asked) => adding(studio, file!),
  'first-thumb': (studio: BrowserStudio, { file }: Asked) => firstThumb(studio, file!),
  'one-clip': (studio: BrowserStudio, { file }: Asked) => clipPreview(studio, file!, 1),
  'three-clips': (studio: BrowserStudio, { file }: Asked) => clipPreview(studio, file!, 3),
  'clip-render': (studio: BrowserStudio, { file }: Asked) => clipRender(studio, file!),
  'long-clip': (studio: BrowserStudio, { file }: Asked) =>
    longClip(studio, file!, () => postMessage({ tenth: true })),
  encode,
  crew: (studio: BrowserStudio, { of, painters }: Asked) => crew(studio, of![0]!, painters),
  kinds,
  'long-reel': longReelFigures,
  follow: followFigures,
  'motion-blur': motionBlur,
  'four-lines': (studio: BrowserStudio) => previews(studio, opened([fourLines])),
  families: (studio: BrowserStudio) => previews(studio, opened(families)),
  templates: (studio: BrowserStudio, { of }: Asked) =>
    previews(
      studio,
      allTemplates().filter(({ id }) => of === undefined || of.includes(id)),
    ),
};
export type Measures = typeof MEASURES;

self.onmessage = async ({ data }: MessageEvent<Asked>) => {
  try {
    const measure: (studio: BrowserStudio, asked: Asked) => unknown = MEASURES[data.what];
    postMessage({ value: await measure(await BrowserStudio.start(), data) });
  } catch (error) {
    postMessage({ fault: String((error as Error).stack ?? error) });
  }
};
