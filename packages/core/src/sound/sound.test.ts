import { spawnSync } from 'node:child_process';
import { stereoWeights, toStereo } from './fold';
import { Limiter } from './limiter';
import { LoudnessMeter } from './loudness';
import { mixBlock, type SoundSource } from './mix';
import type { SoundPlay } from './play';
import { MixRender } from './render';
import { sampleAt, toSoundRate } from './resample';
import { SOUND_RATE, type Stereo } from './sound';
import { wavHeader, wavSamples } from './wav';

const tone = (frequency: number, level: number, seconds: number, rate = SOUND_RATE) =>
  Float32Array.from(
    { length: Math.round(seconds * rate) },
    (_, i) => level * Math.sin((2 * Math.PI * frequency * i) / rate),
  );
/** Comes and goes in a tenth of a second, so that no meter finds a peak in how it begins. */
const faded = (samples: Float32Array) =>
  samples.map((v, i) => v * Math.min(1, i / 4800, (samples.length - 1 - i) / 4800));
const joined = (parts: readonly Stereo[]): Stereo =>
  [0, 1].map((c) => Float32Array.from(parts.flatMap((p) => [...p[c as 0 | 1]]))) as unknown as Stereo;
const sourceOf = (planes: Stereo): SoundSource => ({
  read: async (from, frames) =>
    planes.map((p) => Float32Array.from({ length: frames }, (_, i) => p[from + i] ?? 0)) as unknown as Stereo,
});
const play = (part: Partial<SoundPlay> = {}): SoundPlay => ({
  media: 'a',
  start: 0,
  length: 1,
  from: 0,
  speed: 1,
  gain: 1,
  fadeIn: 0,
  fadeOut: 0,
  ...part,
});

/** What ffmpeg says of a WAVE file: its filter `ebur128` (EBU R 128) and its stream. */
function ffmpegSays(wav: Uint8Array): { loudness: number; peak: number; stream: string } {
  const run = spawnSync(
    'ffmpeg',
    ['-nostats', '-i', 'pipe:0', '-af', 'ebur128=peak=true', '-f', 'null', '-'],
    {
      input: wav,
      maxBuffer: 1 << 28,
    },
  );
  const said = run.stderr.toString();
  const summary = said.slice(said.lastIndexOf('Summary:'));
  return {
    loudness: Number(/I:\s+(-?[\d.]+) LUFS/.exec(summary)?.[1]),
    peak: Number(/Peak:\s+(-?[\d.]+) dBFS/.exec(summary)?.[1]),
    stream: /Stream #0.*Audio: (.*)/.exec(said)?.[1] ?? '',
  };
}
const wavOf = (sound: Stereo) => Buffer.concat([wavHeader(sound[0].length), wavSamples(sound)]);

describe('loudness is what ffmpeg’s ebur128 finds (ITU-R BS.1770-4)', () => {
  const noise = (seed: number, level: number) => {
    let x = seed;
    return () => {
      x = (Math.imul(x, 1103515245) + 12345) & 0x7fffffff;
      return (x / 0x40000000 - 1) * level;
    };
  };
  const cases: [string, Stereo][] = [
    ['a tone of 1 kHz', [tone(1000, 0.25, 6), tone(1000, 0.25, 6)]],
    ['a low tone on one side', [tone(60, 0.5, 5), new Float32Array(5 * SOUND_RATE)]],
    ['a high tone', [tone(9000, 0.1, 5), tone(9000, 0.2, 5)]],
    [
      'loud, then nearly silent, then loud: the gates',
      (() => {
        const [a, b] = [noise(3, 0.4), noise(9, 0.4)];
        const level = (i: number) => (i > 3 * SOUND_RATE && i < 8 * SOUND_RATE ? 0.004 : 1);
        const made = (n: () => number) =>
          Float32Array.from({ length: 11 * SOUND_RATE }, (_, i) => n() * level(i));
        return [made(a), made(b)];
      })(),
    ],
  ];
  it.each(cases)('%s', (what, made) => {
    const sound: Stereo = [faded(made[0]), faded(made[1])];
    const meter = new LoudnessMeter();
    // In pieces of any length.
    for (let at = 0; at < sound[0].length; at += 7001)
      meter.push([sound[0].subarray(at, at + 7001), sound[1].subarray(at, at + 7001)]);
    const said = ffmpegSays(wavOf(sound));
    expect(said.stream).toMatch(/pcm_s24le.*48000 Hz, (stereo|2 channels), s32 \(24 bit\)/);
    expect(Math.abs(meter.integrated - said.loudness)).toBeLessThan(0.11);
    // Of white noise two filters find peaks that differ: half of it lies where they fall off.
    expect(Math.abs(meter.peak - said.peak)).toBeLessThan(what.startsWith('loud') ? 0.5 : 0.15);
  });

  it('a full-scale tone of 997 Hz on one side is −3.01 LUFS (BS.1770-4, annex 1)', () => {
    const meter = new LoudnessMeter();
    meter.push([tone(997, 1, 5), new Float32Array(5 * SOUND_RATE)]);
    expect(meter.integrated).toBeCloseTo(-3.01, 2);
    expect(meter.momentary).toBeCloseTo(-3.01, 2);
  });

  it('of silence there is none', () => {
    const meter = new LoudnessMeter();
    meter.push([new Float32Array(SOUND_RATE), new Float32Array(SOUND_RATE)]);
    expect(meter.integrated).toBe(Number.NEGATIVE_INFINITY);
  });
});

