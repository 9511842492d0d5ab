import type { SKRSContext2D } from '@napi-rs/canvas';
import { mixColours, withAlpha } from '../../packages/core/src/colour/colour';
import { randomAt } from '../../packages/core/src/motion/random';

export type Context = SKRSContext2D;

export function sky(c: Context, w: number, h: number, stops: readonly string[]): void {
  const g = c.createLinearGradient(0, 0, 0, h);
  for (const [i, colour] of stops.entries()) g.addColorStop(i / (stops.length - 1), colour);
  c.fillStyle = g;
  c.fillRect(0, 0, w, h);
}

export function glow(
  c: Context,
  x: number,
  y: number,
  radius: number,
  colour: string,
  strength: number,
): void {
  const g = c.createRadialGradient(x, y, 0, x, y, radius);
  g.addColorStop(0, withAlpha(colour, strength));
  g.addColorStop(0.35, withAlpha(colour, strength * 0.35));
  g.addColorStop(1, withAlpha(colour, 0));
  c.fillStyle = g;
  c.fillRect(x - radius, y - radius, radius * 2, radius * 2);
}

/** Height of a rolling ridge at x, 0..1 across, from a few seeded waves. */
export function ridge(x: number, seed: number, roughness: number): number {
  let y = 0;
  for (let i = 1; i <= 5; i++) {
    y +=
      Math.sin(x * Math.PI * i * (1 + randomAt(seed, i)) + randomAt(seed, i, 7) * 6.28) /
      (i * i ** roughness);
  }
  return y;
}

export function hill(
  c: Context,
  w: number,
  h: number,
  level: number,
  swing: number,
  seed: number,
  top: string,
  bottom: string,
): (x: number) => number {
  const at = (x: number) => h * (level - swing * ridge(x / w, seed, 0.7));
  c.beginPath();
  c.moveTo(-10, h + 10);
  for (let x = -10; x <= w + 10; x += 6) c.lineTo(x, at(x));
  c.lineTo(w + 10, h + 10);
  c.closePath();
  const g = c.createLinearGradient(0, h * (level - swing), 0, h);
  g.addColorStop(0, top);
  g.addColorStop(1, bottom);
  c.fillStyle = g;
  c.fill();
  return at;
}

/** Soft banks of cloud: many faint discs along a band. */
export function clouds(c: Context, w: number, h: number, level: number, seed: number, colour: string): void {
  for (let bank = 0; bank < 5; bank++) {
    const cx = randomAt(seed, bank, 1) * w;
    const cy = h * (level + (randomAt(seed, bank, 2) - 0.5) * 0.24);
    const reach = w * (0.1 + 0.14 * randomAt(seed, bank, 3));
    for (let i = 0; i < 42; i++) {
      const x = cx + (randomAt(seed, bank, i, 4) - 0.5) * 2 * reach;
      const fall = 1 - Math.abs(x - cx) / reach;
      const r = h * 0.014 + h * 0.05 * fall * randomAt(seed, bank, i, 5);
      glow(c, x, cy + (randomAt(seed, bank, i, 6) - 0.5) * h * 0.024, r * 2.4, colour, 0.16);
    }
  }
}

/** A kite's tail with its bows, waving with time. */
function drawTail(
  c: Context,
  size: number,
  colours: readonly [string, string, string],
  ink: string,
  seed: number,
  tail: number,
  time: number,
): void {
  const tailPath: [number, number][] = [];
  for (let i = 0; i <= 60; i++) {
    const t = i / 60;
    tailPath.push([
      Math.sin(t * 9 + seed - time * 5) * 0.26 * t * size + t * t * 0.7 * size,
      (1.05 + t * 2.6 * tail) * size,
    ]);
  }
  c.strokeStyle = ink;
  c.lineWidth = Math.max(1, size * 0.018);
  c.beginPath();
  for (const [px, py] of tailPath) c.lineTo(px, py);
  c.stroke();
  for (let i = 12; i < 60; i += 12) {
    const [px, py] = tailPath[i]!;
    const b = size * 0.13;
    c.fillStyle = i % 24 ? colours[1] : colours[2];
    c.beginPath();
    c.moveTo(px, py);
    c.lineTo(px - b, py - b * 0.6);
    c.lineTo(px - b, py + b * 0.6);
    c.closePath();
    c.moveTo(px, py);
    c.lineTo(px + b, py - b * 0.6);
    c.lineTo(px + b, py + b * 0.6);
    c.closePath();
    c.fill();
  }
}

