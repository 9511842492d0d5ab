import {
  fileStem,
  type MixFacts,
  MixRender,
  messageOf,
  ReelScene,
  type RenderPlan,
  SOUND_RATE,
  type SoundCodec,
  type Stereo,
  secondsAt,
  sequenceName,
  videoBitrate,
  wavHeader,
  wavSamples,
} from '@fresh-reel/core';
import { VIDEO_COLOURS } from '@fresh-reel/pixels';
import {
  AudioSample,
  AudioSampleSource,
  Mp4OutputFormat,
  Output,
  Quality,
  StreamTarget,
  VideoSample,
  VideoSampleSource,
  WebMOutputFormat,
} from 'mediabunny';
import { DOCUMENT_ONLY } from '../engine/documentOnly';
import { openSounds } from '../media/decode/soundReader';
import { zipWriter } from '../media/files/zip';
import { soundCodec } from './canEncode';
import type { FromRender, ToRender } from './messages';
import { PaintCrew } from './paintCrew';
import type { PaintedFrame } from './paintMessages';
import { SOUND_BITRATE } from './soundCodec';
import { type GrowingFile, growFile, inMemory, streamInto } from './storeFile';

const tell = (message: FromRender) => postMessage(message);
let cancelled = false;

class Cancelled extends Error {}

/** Takes the frames of a plan one by one, in order. */
interface FrameSink {
  add(index: number, frame: NonNullable<PaintedFrame>): Promise<void>;
  /** Takes the next block of the sound. */
  hear(block: Stereo): Promise<void>;
  finish(): Promise<void>;
  abandon(): Promise<void>;
}

const MIME = {
  mp4: 'video/mp4',
  webm: 'video/webm',
  'png-sequence': 'application/zip',
  png: 'image/png',
} as const;

async function render({ job, painters }: Extract<ToRender, { type: 'start' }>): Promise<void> {
  const { reel, plan } = job;
  const scene = new ReelScene(reel, DOCUMENT_ONLY);
  // A sample is thrown away, whatever becomes of it: it leaves nothing on disk.
  const file = job.sample ? inMemory(plan.fileName) : await growFile(plan.fileName);
  const crew = new PaintCrew(job, job.sample?.length ?? plan.count, painters);
  let heard: MixFacts | undefined;
  let codec: SoundCodec | undefined;
  let sink: FrameSink | undefined;
  let sounds: Awaited<ReturnType<typeof openSounds>> | undefined;
  try {
    sounds = await openSounds([...scene.sounds(), ...scene.media()]);
    const opened = sounds;
    const plays = plan.format === 'png' ? [] : scene.plays((media) => opened.get(media)?.facts);
    codec = plays.length > 0 ? await soundCodec(plan.format) : undefined;
    sink =
      plan.format === 'mp4' || plan.format === 'webm'
        ? videoSink(plan, file, scene.transparent, codec)
        : pictureSink(plan, file, codec !== undefined);
    const into = sink;
    const mix =
      codec &&
      new MixRender(
        plays,
        secondsAt(plan.from, plan.rate),
        secondsAt(plan.count, plan.rate),
        (media) => opened.get(media),
        (block) => into.hear(block),
      );
    const count = job.sample?.length ?? plan.count;
    for (let i = 0; i < count; i++) {
      if (cancelled) throw new Cancelled();
      await sink.add(i, await crew.take());
      // The sound goes along, so that neither track waits long for the other.
      await mix?.until(secondsAt(i + 1, plan.rate));
      tell({ type: 'progress', frames: i + 1 });
    }
    if (job.sample) {
      // What is still being compressed counts, too.
      await sink.finish();
      await file.discard();
      return tell({ type: 'sampled' });
    }
    heard = await mix?.end();
    await sink.finish();
  } catch (error) {
    // The first fault is the one to tell.
    await sink?.abandon().catch(() => undefined);
    await file.discard().catch(() => undefined);
    throw error;
  } finally {
    for (const sound of sounds?.values() ?? []) sound.close();
  }
  const finished = await file.finish(MIME[plan.format]);
  tell({
    type: 'done',
    frames: plan.count,
    ...finished,
    ...(codec && heard ? { sound: { codec, ...heard } } : {}),
  });
}

