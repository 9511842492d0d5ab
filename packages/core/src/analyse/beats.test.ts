import { BeatFinder } from './beats';

const RATE = 48_000;

/** Noise that is the same each time (mulberry32). */
function noise(seed: number): () => number {
  let a = seed;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return (((t ^ (t >>> 14)) >>> 0) / 2 ** 32) * 2 - 1;
  };
}

/** Music of its simplest kind: a drum on each beat, a quieter stroke between, over a held chord and hiss. */
function music(
  bpm: number,
  seconds: number,
  first = 0.4,
  jitter = 0,
): { sound: Float32Array; beats: number[] } {
  const [sound, hiss] = [new Float32Array(seconds * RATE), noise(7)];
  for (let i = 0; i < sound.length; i++) {
    const t = i / RATE;
    sound[i] = 0.01 * hiss() + 0.05 * (Math.sin(2 * Math.PI * 220 * t) + Math.sin(2 * Math.PI * 330 * t));
  }
  const beats: number[] = [];
  const stroke = (at: number, loud: number, pitch: number) => {
    for (let i = 0; i < 0.12 * RATE; i++) {
      const n = Math.round(at * RATE) + i;
      if (n < sound.length)
        sound[n]! +=
          loud * Math.exp(-i / (0.03 * RATE)) * (Math.sin((2 * Math.PI * pitch * i) / RATE) + 0.5 * hiss());
    }
  };
  for (let at = first; at < seconds - 0.2; at += 60 / bpm) {
    const moved = at + jitter * hiss();
    beats.push(moved);
    stroke(moved, 0.6, 80);
    stroke(at + 30 / bpm, 0.15, 2000);
  }
  return { sound, beats };
}

function found(sound: Float32Array, rate = RATE): number[] {
  const finder = new BeatFinder(rate);
  // In pieces of any length, as decoders give them.
  for (let at = 0, n = 700; at < sound.length; at += n, n = 300 + ((n * 7) % 2000))
    finder.add(sound.subarray(at, at + n));
  return finder.beats();
}

describe('the beats of music', () => {
  it.each([72, 96, 120, 128, 150])('of %d a minute are found, each within 25 ms', (bpm) => {
    const { sound, beats } = music(bpm, 16);
    const told = found(sound);
    // The first and the last may be left out.
    for (const beat of beats.slice(1, -1)) {
      const nearest = Math.min(...told.map((t) => Math.abs(t - beat)));
      expect(nearest).toBeLessThan(0.025);
    }
    // Slow music with strokes between its beats is also music of twice the tempo.
    const expected = bpm < 80 ? 2 * beats.length : beats.length;
    expect(Math.abs(told.length - expected)).toBeLessThanOrEqual(2);
  });

  it('are found where a player is not quite even', () => {
    const { sound, beats } = music(104, 16, 0.9, 0.012);
    const told = found(sound);
    const off = beats.slice(1, -1).map((beat) => Math.min(...told.map((t) => Math.abs(t - beat))));
    expect(off.filter((d) => d < 0.03).length).toBeGreaterThanOrEqual(off.length - 1);
  });

  it('are none in silence, in hiss, and in what is too short', () => {
    expect(found(new Float32Array(10 * RATE))).toEqual([]);
    expect(found(music(120, 1).sound)).toEqual([]);
  });

  it('at another rate of the sound are at the same seconds', () => {
    const { sound } = music(120, 12);
    const other = new Float32Array(12 * 44_100);
    for (let i = 0; i < other.length; i++)
      other[i] = sound[Math.min(sound.length - 1, Math.round((i * RATE) / 44_100))]!;
    const [a, b] = [found(sound), found(other, 44_100)];
    expect(b).toHaveLength(a.length);
    for (const [i, t] of a.entries()) expect(Math.abs(t - b[i]!)).toBeLessThan(0.02);
  });
});
