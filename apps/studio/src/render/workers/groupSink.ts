import {
  browserFilm,
  fileStem,
  formatFacts,
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
import {
  AudioSampleSource,
  EncodedPacket,
  EncodedVideoPacketSource,
  Mp4OutputFormat,
  NullTarget,
  Output,
  Quality,
  StreamTarget,
  VideoSample,
  VideoSampleSource,
  WebMOutputFormat,
} from 'mediabunny';
import { zipWriter } from '../../disk/zip';
import type { WrittenFrame, WrittenGroup } from '../../storage/journal';
import { type GrowingFile, streamInto } from '../../storage/storeFile';
import { soundSample } from './codedPeak';
import type { PaintedFrame } from './paintMessages';
import { SOUND_BITRATE } from './soundCodec';

/** Makes one group of pictures of frames, apart from all others. */
export interface GroupMaker {
  /** @param index of the frame in the plan */
  add(index: number, frame: NonNullable<PaintedFrame>): Promise<void>;
  end(): Promise<WrittenGroup>;
  abandon(): Promise<void>;
}

/** Takes the groups of a render, in order, and its sound beside them, and writes its file. */
export interface GroupSink {
  make(): GroupMaker;
  put(group: WrittenGroup): Promise<void>;
  /** Takes the next block of the sound. */
  hear(block: Stereo): Promise<void>;
  finish(): Promise<void>;
  abandon(): Promise<void>;
}

/** Seconds: longer than any group, which begins with a key frame and has no other. */
const NO_MORE_KEYS = 1e6;

/** A film: each group is compressed by an encoder of its own, so that the same frames make the same bytes wherever a render begins. */
export function filmSink(
  plan: RenderPlan,
  file: GrowingFile,
  transparent: boolean,
  codec: SoundCodec | undefined,
): GroupSink {
  const film = browserFilm(plan.format)!;
  const formatOf = () => (film.container === 'mp4' ? new Mp4OutputFormat() : new WebMOutputFormat());
  const output = new Output({
    format: formatOf(),
    target: new StreamTarget(streamInto(file), { chunked: true }),
  });
  const frameRate = plan.rate.num / plan.rate.den;
  const source = new EncodedVideoPacketSource(film.codec);
  output.addVideoTrack(source, { frameRate });
  const sound =
    codec && codec !== 'wav'
      ? new AudioSampleSource({ codec, quality: new Quality({ bitrate: SOUND_BITRATE }) })
      : undefined;
  if (sound) output.addAudioTrack(sound);
  let heard = 0;
  let started: Promise<void> | undefined;
  const start = () => {
    started ??= output.start();
    return started;
  };
  const alpha = formatFacts(plan.format).alpha === true && transparent;
  return {
    make: () => filmGroup(plan, formatOf(), alpha),
    put: async ({ frames, config }) => {
      await start();
      let meta: EncodedVideoChunkMetadata | undefined = config && { decoderConfig: config };
      for (const { data, alpha: side, key, timestamp, duration } of frames) {
        const extra = side ? { alpha: side } : {};
        const packet = new EncodedPacket(
          data,
          key ? 'key' : 'delta',
          timestamp,
          duration,
          -1,
          data.byteLength,
          extra,
        );
        await source.add(packet, meta);
        meta = undefined;
      }
    },
    hear: async (block) => {
      await start();
      const sample = soundSample(block, heard);
      heard += block[0].length;
      await sound?.add(sample);
      sample.close();
    },
    finish: () => output.finalize(),
    abandon: () => output.cancel(),
  };
}

function filmGroup(plan: RenderPlan, format: Mp4OutputFormat | WebMOutputFormat, alpha: boolean): GroupMaker {
  const frames: WrittenFrame[] = [];
  let config: VideoDecoderConfig | undefined;
  const output = new Output({ format, target: new NullTarget() });
  const source = new VideoSampleSource({
    codec: browserFilm(plan.format)!.codec,
    quality: new Quality({ bitrate: videoBitrate(plan, plan.rate) }),
    keyFrameInterval: NO_MORE_KEYS,
    alpha: alpha ? 'keep' : 'discard',
    onEncodedPacket: ({ data, type, timestamp, duration, sideData }, meta) => {
      config ??= meta?.decoderConfig;
      frames.push({ data, alpha: sideData.alpha, key: type === 'key', timestamp, duration });
    },
  });
  output.addVideoTrack(source, { frameRate: plan.rate.num / plan.rate.den });
  const started = output.start();
  return {
    add: async (index, frame) => {
      await started;
      // The frame itself may be the next one, too.
      const sample = new VideoSample((frame as VideoFrame).clone(), {
        timestamp: secondsAt(index, plan.rate),
        duration: secondsAt(1, plan.rate),
      });
      await source.add(sample);
      sample.close();
    },
    end: async () => {
      await output.finalize();
      return { frames, config };
    },
    abandon: () => output.cancel(),
  };
}

/** One PNG, or a zip of numbered ones (stored, since PNG is compressed already) with the sound beside them. */
export function pictureSink(plan: RenderPlan, file: GrowingFile, heard: boolean): GroupSink {
  let position = 0;
  const write = (data: Uint8Array) => {
    file.write(data, position);
    position += data.byteLength;
  };
  const make = () => pictureGroup(plan);
  if (plan.format === 'png') {
    return {
      make,
      put: async ({ frames }) => {
        for (const { data } of frames) write(data);
      },
      hear: async () => undefined,
      finish: async () => undefined,
      abandon: async () => undefined,
    };
  }
  const zip = zipWriter(write);
  const stem = fileStem(plan.fileName.replace(/\.zip$/, ''));
  const sound: Uint8Array[] = [];
  let index = 0;
  return {
    make,
    put: async ({ frames }) => {
      for (const { data } of frames)
        await zip.add(sequenceName(stem, index++, plan.count), new Blob([data as BlobPart]));
    },
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

function pictureGroup({ rate }: RenderPlan): GroupMaker {
  const frames: WrittenFrame[] = [];
  return {
    add: async (index, png) => {
      const data = new Uint8Array(await (png as Blob).arrayBuffer());
      frames.push({ data, key: true, timestamp: secondsAt(index, rate), duration: secondsAt(1, rate) });
    },
    end: async () => ({ frames }),
    abandon: async () => undefined,
  };
}

/** The sound alone, as a WAV. */
export function soundSink(plan: RenderPlan, file: GrowingFile): GroupSink {
  const head = wavHeader(Math.round(secondsAt(plan.count, plan.rate) * SOUND_RATE));
  file.write(head, 0);
  let position = head.byteLength;
  return {
    make: () => pictureGroup(plan),
    put: async () => undefined,
    hear: async (block) => {
      const samples = wavSamples(block);
      file.write(samples, position);
      position += samples.byteLength;
    },
    finish: async () => undefined,
    abandon: async () => undefined,
  };
}
