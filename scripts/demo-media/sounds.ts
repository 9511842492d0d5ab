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

/** A filter for each side. */
const bothSides = () => ({ [-1]: new Filter(), 1: new Filter() }) as Record<-1 | 1, Filter>;

/** A sound from what each channel is at a second. */
function made(seconds: number, at: (t: number, n: number, side: -1 | 1) => number): Sound {
  const count = Math.round(seconds * RATE);
  const channel = (side: -1 | 1) => Float32Array.from({ length: count }, (_, n) => at(n / RATE, n, side));
  return [channel(-1), channel(1)];
}

const bump = (t: number, middle: number, width: number) => Math.exp(-(((t - middle) / width) ** 2));

/** Air that passes: noise through a band that goes up and down, from one side to the other. */
function whoosh(): Sound {
  const filters = bothSides();
  return made(1.1, (t, n, side) => {
    const body = bump(t, 0.5, 0.2);
    const pan = 0.5 + 0.5 * side * Math.tanh((t - 0.5) * 6);
    const { band } = filters[side].next(noise(n, side + 5), 300 + 3400 * bump(t, 0.52, 0.22), 1.4);
    return band * body * (0.35 + 0.65 * pan) * 0.9;
  });
}

/** What leads up to a moment: noise and a tone that climb for two seconds. */
function riser(): Sound {
  const filters = bothSides();
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
  const filters = bothSides();
  return made(1.6, (t, n, side) => {
    const drop = 48 * t + (150 / 18) * (1 - Math.exp(-18 * t));
    const deep = Math.sin(2 * Math.PI * drop) * Math.exp(-3.2 * t);
    const { low } = filters[side].next(noise(n, side + 25), 2600 * Math.exp(-6 * t) + 120, 0.8);
    return Math.tanh((deep * 1.1 + low * Math.exp(-16 * t) * 0.9) * 1.3) * 0.72;
  });
}

/** A heart that beats twice, softly: a low knock, and a lighter one after it. */
function heartbeat(): Sound {
  const filters = bothSides();
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
  const filters = bothSides();
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

/** Knocks one after the other, each a short ringing body with a little noise: what is dropped, flapped or wound. */
function knocks(
  seconds: number,
  times: readonly number[],
  body: {
    readonly pitch: number;
    readonly ring: number;
    readonly noise: number;
    readonly dull: number;
    readonly loud: number;
  },
  seed: number,
): Sound {
  const filters = bothSides();
  return made(seconds, (t, n, side) => {
    let [tone, brush] = [0, 0];
    times.forEach((at, k) => {
      const own = t - at;
      if (own < 0) return;
      const pitch = body.pitch * (1 + 0.14 * noise(k, seed));
      const loud = 0.75 + 0.25 * noise(k, seed + 1);
      tone +=
        (Math.sin(2 * Math.PI * pitch * own) + 0.4 * Math.sin(2 * Math.PI * pitch * 2.76 * own)) *
        Math.exp(-body.ring * own) *
        loud;
      brush += Math.exp(-body.ring * 2.2 * own) * loud;
    });
    const { low } = filters[side].next(noise(n, side + seed + 5), body.dull, 0.9);
    return Math.tanh(tone * 0.5 + low * brush * body.noise) * body.loud;
  });
}

/** A heavy thing set down. */
const thud = () => knocks(0.6, [0], { pitch: 74, ring: 11, noise: 1.4, dull: 900, loud: 1.3 }, 71);

/** Wood on wood, with one small bounce. */
const knock = () => knocks(0.5, [0, 0.13], { pitch: 310, ring: 24, noise: 1.1, dull: 2600, loud: 1.12 }, 81);

/** Flaps that turn over, or a wheel that is wound: a row of small clacks that slows down. */
const flaps = () =>
  knocks(
    1,
    Array.from({ length: 13 }, (_, i) => 0.045 * i + 0.0024 * i * i),
    { pitch: 940, ring: 70, noise: 1.6, dull: 5200, loud: 0.74 },
    91,
  );

/** A bubble that bursts: a tone that leaps up. */
function pop(): Sound {
  return made(0.45, (t, _n, side) => {
    const up = 240 * t + (520 / 30) * (1 - Math.exp(-30 * t)) * (1 + 0.01 * side);
    return Math.tanh(Math.sin(2 * Math.PI * up) * Math.exp(-13 * t) * (1 - Math.exp(-500 * t)) * 1.6) * 0.43;
  });
}

/** A spring that is let go: a tone that wobbles as it dies. */
function boing(): Sound {
  return made(0.8, (t, _n, side) => {
    const wobble = 190 * t + (34 / (2 * Math.PI * 9)) * Math.sin(2 * Math.PI * 9 * t) * Math.exp(-3 * t);
    const tone = Math.sin(2 * Math.PI * wobble) + 0.35 * Math.sin(2 * Math.PI * 2.01 * wobble + side * 0.2);
    return Math.tanh(tone * Math.exp(-5.5 * t) * (1 - Math.exp(-300 * t))) * 0.41;
  });
}

/** Paper or cloth that is handled: noise in quick uneven strokes. */
function rustle(): Sound {
  const filters = bothSides();
  return made(0.8, (t, n, side) => {
    let strokes = 0;
    for (let k = 0; k < 7; k++)
      strokes += bump(t, 0.09 + k * 0.085 + 0.03 * noise(k, 101), 0.022 + 0.02 * (k % 3));
    const crackle = Math.abs(noise(Math.floor(n / 9), 102 + side)) ** 6;
    const { band } = filters[side].next(noise(n, side + 105), 3600 + 900 * side, 0.9);
    return Math.tanh(band * strokes * (0.5 + 1.6 * crackle) * 1.5) * 0.32;
  });
}

/** What burns in or is sprayed: noise that hisses and crackles as it dies. */
function hiss(): Sound {
  const filters = bothSides();
  return made(1.4, (t, n, side) => {
    const body = (1 - Math.exp(-40 * t)) * Math.exp(-2.1 * t);
    const spit = Math.abs(noise(Math.floor(n / 40), 112 + side)) ** 14 * 3;
    const { high } = filters[side].next(noise(n, side + 115), 3200, 0.8);
    return Math.tanh(high * body * (0.55 + spit)) * 0.33;
  });
}

/** A small bell, struck once. */
function chime(): Sound {
  const partials = [
    [1, 1, 3.2],
    [2.76, 0.5, 5],
    [5.4, 0.28, 8],
    [8.93, 0.14, 12],
  ] as const;
  return made(1.5, (t, _n, side) => {
    let sum = 0;
    for (const [times, loud, fade] of partials)
      sum += Math.sin(2 * Math.PI * 880 * times * (1 + side * 0.0006) * t) * loud * Math.exp(-fade * t);
    return sum * (1 - Math.exp(-900 * t)) * 0.23;
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

const MAKERS = {
  whoosh,
  riser,
  hit,
  heartbeat,
  clap,
  click,
  thud,
  knock,
  flaps,
  pop,
  boing,
  rustle,
  hiss,
  chime,
  bed,
} as const;
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