/** A diamond kite seen from below, leaning, with panels and a waving tail. */
export function kite(
  c: Context,
  x: number,
  y: number,
  size: number,
  lean: number,
  colours: readonly [string, string, string],
  seed: number,
  tail = 1,
  time = 0,
): void {
  c.save();
  c.translate(x, y);
  c.rotate(lean);
  const panel = (points: readonly (readonly [number, number])[], light: string, dark: string) => {
    c.beginPath();
    // The first line of a new path only moves there.
    for (const [px, py] of points) c.lineTo(px * size, py * size);
    c.closePath();
    const g = c.createLinearGradient(-0.5 * size, -size, 0.5 * size, size);
    g.addColorStop(0, light);
    g.addColorStop(1, dark);
    c.fillStyle = g;
    c.fill();
  };
  const shade = (colour: string, amount: number) => mixColours(colour, '#1A1024', amount);
  const light = (colour: string, amount: number) => mixColours(colour, '#FFF4DC', amount);
  if (tail > 0) drawTail(c, size, colours, shade(colours[0], 0.25), seed, tail, time);
  panel(
    [
      [0, -1],
      [0.66, -0.16],
      [0, 0],
    ],
    light(colours[1], 0.35),
    colours[1],
  );
  panel(
    [
      [0, -1],
      [-0.66, -0.16],
      [0, 0],
    ],
    light(colours[0], 0.25),
    colours[0],
  );
  panel(
    [
      [-0.66, -0.16],
      [0, 1.05],
      [0, 0],
    ],
    shade(colours[0], 0.12),
    shade(colours[0], 0.4),
  );
  panel(
    [
      [0.66, -0.16],
      [0, 1.05],
      [0, 0],
    ],
    colours[2],
    shade(colours[2], 0.35),
  );
  c.strokeStyle = withAlpha('#1A1024', 0.5);
  c.lineWidth = Math.max(1, size * 0.014);
  c.beginPath();
  c.moveTo(0, -size);
  c.lineTo(0, 1.05 * size);
  c.moveTo(-0.66 * size, -0.16 * size);
  c.quadraticCurveTo(0, -0.06 * size, 0.66 * size, -0.16 * size);
  c.stroke();
  c.restore();
}

/** A flying line sagging from a kite to a hand. */
export function string(
  c: Context,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  colour: string,
  width: number,
): void {
  c.strokeStyle = colour;
  c.lineWidth = width;
  c.beginPath();
  c.moveTo(x0, y0);
  c.quadraticCurveTo(x0 * 0.45 + x1 * 0.55, y1 - (y1 - y0) * 0.22, x1, y1);
  c.stroke();
}

