import { type OutputFormat, SOUND_RATE, type SoundCodec } from '@fresh-reel/core';
import { canEncodeAudio, Quality } from 'mediabunny';

/** Bits a second. Common practice: music and noises in stereo are clean at 192 kbit/s. */
export const SOUND_BITRATE = 192_000;

export const SOUND_NAMES: Readonly<Record<SoundCodec, string>> = {
  aac: 'AAC',
  opus: 'Opus',
  mp3: 'MP3',
  wav: 'WAV',
};

/**
 * The best codec this browser writes for a format: AAC in MP4 where it has it, else Opus, else MP3.
 * @returns undefined when it writes none of them, or the format has no sound
 */
export async function soundCodec(format: OutputFormat): Promise<SoundCodec | undefined> {
  if (format === 'png') return undefined;
  if (format === 'png-sequence') return 'wav';
  const wanted = format === 'mp4' ? (['aac', 'opus', 'mp3'] as const) : (['opus'] as const);
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
