/**
 * A number in 0..1 from whole-number seeds: the same seeds give the same number, in any order, on any machine.
 * Method: the 32-bit finaliser of MurmurHash3 (public domain) folded over the seeds.
 */
export function randomAt(...seeds: readonly number[]): number {
  let h = 0x9e3779b9;
  for (const seed of seeds) {
    h ^= seed | 0;
    h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
    h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
    h ^= h >>> 16;
  }
  return (h >>> 0) / 4294967296;
}

/** The numbers 0..count−1 in a seeded random order (Fisher–Yates). */
export function shuffled(count: number, seed: number): number[] {
  const order = Array.from({ length: count }, (_, i) => i);
  for (let i = count - 1; i > 0; i--) {
    const j = Math.floor(randomAt(seed, i) * (i + 1));
    [order[i], order[j]] = [order[j]!, order[i]!];
  }
  return order;
}

/** Smooth seeded noise in −1..1 over a running number: a value at each whole number, and an even ease between them. */
export function noiseAt(seed: number, channel: number, at: number): number {
  const whole = Math.floor(at);
  const part = at - whole;
  const ease = part * part * (3 - 2 * part);
  const value = (n: number) => randomAt(seed, channel, n) * 2 - 1;
  return value(whole) + (value(whole + 1) - value(whole)) * ease;
}
