import '../../workers/alive';
import { type FrameSize, videoBitrate } from '@fresh-reel/core';
import { PlaneMaker, VIDEO_COLOURS } from '@fresh-reel/pixels';
import {
  canEncodeVideo,
  Mp4OutputFormat,
  Output,
  Quality,
  StreamTarget,
  VideoSample,
  VideoSampleSource,
} from 'mediabunny';
import { openClip } from '../../decode/clipSource';
import { piecesOf } from '../../disk/hash';
import { fetchBytes, surfaceOf } from '../../engine/browserStudio';
import { opaquePlanes } from '../../engine/opaquePlanes';
import { type MediaRecord, mediaId, readMediaRecord } from '../../storage/media';
import { proxyLock, readProxy, storeProxy } from '../../storage/proxies';
import { growFile, streamInto } from '../../storage/storeFile';
import { ifFree } from '../../storage/tabs';
import type { FromProxies, ToProxies } from './messages';
import { isWorthProxy, proxySize } from './proxySize';

/** Seconds between key frames: any frame is so few to decode away. */
const KEY_EVERY = 0.25;
/** How many times its size is left in the browser before a proxy is kept. */
const SPARE = 10;

let wanted: readonly string[] = [];
/** Settles when nothing else needs the machine. */
let free: Promise<void> = Promise.resolve();
let goOn: (() => void) | undefined;
/** Clips that have been seen to: they have a proxy now, need none, or cannot have one. */
const done = new Set<string>();
let busy = false;
let planes: Promise<PlaneMaker> | undefined;

const tell = (making: FromProxies['making']) => postMessage({ making } satisfies FromProxies);

const planeMaker = () => {
  planes ??= fetchBytes('/engine/pixels.wasm', 'The part that prepares video frames').then((bytes) =>
    PlaneMaker.load(bytes),
  );
  return planes;
};

/** The first codec in which this browser writes small clips. */
async function codecFor(size: FrameSize, quality: Quality): Promise<'avc' | 'vp9' | undefined> {
  for (const codec of ['avc', 'vp9'] as const) {
    if (await canEncodeVideo(codec, { ...size, quality })) return codec;
  }
  return undefined;
}

/** A proxy presses nothing of the user's out. @throws {Error} where there is not room enough */
async function checkRoom(size: number): Promise<void> {
  const { quota, usage } = await navigator.storage.estimate();
  if (quota !== undefined && usage !== undefined && quota - usage < SPARE * size)
    throw new Error('There is not room enough for a proxy.');
}

/** Makes a clip's proxy: each frame at its own time, smaller, never far from a key frame. */
async function make(record: MediaRecord): Promise<void> {
  const media = mediaId(record);
  const source = await openClip(media);
  if (!source) return;
  const size = proxySize(source.facts);
  const rate = record.rate ?? 30;
  const quality = new Quality({ bitrate: videoBitrate(size, { num: rate, den: 1 }) });
  const codec = await codecFor(size, quality);
  if (!codec) return source.dispose();
  const maker = await planeMaker();
  const canvas = new OffscreenCanvas(size.width, size.height);
  const surface = surfaceOf(canvas);
  const context = canvas.getContext('2d')!;
  const file = await growFile(`${record.hash}.mp4`);
  const output = new Output({
    format: new Mp4OutputFormat(),
    target: new StreamTarget(streamInto(file)),
  });
  try {
    const track = new VideoSampleSource({ codec, quality, keyFrameInterval: KEY_EVERY });
    output.addVideoTrack(track);
    await output.start();
    for await (const sample of source.samples(0)) {
      await free;
      if (!wanted.includes(media)) {
        sample.close();
        throw new Error('It is not wanted any more.');
      }
      sample.draw(context, 0, 0, size.width, size.height);
      const { timestamp } = sample;
      sample.close();
      const frame = new VideoSample(await opaquePlanes(maker, canvas, surface), {
        format: 'I420',
        codedWidth: size.width,
        codedHeight: size.height,
        timestamp,
        duration: 1 / rate,
        colorSpace: VIDEO_COLOURS,
      });
      await track.add(frame);
      frame.close();
      tell({ media, part: Math.min(1, timestamp / source.facts.duration) });
    }
    await output.finalize();
    const { file: made } = await file.finish('video/mp4');
    await checkRoom(made.size);
    const side = Math.max(size.width, size.height);
    await storeProxy(record.hash, { size: made.size, side }, piecesOf(made));
  } catch (error) {
    await output.cancel().catch(() => undefined);
    throw error;
  } finally {
    source.dispose();
    await file.discard().catch(() => undefined);
  }
}

/** Sees to what is wanted, one after the other. */
async function work(): Promise<void> {
  if (busy) return;
  busy = true;
  for (;;) {
    const media = wanted.find((id) => !done.has(id));
    if (media === undefined) break;
    const record = await readMediaRecord(media.replace(/^sha256:/, ''));
    done.add(media);
    if (!record || !isWorthProxy(record) || (await readProxy(record.hash))) continue;
    // A clip without a proxy is gone through as it is: nothing is lost, and nobody has to know.
    await ifFree(proxyLock(record.hash), () => make(record)).catch(() => {
      if (!wanted.includes(media)) done.delete(media);
    });
  }
  busy = false;
  tell(undefined);
}

self.onmessage = ({ data }: MessageEvent<ToProxies>) => {
  wanted = data.wanted;
  if (data.held && !goOn)
    free = new Promise((resolve) => {
      goOn = resolve;
    });
  else if (!data.held) {
    goOn?.();
    goOn = undefined;
  }
  void work();
};
