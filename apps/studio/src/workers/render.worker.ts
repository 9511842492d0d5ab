import {
  clipFramesOf,
  fileStem,
  type MixFacts,
  MixRender,
  type Op,
  ReelScene,
  type RenderPlan,
  SOUND_RATE,
  type Stereo,
  sameMoments,
  secondsAt,
  sequenceName,
  soundPlan,
  videoBitrate,
  wavHeader,
  wavSamples,
} from '@fresh-reel/core';
import {
  AudioSample,
  AudioSampleSource,
  CanvasSource,
  Mp4OutputFormat,
  Output,
  Quality,
  StreamTarget,
  type StreamTargetChunk,
  WebMOutputFormat,
} from 'mediabunny';
import { BrowserStudio, surfaceOf } from '../engine/browserStudio';
import { zipWriter } from '../media/zip';
import type { FromRender, ToRender } from '../render/messages';
import { SOUND_BITRATE, type SoundCodec, soundCodec } from '../render/soundCodec';
import { type GrowingFile, growFile } from '../render/storeFile';
import { openSounds } from '../sound/soundReader';

const tell = (message: FromRender) => postMessage(message);
let cancelled = false;

class Cancelled extends Error {}

/** Takes the frames of a plan one by one, in order. */
interface FrameSink {
  add(index: number): Promise<void>;
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

async function render({ reel, plan, pictures, fonts }: Extract<ToRender, { type: 'start' }>): Promise<void> {
  const studio = await BrowserStudio.start();
  for (const [id, picture] of pictures) studio.addPicture(id, picture);
  studio.addFonts(fonts);
  const scene = new ReelScene(reel, studio);
  await studio.loadFonts(scene);
  for (const media of studio.missingMedia(scene)) await studio.openClip(media);

  const canvas = new OffscreenCanvas(plan.width, plan.height);
  const surface = surfaceOf(canvas);
  const file = await growFile(plan.fileName);
  const sounds = await openSounds([...scene.sounds(), ...scene.media()]);
  const plays = plan.format === 'png' ? [] : soundPlan(scene, (media) => sounds.get(media)?.facts);
  const codec = plays.length > 0 ? await soundCodec(plan.format) : undefined;
  const sink =
    plan.format === 'mp4' || plan.format === 'webm'
      ? videoSink(canvas, plan, file, scene.transparent, codec)
      : pictureSink(canvas, plan, file, codec !== undefined);
  const mix =
    codec &&
    new MixRender(
      plays,
      secondsAt(plan.from, plan.rate),
      secondsAt(plan.count, plan.rate),
      (media) => sounds.get(media),
      (block) => sink.hear(block),
    );
  let heard: MixFacts | undefined;
  let last: readonly (readonly Op[])[] | undefined;
  try {
    for (let i = 0; i < plan.count; i++) {
      if (cancelled) throw new Cancelled();
      const moments = scene.subFrames(plan.from + i, plan.rate).map((f) => f.ops);
      // A frame like the one before is there already.
      if (!last || !sameMoments(last, moments)) {
        await studio.framesReady(clipFramesOf(moments));
        studio.painter.paintMoments(moments, surface, scene.frame);
        last = moments;
      }
      await sink.add(i);
      // The sound goes along, so that neither track waits long for the other.
      await mix?.until(secondsAt(i + 1, plan.rate));
      tell({ type: 'progress', frames: i + 1 });
    }
    heard = await mix?.end();
    await sink.finish();
  } catch (error) {
    await sink.abandon().catch(() => undefined);
    await file.discard().catch(() => undefined);
    throw error;
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
  canvas: OffscreenCanvas,
  plan: RenderPlan,
  file: GrowingFile,
  transparent: boolean,
  codec: SoundCodec | undefined,
): FrameSink {
  const mp4 = plan.format === 'mp4';
  const target = new StreamTarget(
    new WritableStream<StreamTargetChunk>({ write: ({ data, position }) => file.write(data, position) }),
    { chunked: true },
  );
  const output = new Output({ format: mp4 ? new Mp4OutputFormat() : new WebMOutputFormat(), target });
  const source = new CanvasSource(canvas, {
    codec: mp4 ? 'avc' : 'vp9',
    quality: new Quality({ bitrate: videoBitrate(plan, plan.rate) }),
    keyFrameInterval: 2,
    alpha: !mp4 && transparent ? 'keep' : 'discard',
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
    add: async (index) => {
      started ??= output.start();
      await started;
      await source.add(secondsAt(index, plan.rate), length);
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
function pictureSink(
  canvas: OffscreenCanvas,
  plan: RenderPlan,
  file: GrowingFile,
  heard: boolean,
): FrameSink {
  let position = 0;
  const write = (data: Uint8Array) => {
    file.write(data, position);
    position += data.byteLength;
  };
  const png = () => canvas.convertToBlob({ type: 'image/png' });
  if (plan.format === 'png') {
    return {
      add: async () => write(new Uint8Array(await (await png()).arrayBuffer())),
      hear: async () => undefined,
      finish: async () => undefined,
      abandon: async () => undefined,
    };
  }
  const zip = zipWriter(write);
  const stem = fileStem(plan.fileName.replace(/\.zip$/, ''));
  const sound: Uint8Array[] = [];
  return {
    add: async (index) => zip.add(sequenceName(stem, index, plan.count), await png()),
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
    else tell({ type: 'fault', message: error instanceof Error ? error.message : String(error) });
  });
};
