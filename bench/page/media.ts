/** What the user's own files cost, in a worker as in the app: taking them in, showing them, rendering them. */
import {
  clipFramesOf,
  type Graphic,
  newReel,
  openDocument,
  ReelScene,
  secondsAt,
  templateKind,
  videoBitrate,
} from '@fresh-reel/core';
import {
  ALL_FORMATS,
  BlobSource,
  BufferTarget,
  CanvasSource,
  Input,
  Mp4OutputFormat,
  Output,
  Quality,
  VideoSampleSink,
} from 'mediabunny';
import { hashOf, piecesOf } from '../../apps/studio/src/disk/hash';
import { type BrowserStudio, surfaceOf } from '../../apps/studio/src/engine/browserStudio';
import { probe } from '../../apps/studio/src/media/import/probe';
import { keepPreview, makePreview, takeIn } from '../../apps/studio/src/media/import/takeIn';
import { mediaId } from '../../apps/studio/src/storage/media';
import { at } from './figures';

const RATE = { num: 30, den: 1 };
const PREVIEW = { width: 960, height: 540 };

async function seconds(work: () => Promise<unknown>): Promise<number> {
  const start = performance.now();
  await work();
  return (performance.now() - start) / 1000;
}

/** MB a second of taking a file in, and of reading and hashing it alone. Each is done twice; the second counts. */
export async function adding(_: BrowserStudio, file: File): Promise<{ adding: number; hashing: number }> {
  const megabytes = file.size / 1e6;
  await hashOf(piecesOf(file));
  const hashing = await seconds(() => hashOf(piecesOf(file)));
  const adding = await seconds(() => takeIn({ file }, () => undefined));
  return { adding: megabytes / adding, hashing: megabytes / hashing };
}

/** Milliseconds until a clip's small picture is there, and to decode that frame alone. */
export async function firstThumb(_: BrowserStudio, file: File): Promise<{ thumb: number; decode: number }> {
  const decode = async () => {
    const input = new Input({ formats: ALL_FORMATS, source: new BlobSource(file) });
    const track = (await input.getPrimaryVideoTrack())!;
    const sample = await new VideoSampleSink(track).getSample((await track.computeDuration()) * 0.2);
    sample!.close();
    input.dispose();
  };
  const thumb = async () => keepPreview('bench', await makePreview(await probe(file)));
  await decode();
  await thumb();
  return { decode: (await seconds(decode)) * 1000, thumb: (await seconds(thumb)) * 1000 };
}

/** A reel of as many slots with one clip, side by side. */
async function clipScene(
  studio: BrowserStudio,
  media: readonly string[],
  frames: number,
): Promise<ReelScene> {
  const mark = { at: 0, of: 'in' };
  const width = 1920 / media.length;
  const template = openDocument(templateKind, {
    format: 'freshreel/template',
    version: 2,
    id: 'clips',
    name: 'Clips',
    about: 'Clips side by side.',
    use: 'opener',
    transparent: false,
    rate: RATE,
    timing: { in: frames, hold: 0, out: 0 },
    still: mark,
    scenes: [{ id: 'all', name: 'All', from: mark, to: { at: frames, of: 'in' }, still: mark }],
    slots: media.map((_, i) => ({
      id: `clip-${i}`,
      kind: 'picture',
      name: `Clip ${i}`,
      scenes: ['all'],
      moment: mark,
      sample: null,
    })),
    controls: [],
    looks: [],
    guide: ['Play.'],
    layers: media.map((_, i) => ({
      id: `clip-${i}`,
      kind: 'picture',
      slot: `clip-${i}`,
      offset: [i * width, 0],
      size: [width, 1080],
    })),
  });
  const slots: Graphic['fill']['slots'] = {};
  for (const [i, id] of media.entries()) {
    slots[`clip-${i}`] = {
      media: id,
      focus: [0.5, 0.5],
      scale: 1,
      turn: 0,
      clip: { in: i * 0.4, end: 'loop' },
    };
  }
  const fill = { slots, controls: {} };
  const reel = newReel(template, { id: 'bench', name: 'Bench', now: '', shape: 'wide', fill });
  for (const id of new Set(media)) await studio.openClip(id);
  return new ReelScene(reel, studio);
}

/** Frames a second of decoding a file alone, or of decoding and drawing its frames at the preview's size. */
async function decodeAlone(file: File, frames: number, drawn: boolean): Promise<number> {
  const input = new Input({ formats: ALL_FORMATS, source: new BlobSource(file) });
  const sink = new VideoSampleSink((await input.getPrimaryVideoTrack())!);
  const context = new OffscreenCanvas(PREVIEW.width, PREVIEW.height).getContext('2d')!;
  let count = 0;
  const start = performance.now();
  for await (const sample of sink.samples()) {
    if (drawn) {
      sample.draw(context, 0, 0, PREVIEW.width, PREVIEW.height);
      context.getImageData(0, 0, 1, 1);
    }
    sample.close();
    if (++count >= frames) break;
  }
  input.dispose();
  return (count * 1000) / (performance.now() - start);
}

