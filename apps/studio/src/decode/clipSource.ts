import { type Input, VideoSampleSink } from 'mediabunny';
import { SEQUENCE_TYPE } from '../storage/media';
import { assetUrl } from './assets';
import type { ClipSource } from './clip';
import { openInput, openProxyInput, openStored } from './mediaSource';
import { openFrames, sequenceSource } from './sequence';
import { withWholeBlue } from './wholeBlue';

/**
 * Opens a clip by its media id.
 * @returns null when the media is not there, or is no clip
 * @throws {Error} when this browser cannot decode it
 */
export async function openClip(media: string): Promise<ClipSource | null> {
  const stored = await openStored(media);
  if (stored?.record.type === SEQUENCE_TYPE) {
    const { width, height, duration } = stored.record;
    const frames = await openFrames(stored.record.size, stored.range);
    return sequenceSource(frames, {
      width: width!,
      height: height!,
      duration: duration!,
      rate: frames.rate.num / frames.rate.den,
      sound: false,
    });
  }
  const input = await openInput(media, stored);
  return input && openVideo(input);
}

/** A clip's proxy: the same frames at the same times, of fewer pixels. */
export interface ProxySource extends ClipSource {
  /** Pixels of its longest side. */
  readonly side: number;
}

/** Opens the proxy of a clip. @returns null when there is none, or it cannot be read */
export async function openProxy(media: string): Promise<ProxySource | null> {
  if (assetUrl(media)) return null;
  const found = await openProxyInput(media).catch(() => null);
  const source = found && (await openVideo(found.input).catch(() => null));
  return source && { ...source, side: found!.side };
}

/** Frames whose times tell the rate. */
const RATE_PACKETS = 60;

/** @returns null when there is no picture in it */
async function openVideo(input: Input): Promise<ClipSource | null> {
  const track = await input.getPrimaryVideoTrack();
  if (!track) {
    input.dispose();
    return null;
  }
  if (!(await track.canDecode())) {
    input.dispose();
    throw new Error(`This browser cannot play ${(await track.getCodec()) ?? 'this kind of'} video.`);
  }
  const sink = new VideoSampleSink(track);
  return {
    facts: {
      width: await track.getDisplayWidth(),
      height: await track.getDisplayHeight(),
      duration: await track.computeDuration(),
      rate: (await track.computePacketStats(RATE_PACKETS)).averagePacketRate,
      sound: (await (await input.getPrimaryAudioTrack())?.canDecode()) ?? false,
    },
    async *samples(from) {
      for await (const sample of sink.samples(from)) yield await withWholeBlue(sample);
    },
    dispose: () => input.dispose(),
  };
}
