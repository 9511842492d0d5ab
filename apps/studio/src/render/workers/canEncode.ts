import {
  type BrowserFilm,
  browserFilm,
  type FrameSize,
  movingPicture,
  type OutputFormat,
  type Rate,
  SOUND_RATE,
  type SoundCodec,
  videoBitrate,
} from '@fresh-reel/core';
import { canEncodeAudio, canEncodeVideo, Quality } from 'mediabunny';
import { SOUND_BITRATE } from './soundCodec';

/** Whether this browser compresses a film at a size. */
export function canCompress({ codec }: BrowserFilm, size: FrameSize, rate: Rate): Promise<boolean> {
  return canEncodeVideo(codec, {
    ...size,
    quality: new Quality({ bitrate: videoBitrate(size, rate) }),
  });
}

/** Whether this browser writes pictures as WebP; one that does not writes PNGs instead. */
export async function canWriteWebp(): Promise<boolean> {
  const canvas = new OffscreenCanvas(1, 1);
  canvas.getContext('2d');
  return (await canvas.convertToBlob({ type: 'image/webp' })).type === 'image/webp';
}

/**
 * The best codec this browser writes for a format: AAC in MP4 where it has it, else Opus, else MP3.
 * @returns undefined when it writes none of them, or the format has no sound
 */
export async function soundCodec(format: OutputFormat): Promise<SoundCodec | undefined> {
  if (format === 'png' || movingPicture(format)) return undefined;
  if (format === 'png-sequence' || format === 'wav') return 'wav';
  const wanted =
    browserFilm(format)?.container === 'mp4' ? (['aac', 'opus', 'mp3'] as const) : (['opus'] as const);
  for (const codec of wanted) {
    const able = await canEncodeAudio(codec, {
      numberOfChannels: 2,
      sampleRate: SOUND_RATE,
      quality: new Quality({ bitrate: SOUND_BITRATE }),
    }).catch(() => false);
    if (able) return codec;
  }
  return undefined;
}