/**
 * Milliseconds a frame of a preview with clips (decoded, evaluated, painted and read back), and the frames a second
 * that decoding one of them alone reaches, without and with drawing it.
 */
export async function clipPreview(
  studio: BrowserStudio,
  file: File,
  clips: number,
): Promise<{ p95: number; mean: number; decode: number; drawn: number }> {
  const { record } = await takeIn({ file }, () => undefined);
  const frames = 90;
  const decode = await decodeAlone(file, frames, false);
  const drawn = await decodeAlone(file, frames, true);
  const scene = await clipScene(studio, new Array(clips).fill(mediaId(record)), frames);
  studio.keepClipsTo(PREVIEW.width, false);
  const surface = surfaceOf(new OffscreenCanvas(PREVIEW.width, PREVIEW.height));
  const times: number[] = [];
  for (let n = 0; n < frames; n++) {
    const start = performance.now();
    const { ops } = scene.frameAt(n, RATE);
    await studio.framesReady(clipFramesOf([ops]));

    studio.painter.paint(ops, surface, scene.frame);
    surface.context.getImageData(0, 0, 1, 1);

    // The first frame waits for the decoder to start.
    if (n > 0) times.push(performance.now() - start);
  }
  times.sort((a, b) => a - b);
  return { p95: at(times, 0.95), mean: times.reduce((a, b) => a + b) / times.length, decode, drawn };
}

async function encoded(frames: number, paint: (canvas: OffscreenCanvas, i: number) => Promise<void>) {
  const size = { width: 1920, height: 1080 };
  const canvas = new OffscreenCanvas(size.width, size.height);
  const output = new Output({ format: new Mp4OutputFormat(), target: new BufferTarget() });
  const source = new CanvasSource(canvas, {
    codec: 'avc',
    quality: new Quality({ bitrate: videoBitrate(size, RATE) }),
    keyFrameInterval: 2,
  });
  output.addVideoTrack(source, { frameRate: 30 });
  await output.start();
  const start = performance.now();
  for (let i = 0; i < frames; i++) {
    await paint(canvas, i);
    await source.add(secondsAt(i, RATE), secondsAt(1, RATE));
  }
  await output.finalize();
  return (frames * 1000) / (performance.now() - start);
}

/** Frames a second of a render of one clip at full HD, and of decoding and encoding the same frames alone. */
export async function clipRender(
  studio: BrowserStudio,
  file: File,
): Promise<{ render: number; alone: number }> {
  const { record } = await takeIn({ file }, () => undefined);
  const frames = 60;
  const scene = await clipScene(studio, [mediaId(record)], frames);
  const alone = async () => {
    const input = new Input({ formats: ALL_FORMATS, source: new BlobSource(file) });
    const samples = new VideoSampleSink((await input.getPrimaryVideoTrack())!).samples();
    const reached = await encoded(frames, async (canvas) => {
      const sample = (await samples.next()).value!;
      sample.draw(canvas.getContext('2d')!, 0, 0, canvas.width, canvas.height);
      sample.close();
    });
    await samples.return();
    input.dispose();
    return reached;
  };
  const render = () =>
    encoded(frames, async (canvas, i) => {
      const { ops } = scene.frameAt(i, RATE);
      await studio.framesReady(clipFramesOf([ops]));
      studio.painter.paint(ops, surfaceOf(canvas), scene.frame);
    });
  await alone();
  const pairs = [
    { alone: await alone(), render: await render() },
    { alone: await alone(), render: await render() },
  ];
  return {
    render: (pairs[0]!.render + pairs[1]!.render) / 2,
    alone: (pairs[0]!.alone + pairs[1]!.alone) / 2,
  };
}

/** Plays a long clip through, frame after frame, and tells of each tenth; how much memory there is, is seen from outside. */
export async function longClip(
  studio: BrowserStudio,
  file: File,
  onTenth: () => void,
): Promise<{ frames: number }> {
  const { record } = await takeIn({ file }, () => undefined);
  const frames = Math.floor(record.duration! * 30) - 1;
  const scene = await clipScene(studio, [mediaId(record)], frames);
  const surface = surfaceOf(new OffscreenCanvas(PREVIEW.width, PREVIEW.height));
  for (let n = 0; n < frames; n++) {
    const { ops } = scene.frameAt(n, RATE);
    await studio.framesReady(clipFramesOf([ops]));
    studio.painter.paint(ops, surface, scene.frame);
    if (n % Math.ceil(frames / 10) === 0) onTenth();
  }
  onTenth();
  return { frames };
}