function videoSink(
  plan: RenderPlan,
  file: GrowingFile,
  transparent: boolean,
  codec: SoundCodec | undefined,
): FrameSink {
  const mp4 = plan.format === 'mp4';
  const target = new StreamTarget(streamInto(file), { chunked: true });
  const output = new Output({ format: mp4 ? new Mp4OutputFormat() : new WebMOutputFormat(), target });
  const alpha = !mp4 && transparent;
  const source = new VideoSampleSource({
    codec: mp4 ? 'avc' : 'vp9',
    quality: new Quality({ bitrate: videoBitrate(plan, plan.rate) }),
    keyFrameInterval: 2,
    alpha: alpha ? 'keep' : 'discard',
  });
  output.addVideoTrack(source, { frameRate: plan.rate.num / plan.rate.den });
  const sound =
    codec && codec !== 'wav'
      ? new AudioSampleSource({ codec, quality: new Quality({ bitrate: SOUND_BITRATE }) })
      : undefined;
  if (sound) output.addAudioTrack(sound);
  let heard = 0;
  let started: Promise<void> | undefined;
  const length = secondsAt(1, plan.rate);
  return {
    add: async (index, frame) => {
      started ??= output.start();
      await started;
      const sample = new VideoSample(new Uint8Array(frame as ArrayBuffer), {
        format: alpha ? 'I420A' : 'I420',
        codedWidth: plan.width,
        codedHeight: plan.height,
        timestamp: secondsAt(index, plan.rate),
        duration: length,
        colorSpace: VIDEO_COLOURS,
      });
      await source.add(sample);
      sample.close();
    },
    hear: async (block) => {
      const frames = block[0].length;
      const data = new Float32Array(frames * 2);
      data.set(block[0]);
      data.set(block[1], frames);
      const sample = new AudioSample({
        data,
        format: 'f32-planar',
        numberOfChannels: 2,
        sampleRate: SOUND_RATE,
        timestamp: heard / SOUND_RATE,
      });
      heard += frames;
      await sound?.add(sample);
      sample.close();
    },
    finish: () => output.finalize(),
    abandon: () => output.cancel(),
  };
}

/** One PNG, or a zip of numbered ones (stored, since PNG is compressed already) with the sound beside them. */
function pictureSink(plan: RenderPlan, file: GrowingFile, heard: boolean): FrameSink {
  let position = 0;
  const write = (data: Uint8Array) => {
    file.write(data, position);
    position += data.byteLength;
  };
  if (plan.format === 'png') {
    return {
      add: async (_, png) => write(new Uint8Array(await (png as Blob).arrayBuffer())),
      hear: async () => undefined,
      finish: async () => undefined,
      abandon: async () => undefined,
    };
  }
  const zip = zipWriter(write);
  const stem = fileStem(plan.fileName.replace(/\.zip$/, ''));
  const sound: Uint8Array[] = [];
  return {
    add: async (index, png) => zip.add(sequenceName(stem, index, plan.count), png as Blob),
    // Files of a zip follow each other: the sound waits for the last picture.
    hear: async (block) => {
      sound.push(wavSamples(block));
    },
    finish: async () => {
      if (heard) {
        const samples = Math.round(secondsAt(plan.count, plan.rate) * SOUND_RATE);
        await zip.add(`${stem}.wav`, new Blob([wavHeader(samples), ...sound] as BlobPart[]));
      }
      await zip.end();
    },
    abandon: async () => undefined,
  };
}

self.onmessage = ({ data }: MessageEvent<ToRender>) => {
  if (data.type === 'cancel') {
    cancelled = true;
    return;
  }
  render(data).catch((error: unknown) => {
    if (error instanceof Cancelled) tell({ type: 'cancelled' });
    else tell({ type: 'fault', message: messageOf(error) });
  });
};
