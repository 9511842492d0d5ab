import { spawnSync } from 'node:child_process';
import { randomAt } from '../../packages/core/src/motion/random';

/** The templates' sounds, made from noise and tones with fixed seeds; ffmpeg packs them as Opus. */

const RATE = 48000;
type Sound = readonly [left: Float32Array, right: Float32Array];

const noise = (n: number, seed: number) => randomAt(n, seed) * 2 - 1;

/** A resonant low, band and high pass in one (state-variable filter, trapezoidal form). */
class Filter {
  private a = 0;
  private b = 0;
  next(x: number, frequency: number, sharpness: number): { low: number; band: number; high: number } {
    const g = Math.tan((Math.PI * Math.min(frequency, 20000)) / RATE);
    const k = 1 / sharpness;
    const h = 1 / (1 + g * (g + k));
    const v1 = h * (this.a + g * (x - this.b));
    const v2 = this.b + g * v1;
    this.a = 2 * v1 - this.a;
    this.b = 2 * v2 - this.b;
    return { low: v2, band: v1, high: x - k * v1 - v2 };
  }
}

/** A sound from what each channel is at a second. */
function made(seconds: number, at: (t: number, n: number, side: -1 | 1) => number): Sound {
  const count = Math.round(seconds * RATE);
  const channel = (side: -1 | 1) => Float32Array.from({ length: count }, (_, n) => at(n / RATE, n, side));
  return [channel(-1), channel(1)];
}

const bump = (t: number, middle: number, width: number) => Math.exp(-(((t - middle) / width) ** 2));

/** Air that passes: noise through a band that goes up and down, from one side to the other. */
function whoosh(): Sound {
  const filters = { [-1]: new Filter(), 1: new Filter() } as Record<-1 | 1, Filter>;
  return made(1.1, (t, n, side) => {
    const body = bump(t, 0.5, 0.2);
    const pan = 0.5 + 0.5 * side * Math.tanh((t - 0.5) * 6);
    const { band } = filters[side].next(noise(n, side + 5), 300 + 3400 * bump(t, 0.52, 0.22), 1.4);
    return band * body * (0.35 + 0.65 * pan) * 0.9;
  });
}

/** What leads up to a moment: noise and a tone that climb for two seconds. */
function riser(): Sound {
  const filters = { [-1]: new Filter(), 1: new Filter() } as Record<-1 | 1, Filter>;
  const phase = { [-1]: 0, 1: 0 } as Record<-1 | 1, number>;
  return made(2.2, (t, n, side) => {
    const part = Math.min(1, t / 2);
    const up = part ** 2.2 * (t > 2 ? Math.max(0, 1 - (t - 2) / 0.12) : 1);
    phase[side] += (110 * 2 ** (part * 2.6) * (1 + side * 0.003)) / RATE;
    const tone = Math.sin(phase[side] * 2 * Math.PI) + 0.5 * Math.sin(phase[side] * 4 * Math.PI);
    const { band } = filters[side].next(noise(n, side + 15), 400 + 6000 * part ** 2, 2);
    return (band * 0.5 + tone * 0.16) * up * 0.8;
  });
}

/** The blow itself: a deep tone that drops, and a crack on top. */
function hit(): Sound {
  const filters = { [-1]: new Filter(), 1: new Filter() } as Record<-1 | 1, Filter>;
  return made(1.6, (t, n, side) => {
    const drop = 48 * t + (150 / 18) * (1 - Math.exp(-18 * t));
    const deep = Math.sin(2 * Math.PI * drop) * Math.exp(-3.2 * t);
    const { low } = filters[side].next(noise(n, side + 25), 2600 * Math.exp(-6 * t) + 120, 0.8);
    return Math.tanh((deep * 1.1 + low * Math.exp(-16 * t) * 0.9) * 1.3) * 0.72;
  });
}

/** A heart that beats twice, softly: a low knock, and a lighter one after it. */
function heartbeat(): Sound {
  const filters = { [-1]: new Filter(), 1: new Filter() } as Record<-1 | 1, Filter>;
  return made(0.9, (t, n, side) => {
    const knock = (at: number, loud: number) => {
      const own = t - at;
      if (own < 0) return 0;
      return (
        Math.sin(2 * Math.PI * (46 * own + 2.4 * (1 - Math.exp(-24 * own)))) * Math.exp(-11 * own) * loud
      );
    };
    const { low } = filters[side].next(noise(n, side + 55), 240, 0.8);
    const brush = Math.exp(-40 * t) + (t > 0.27 ? Math.exp(-40 * (t - 0.27)) * 0.6 : 0);
    return (knock(0, 1) + knock(0.27, 0.7) + low * brush * 0.5) * 0.7;
  });
}