/** A person as a small silhouette standing at (x, y), `tall` pixels high. */
export function person(
  c: Context,
  x: number,
  y: number,
  tall: number,
  colour: string,
  seed: number,
  armUp: boolean,
  time = 0,
): void {
  const lean = ((randomAt(seed, 1) - 0.5) * 0.12 + Math.sin(time * 1.3 + seed) * 0.012) * tall;
  const wave = armUp ? Math.sin(time * 4 + seed) * 0.07 * tall : 0;
  c.fillStyle = colour;
  c.strokeStyle = colour;
  c.lineCap = 'round';
  c.lineJoin = 'round';
  c.beginPath();
  c.arc(x + lean, y - tall * 0.9, tall * 0.1, 0, Math.PI * 2);
  c.fill();
  c.beginPath();
  c.moveTo(x + lean - tall * 0.13, y - tall * 0.74);
  c.quadraticCurveTo(x + lean, y - tall * 0.82, x + lean + tall * 0.13, y - tall * 0.74);
  c.lineTo(x + tall * 0.11, y - tall * 0.36);
  c.lineTo(x - tall * 0.11, y - tall * 0.36);
  c.closePath();
  c.fill();
  c.lineWidth = tall * 0.085;
  const foot = tall * (0.06 + 0.06 * randomAt(seed, 2));
  c.beginPath();
  c.moveTo(x - tall * 0.05, y - tall * 0.38);
  c.lineTo(x - foot, y + tall * 0.02);
  c.moveTo(x + tall * 0.05, y - tall * 0.38);
  c.lineTo(x + foot, y + tall * 0.02);
  c.stroke();
  c.lineWidth = tall * 0.06;
  c.beginPath();
  c.moveTo(x + lean + tall * 0.11, y - tall * 0.7);
  c.lineTo(x + lean + wave + tall * (armUp ? 0.24 : 0.17), y - tall * (armUp ? 1.06 : 0.42));
  c.moveTo(x + lean - tall * 0.11, y - tall * 0.7);
  c.lineTo(x + lean - tall * 0.17, y - tall * 0.44);
  c.stroke();
}

/** Blades of grass along a hill's edge, which take the hardness off it. */
export function grass(
  c: Context,
  w: number,
  at: (x: number) => number,
  tall: number,
  colour: string,
  seed: number,
): void {
  c.strokeStyle = colour;
  c.lineWidth = Math.max(1, tall * 0.05);
  c.beginPath();
  for (let i = 0; i < w / 3; i++) {
    const x = randomAt(seed, i) * w;
    const y = at(x) + tall * 0.25;
    const height = tall * (0.4 + 0.6 * randomAt(seed, i, 2));
    c.moveTo(x, y);
    c.quadraticCurveTo(x + height * 0.1, y - height * 0.6, x + height * 0.45, y - height);
  }
  c.stroke();
}

/** Darker towards the corners. */
export function vignette(c: Context, w: number, h: number): void {
  const g = c.createRadialGradient(
    w / 2,
    h / 2,
    Math.min(w, h) * 0.35,
    w / 2,
    h / 2,
    Math.hypot(w, h) * 0.58,
  );
  g.addColorStop(0, 'rgba(20,10,30,0)');
  g.addColorStop(1, 'rgba(20,10,30,0.34)');
  c.fillStyle = g;
  c.fillRect(0, 0, w, h);
}

/** A light vignette and a little noise, so that gradients do not band. */
export function finish(c: Context, w: number, h: number, seed: number): void {
  vignette(c, w, h);
  const pixels = c.getImageData(0, 0, w, h);
  for (let i = 0; i < pixels.data.length; i += 4) {
    const noise = (randomAt(i, seed) - 0.5) * 9;
    for (let k = 0; k < 3; k++) pixels.data[i + k] = pixels.data[i + k]! + noise;
  }
  c.putImageData(pixels, 0, 0);
}

/** Colours of a kite: left panel, right panel, tail and lower right. */
export type KiteColours = readonly [string, string, string];
export const RED: KiteColours = ['#E4572E', '#F4C430', '#C23A18'];
export const GOLD: KiteColours = ['#F4C430', '#FFF1C9', '#E08A1E'];
export const BLUE: KiteColours = ['#2E6E9E', '#F3E6CF', '#1E4D6E'];
export const PLUM: KiteColours = ['#6B3F7E', '#F2A541', '#4A2A5A'];
export const GREEN: KiteColours = ['#1E7F6E', '#F4E3B5', '#14594D'];
export const WHITE: KiteColours = ['#F3E6CF', '#E4572E', '#D8C4A0'];

/** A kite seen flat, as it lies or hangs: the same panels without a tail. */
export function heldKite(
  c: Context,
  x: number,
  y: number,
  size: number,
  lean: number,
  colours: KiteColours,
): void {
  kite(c, x, y, size, lean, colours, 0, 0);
}

