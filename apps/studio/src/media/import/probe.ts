import { mayBeInterlaced } from '@fresh-reel/core';
import {
  ALL_FORMATS,
  BlobSource,
  EncodedPacketSink,
  Input,
  type InputAudioTrack,
  type InputTrack,
  type InputVideoTrack,
} from 'mediabunny';
import { firstChannel } from '../../decode/firstChannel';
import type { MediaFactsFound } from '../../storage/media';
import { MediaError, NeedsCopyError } from './mediaError';

/** An opened file with what is known of it. */
export interface Probed {
  readonly input: Input;
  readonly video: InputVideoTrack | null;
  readonly audio: InputAudioTrack | null;
  readonly facts: MediaFactsFound;
}

const CODEC_NAMES: Readonly<Record<string, string>> = {
  avc: 'H.264',
  hevc: 'H.265',
  vp8: 'VP8',
  vp9: 'VP9',
  av1: 'AV1',
  aac: 'AAC',
  mp3: 'MP3',
  opus: 'Opus',
  vorbis: 'Vorbis',
  flac: 'FLAC',
};
export const codecName = (codec: string | null) =>
  (codec && CODEC_NAMES[codec]) ?? codec ?? 'an unknown codec';

/**
 * Reads what a clip or sound file holds, and that it is whole.
 * @param asks whether a clip that may be interlaced is refused, so that the user can be asked
 * @throws {MediaError} naming what is wrong with it; {NeedsCopyError} where a working copy would help
 */
export async function probe(file: File, asks = false): Promise<Probed> {
  const input = new Input({ formats: ALL_FORMATS, source: new BlobSource(file) });
  const broken = (why: string) =>
    new MediaError(`"${file.name}" ${why} Export or copy it again from where it came.`);
  try {
    if (!(await input.canRead())) {
      throw new MediaError(
        `"${file.name}" is not a clip or sound that can be read. Use MP4, MOV, WebM, MKV, WAV, MP3, M4A, OGG or FLAC.`,
      );
    }
    const [video, audio] = [await input.getPrimaryVideoTrack(), await input.getPrimaryAudioTrack()];
    if (!video && !audio) throw broken('has neither a picture nor a sound in it.');
    if (video && !(await video.canDecode())) {
      const codec = codecName(await video.getCodec());
      throw new NeedsCopyError(
        `This browser cannot play ${codec}, which "${file.name}" is made with. Convert it to H.264 in MP4, or open Fresh Reel in a browser that plays it.`,
        { why: { codec }, copySize: await copySizeOf(video) },
      );
    }
    // A sound that cannot be played leaves a clip without sound; a file that is sound alone is of no use then.
    const heard = audio && (await audio.canDecode()) ? audio : null;
    if (!video && !heard) {
      throw new MediaError(
        `This browser cannot play ${codecName(await audio!.getCodec())}, which "${file.name}" is made with. Convert it to WAV, MP3 or FLAC.`,
      );
    }
    const main: InputTrack = video ?? heard!;
    const duration = await main.computeDuration();
    if (!(duration > 0)) throw broken('holds no frames.');
    await checkEnd(main, duration, broken);
    if (video && asks && (await isInterlaced(video)))
      throw new NeedsCopyError(`"${file.name}" may be interlaced. Deinterlace it first.`, {
        why: 'interlaced',
        copySize: await copySizeOf(video),
      });
    const facts: MediaFactsFound = {
      kind: video ? 'clip' : 'sound',
      name: file.name,
      type: (await input.getMimeType()).split(';')[0]!,
      alpha: video ? await video.canBeTransparent().then((can) => can && isAlphaFile(video)) : false,
      duration,
      codec: codecName(await main.getCodec()),
      ...(video
        ? {
            width: await video.getDisplayWidth(),
            height: await video.getDisplayHeight(),
            rate: (await video.computePacketStats(120)).averagePacketRate,
            sound: heard !== null,
          }
        : {}),
    };
    return { input, video, audio: heard, facts };
  } catch (error) {
    input.dispose();
    if (error instanceof MediaError) throw error;
    throw broken('is damaged or cut off: it cannot be read to its end.');
  }
}

/** Bits of a working copy for each pixel of each frame: common practice for H.264 of high quality. */
const BITS = 0.15;

/** Bytes a working copy of a clip takes, nearly. */
async function copySizeOf(video: InputVideoTrack): Promise<number | undefined> {
  const [width, height] = [await video.getDisplayWidth(), await video.getDisplayHeight()];
  const duration = await video.computeDuration();
  const rate = (await video.computePacketStats(60)).averagePacketRate;
  const bytes = (width * height * rate * duration * BITS) / 8;
  return Number.isFinite(bytes) && bytes > 0 ? bytes : undefined;
}

async function isInterlaced(video: InputVideoTrack): Promise<boolean> {
  if ((await video.getCodec()) !== 'avc') return false;
  const described = (await video.getDecoderConfig())?.description;
  const first = await new EncodedPacketSink(video).getFirstPacket();
  return mayBeInterlaced(described && new Uint8Array(viewOf(described)), first?.data ?? new Uint8Array());
}

const viewOf = (data: AllowSharedBufferSource) =>
  ArrayBuffer.isView(data)
    ? new Uint8Array(data.buffer, data.byteOffset, data.byteLength)
    : new Uint8Array(data);

/** A file that was cut off lists frames that are not there: the last one has to be. */
async function checkEnd(track: InputTrack, duration: number, broken: (why: string) => Error): Promise<void> {
  const last = await new EncodedPacketSink(track).getPacket(duration).catch(() => null);
  if (!last || last.data.byteLength === 0) throw broken('is cut off: its last frames are missing.');
}

/** Whether a clip carries alpha beside its colours, seen on its first frame. */
async function isAlphaFile(video: InputVideoTrack): Promise<boolean> {
  const first = await new EncodedPacketSink(video).getFirstPacket();
  return first?.sideData?.alpha !== undefined;
}

/** Loudest sample of each of `count` equal stretches of a sound, 0..1. */
export async function wavePeaks(audio: InputAudioTrack, duration: number, count: number): Promise<number[]> {
  const peaks = new Array<number>(count).fill(0);
  for await (const { timestamp, rate, samples } of firstChannel(audio)) {
    for (let i = 0; i < samples.length; i++) {
      const at = timestamp + i / rate;
      const n = Math.min(count - 1, Math.max(0, Math.floor((at / duration) * count)));
      const v = Math.abs(samples[i]!);
      if (v > peaks[n]!) peaks[n] = v;
    }
  }
  return peaks.map((p) => Math.round(Math.min(1, p) * 100) / 100);
}