/** Hands: four short bursts close together, and a little room. */
function clap(): Sound {
  const filters = { [-1]: new Filter(), 1: new Filter() } as Record<-1 | 1, Filter>;
  return made(0.5, (t, n, side) => {
    const bursts = [0, 0.011, 0.021, 0.034].reduce(
      (s, at, i) => s + (t >= at ? Math.exp(-(t - at) * (i === 3 ? 38 : 210)) : 0),
      0,
    );
    return filters[side].next(noise(n, side + 35), 1500 + side * 90, 1.6).band * bursts * 0.62;
  });
}

/** A small hard touch, as of a key or a shutter. */
function click(): Sound {
  return made(0.09, (t, n, side) => {
    const ring =
      Math.sin(2 * Math.PI * 2300 * t) * Math.exp(-160 * t) +
      Math.sin(2 * Math.PI * 610 * t) * Math.exp(-110 * t);
    return (ring * 0.4 + noise(n, side + 45) * Math.exp(-700 * t) * 0.5) * 0.7;
  });
}

/** A short bed that goes round: soft chords over a slow beat, eight seconds without a seam. */
function bed(): Sound {
  const LENGTH = 8;
  // Four chords of two seconds: D, B minor, G, A, in just over an octave.
  const chords = [
    [146.83, 220, 293.66, 369.99],
    [123.47, 185, 293.66, 369.99],
    [98, 196, 293.66, 392],
    [110, 220, 277.18, 329.63],
  ];
  const raw = made(LENGTH, (t, _n, side) => {
    let sum = 0;
    // Each chord reaches into the next, and the last into the first.
    for (const [i, chord] of chords.entries()) {
      for (const shift of [0, LENGTH]) {
        const own = t + shift - i * 2;
        if (own < 0 || own > 3.2) continue;
        const swell = Math.min(1, own / 0.35) * Math.min(1, (3.2 - own) / 1.2);
        for (const [k, f] of chord.entries()) {
          const bent = f * (1 + side * 0.0012 * (k + 1));
          sum += Math.sin(2 * Math.PI * bent * own + k) * swell * (0.16 / (1 + k * 0.35));
        }
      }
    }
    // A plucked note on every half second, walking through the chord.
    const beat = Math.floor(t * 2);
    for (const back of [0, 1, 2]) {
      const number = (beat - back + 16) % 16;
      const own = t - (beat - back) / 2;
      const chord = chords[Math.floor(number / 4)]!;
      const f = chord[[1, 2, 3, 2][number % 4]!]! * 2;
      const pan = 0.7 + 0.3 * side * Math.sin(number * 1.9);
      sum +=
        Math.sin(2 * Math.PI * f * own + 0.6 * Math.sin(2 * Math.PI * f * 2 * own)) *
        Math.exp(-5 * own) *
        0.16 *
        pan;
    }
    // A soft knock on each second.
    const own = t % 1;
    sum += Math.sin(2 * Math.PI * (52 * own + 2.2 * (1 - Math.exp(-30 * own)))) * Math.exp(-12 * own) * 0.3;
    return sum * 0.62;
  });
  return raw;
}

const MAKERS = { whoosh, riser, hit, heartbeat, clap, click, bed } as const;
export const SOUNDS = Object.keys(MAKERS) as (keyof typeof MAKERS)[];

export async function writeSound(name: keyof typeof MAKERS, path: string): Promise<void> {
  const [left, right] = MAKERS[name]();
  const pcm = new Float32Array(left.length * 2);
  left.forEach((v, i) => {
    pcm[i * 2] = v;
    pcm[i * 2 + 1] = right[i]!;
  });
  const run = spawnSync(
    'ffmpeg',
    [
      ...['-v', 'error', '-y', '-f', 'f32le', '-ar', String(RATE), '-ac', '2', '-i', 'pipe:0'],
      ...['-c:a', 'libopus', '-b:a', '96k', '-fflags', '+bitexact', '-flags:a', '+bitexact', path],
    ],
    { input: Buffer.from(pcm.buffer) },
  );
  if (run.status !== 0) throw new Error(`ffmpeg could not write ${path}: ${run.stderr}`);
}