/** Small three-cornered flags on a sagging rope. */
export function pennants(
  c: Context,
  from: readonly [number, number],
  to: readonly [number, number],
  sag: number,
  size: number,
  colours: readonly string[],
  time = 0,
): void {
  const at = (t: number): [number, number] => [
    from[0] + (to[0] - from[0]) * t,
    from[1] + (to[1] - from[1]) * t + Math.sin(Math.PI * t) * sag,
  ];
  c.strokeStyle = 'rgba(40,30,40,0.7)';
  c.lineWidth = Math.max(1, size * 0.05);
  c.beginPath();
  for (let i = 0; i <= 40; i++) c.lineTo(...at(i / 40));
  c.stroke();
  const count = Math.floor(Math.hypot(to[0] - from[0], to[1] - from[1]) / (size * 1.35));
  for (let i = 0; i < count; i++) {
    const [x, y] = at((i + 0.5) / count);
    const blown = Math.sin(i * 1.7 + time * 5) * 0.22 + 0.25;
    c.fillStyle = colours[i % colours.length]!;
    c.beginPath();
    c.moveTo(x - size * 0.45, y);
    c.lineTo(x + size * 0.45, y);
    c.lineTo(x + size * blown, y + size * 1.1);
    c.closePath();
    c.fill();
  }
}

/** A hand with a spool of line, as a dark shape against the light; the spool turns. */
export function handWithSpool(
  c: Context,
  x: number,
  y: number,
  size: number,
  turn: number,
  tint: string,
): void {
  c.save();
  c.translate(x, y);
  c.lineCap = 'round';
  c.lineJoin = 'round';
  // The sleeve comes in from below.
  c.strokeStyle = mixColours(tint, '#000000', 0.25);
  c.lineWidth = size * 0.62;
  c.beginPath();
  c.moveTo(-size * 1.5, size * 2.6);
  c.quadraticCurveTo(-size * 0.9, size * 1.3, -size * 0.35, size * 0.55);
  c.stroke();
  c.strokeStyle = tint;
  c.lineWidth = size * 0.46;
  c.beginPath();
  c.moveTo(-size * 0.62, size * 0.95);
  c.lineTo(-size * 0.12, size * 0.12);
  c.stroke();
  // The spool: a wound barrel between two rims.
  c.save();
  c.rotate(-0.35);
  const barrel = c.createLinearGradient(0, -size * 0.4, 0, size * 0.4);
  barrel.addColorStop(0, '#F6E7C4');
  barrel.addColorStop(0.5, '#E0B86A');
  barrel.addColorStop(1, '#9A6B2E');
  c.fillStyle = barrel;
  c.fillRect(-size * 0.5, -size * 0.36, size, size * 0.72);
  c.strokeStyle = 'rgba(90,50,20,0.35)';
  c.lineWidth = size * 0.02;
  c.beginPath();
  for (let i = 0; i < 16; i++) {
    const at = -0.48 + ((i / 16 + turn * 0.06) % 1) * 0.96;
    c.moveTo(size * at, -size * 0.36);
    c.lineTo(size * (at + 0.03), size * 0.36);
  }
  c.stroke();
  for (const side of [-1, 1]) {
    c.fillStyle = side < 0 ? '#8F2B14' : '#C8431C';
    c.beginPath();
    c.ellipse(side * size * 0.54, 0, size * 0.13, size * 0.54, 0, 0, Math.PI * 2);
    c.fill();
    const mark = turn * Math.PI * 2;
    c.fillStyle = '#F2A541';
    c.beginPath();
    c.arc(side * size * 0.54 + Math.sin(mark) * size * 0.04, Math.cos(mark) * size * 0.34, size * 0.05, 0, 7);
    c.fill();
  }
  c.restore();
  // Fingers over the barrel.
  c.strokeStyle = tint;
  c.lineWidth = size * 0.2;
  for (let i = 0; i < 4; i++) {
    const fx = -size * 0.32 + i * size * 0.2;
    c.beginPath();
    c.moveTo(fx, size * 0.3 - i * size * 0.07);
    c.quadraticCurveTo(
      fx - size * 0.06,
      -size * 0.1 - i * size * 0.06,
      fx + size * 0.1,
      -size * 0.3 - i * size * 0.05,
    );
    c.stroke();
  }
  c.restore();
}
