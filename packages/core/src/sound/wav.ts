import { SOUND_RATE, type Stereo } from './sound';

const BYTES = 3;
const CHANNELS = 2;

/** The head of a WAVE file of 24-bit stereo at 48 kHz (RIFF; "Multiple channel audio data and WAVE files", PCM form). */
export function wavHeader(frames: number): Uint8Array {
  const size = frames * CHANNELS * BYTES;
  const head = new DataView(new ArrayBuffer(44));
  const tag = (at: number, text: string) => {
    for (let i = 0; i < 4; i++) head.setUint8(at + i, text.charCodeAt(i));
  };
  tag(0, 'RIFF');
  head.setUint32(4, 36 + size, true);
  tag(8, 'WAVE');
  tag(12, 'fmt ');
  head.setUint32(16, 16, true);
  head.setUint16(20, 1, true);
  head.setUint16(22, CHANNELS, true);
  head.setUint32(24, SOUND_RATE, true);
  head.setUint32(28, SOUND_RATE * CHANNELS * BYTES, true);
  head.setUint16(32, CHANNELS * BYTES, true);
  head.setUint16(34, BYTES * 8, true);
  tag(36, 'data');
  head.setUint32(40, size, true);
  return new Uint8Array(head.buffer);
}

/** Samples as they stand in such a file. */
export function wavSamples([left, right]: Stereo): Uint8Array {
  const out = new Uint8Array(left.length * CHANNELS * BYTES);
  let at = 0;
  for (let i = 0; i < left.length; i++) {
    for (const v of [left[i]!, right[i]!]) {
      const n = Math.round(Math.min(1, Math.max(-1, v)) * 0x7fffff);
      out[at++] = n & 0xff;
      out[at++] = (n >> 8) & 0xff;
      out[at++] = (n >> 16) & 0xff;
    }
  }
  return out;
}
