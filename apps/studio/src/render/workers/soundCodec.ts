import type { SoundCodec } from '@fresh-reel/core';

/** Bits a second. Common practice: music and noises in stereo are clean at 192 kbit/s. */
export const SOUND_BITRATE = 192_000;

export const SOUND_NAMES: Readonly<Record<SoundCodec, string>> = {
  aac: 'AAC',
  opus: 'Opus',
  mp3: 'MP3',
  wav: 'WAV',
};