describe('a sound played faster', () => {
  /** Level of the loudest part of a mix, and of a frequency in it, in dB. */
  const levelAt = (samples: Float32Array, frequency: number) => {
    let [re, im] = [0, 0];
    for (let i = 4800; i < samples.length - 4800; i++) {
      const w = (2 * Math.PI * frequency * i) / SOUND_RATE;
      re += samples[i]! * Math.cos(w);
      im += samples[i]! * Math.sin(w);
    }
    return 20 * Math.log10((2 * Math.hypot(re, im)) / (samples.length - 9600) + 1e-12);
  };
  it.each([2, 4, 8])('at ×%i brings nothing that would lie above half the rate', async (speed) => {
    const high = tone(15000, 0.9, 6);
    const [left] = await mixBlock([play({ length: 0.7, speed })], 0, 0.7 * SOUND_RATE, () =>
      sourceOf([high, high]),
    );
    const peak = left.subarray(2000, -2000).reduce((m, v) => Math.max(m, Math.abs(v)), 0);
    expect(20 * Math.log10(peak)).toBeLessThan(-50);
  });
  it('keeps what lies below', async () => {
    const low = tone(1000, 0.5, 3);
    const [left] = await mixBlock([play({ length: 1, speed: 2 })], 0, SOUND_RATE, () => sourceOf([low, low]));
    expect(levelAt(left, 2000)).toBeCloseTo(20 * Math.log10(0.5), 1);
  });
});

describe('the limiter', () => {
  it('keeps true peaks below −1 dBTP: what lies between samples, as ffmpeg finds it', () => {
    // A quarter of the rate, caught between its highest points: the samples reach 0.707 of it.
    const between = Float32Array.from(
      { length: 2 * SOUND_RATE },
      (_, i) => 1.3 * Math.sin((Math.PI * i) / 2 + Math.PI / 4) * (0.6 + 0.4 * Math.sin(i / 5000)),
    );
    const noisy = tone(11025, 1, 2).map((v, i) => v + 0.9 * Math.sin(i * 1.1 + 0.4));
    for (const loud of [faded(between), faded(noisy)]) {
      const limiter = new Limiter();
      const parts: Stereo[] = [];
      for (let at = 0; at < loud.length; at += 4800) {
        const part = loud.subarray(at, at + 4800);
        parts.push(limiter.push([part, part]));
      }
      const out = joined([...parts, limiter.end()]);
      expect(out[0]).toHaveLength(loud.length);
      const { peak } = ffmpegSays(wavOf(out));
      expect(peak).toBeLessThanOrEqual(-1);
      expect(peak).toBeGreaterThan(-1.5);
    }
  });

  it('keeps peaks below −1 dBFS, and gives as many frames as it took', () => {
    const loud = tone(220, 2.4, 2).map((v, i) => v * (0.2 + 0.8 * Math.abs(Math.sin(i / 9000))));
    const limiter = new Limiter();
    const parts: Stereo[] = [];
    for (let at = 0; at < loud.length; at += 3333) {
      const part = loud.subarray(at, at + 3333);
      parts.push(limiter.push([part, part.map((v) => -v * 0.5)]));
    }
    const out = joined([...parts, limiter.end()]);
    expect(out[0]).toHaveLength(loud.length);
    const peak = out[0].reduce((m, v) => Math.max(m, Math.abs(v)), 0);
    expect(20 * Math.log10(peak)).toBeLessThanOrEqual(-1);
    expect(20 * Math.log10(peak)).toBeGreaterThan(-1.2);
    // Both sides go down alike.
    expect(out[1][5000]! / out[0][5000]!).toBeCloseTo(-0.5, 5);
  });

  it('leaves what is quiet enough as it is', () => {
    const quiet = tone(440, 0.5, 1);
    const limiter = new Limiter();
    const out = joined([limiter.push([quiet, quiet]), limiter.end()]);
    expect(Math.max(...out[0].map((v, i) => Math.abs(v - quiet[i]!)))).toBeLessThan(1e-6);
  });
});

describe('other rates', () => {
  it.each([8000, 22050, 44100, 96000])('of %d Hz keep a tone’s pitch and level', (rate) => {
    const samples = tone(1000, 0.5, 1, rate);
    const out = toSoundRate(samples, rate, 0, 0, SOUND_RATE);
    const wanted = tone(1000, 0.5, 1);
    // Away from the ends, where there is nothing to reach for.
    for (let i = 2000; i < SOUND_RATE - 2000; i += 37)
      expect(Math.abs(out[i]! - wanted[i]!)).toBeLessThan(0.004);
  });

  it('going down, what the lower rate cannot hold is taken away', () => {
    const out = toSoundRate(tone(40000, 1, 0.5, 96000), 96000, 0, 0, SOUND_RATE / 2);
    expect(Math.max(...out.subarray(2000, 20000).map(Math.abs))).toBeLessThan(0.02);
  });

  it('stretches read apart fit together', () => {
    const samples = tone(500, 0.5, 1, 44100);
    const whole = toSoundRate(samples, 44100, 0, 0, 9600);
    const second = toSoundRate(samples.subarray(4000), 44100, 4000, 4800, 4800);
    for (let i = 0; i < 4800; i += 11) expect(Math.abs(second[i]! - whole[4800 + i]!)).toBeLessThan(1e-4);
  });

  it('one channel is heard on both sides, six are folded into two (ITU-R BS.775)', () => {
    const one = Float32Array.of(0.5);
    expect(toStereo([one])).toEqual([one, one]);
    const at = (v: number) => Float32Array.of(v);
    const [left, right] = toStereo([at(0.1), at(0.2), at(0.3), at(9), at(0.4), at(0)]);
    expect(left[0]).toBeCloseTo(0.1 + Math.SQRT1_2 * 0.7, 5);
    expect(right[0]).toBeCloseTo(0.2 + Math.SQRT1_2 * 0.3, 5);
  });

  it.each([1, 2, 3, 4, 5, 6, 7, 8, 12])(
    'of %d channels each is heard, as loud from the left as from the right',
    (count) => {
      const [left, right] = stereoWeights(count);
      expect([left.length, right.length]).toEqual([count, count]);
      const sides = left.map((l, c) => l + right[c]!);
      // The deep channel is none of the picture's; beyond eight nobody knows where they are.
      const silent = sides.flatMap((s, c) => (s === 0 ? [c] : []));
      expect(silent.filter((c) => c < 8)).toEqual(count >= 6 ? [3] : []);
      const power = (weights: readonly number[]) => weights.reduce((s, w) => s + w * w, 0);
      expect(power(left)).toBeCloseTo(power(right), 9);
    },
  );

  it('a value between samples of a slow wave lies on the wave', () => {
    const samples = tone(300, 1, 0.1);
    expect(sampleAt(samples, 1000.5, 1)).toBeCloseTo(Math.sin((2 * Math.PI * 300 * 1000.5) / SOUND_RATE), 3);
  });
});

describe('mixing', () => {
  const ramp = Float32Array.from({ length: SOUND_RATE }, (_, i) => i / SOUND_RATE);
  const find = () => sourceOf([ramp, ramp.map((v) => -v)]);

  it('puts a sound at its place, from its place, at its level', async () => {
    const block = await mixBlock(
      [play({ start: 0.5, from: 0.25, gain: 0.5, length: 0.1 })],
      23000,
      3000,
      find,
    );
    expect(block[0][999]).toBe(0);
    expect(block[0][1000]).toBeCloseTo(0.125, 6);
    expect(block[1][1240]).toBeCloseTo(-(0.25 + 240 / SOUND_RATE) / 2, 6);
    expect((await mixBlock([play({ start: 0.5, length: 0.1 })], 28799, 4, find))[0][1]).toBe(0);
  });

  it('blocks fit together, whatever their length, at any speed', async () => {
    const plays = [
      play({ speed: 0.7, fadeIn: 0.1, fadeOut: 0.2 }),
      play({ start: 0.31, speed: 1.9, length: 0.4 }),
    ];
    const whole = await mixBlock(plays, 0, 48000, find);
    const parts = joined([await mixBlock(plays, 0, 17001, find), await mixBlock(plays, 17001, 30999, find)]);
    for (let i = 0; i < 48000; i += 101) expect(Math.abs(parts[0][i]! - whole[0][i]!)).toBeLessThan(2e-6);
    // Twice as fast is twice as far in the file.
    expect((await mixBlock([play({ speed: 2, length: 0.4 })], 4800, 1, find))[0][0]).toBeCloseTo(0.2, 4);
  });

  it('a missing sound is silent, the others are heard', async () => {
    const block = await mixBlock([play({ media: 'gone' }), play()], 0, 100, (id) =>
      id === 'a' ? find() : undefined,
    );
    expect(block[0][50]).toBeCloseTo(50 / SOUND_RATE, 6);
  });

  it('a render gives every frame once, in order, and measures it', async () => {
    const parts: Stereo[] = [];
    const loud = sourceOf([tone(440, 3, 2), tone(440, 3, 2)]);
    const mix = new MixRender(
      [play({ length: 2 })],
      0,
      1.37,
      () => loud,
      (b) => void parts.push(b),
    );
    await mix.until(0.4);
    await mix.until(0.9);
    const { peak, loudness } = await mix.end();
    const out = joined(parts);
    expect(out[0]).toHaveLength(Math.round(1.37 * SOUND_RATE));
    expect(peak).toBeLessThanOrEqual(-1);
    expect(Math.abs(loudness - ffmpegSays(wavOf(out)).loudness)).toBeLessThan(0.15);
  });
});
