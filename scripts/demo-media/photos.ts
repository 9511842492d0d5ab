import { createCanvas } from '@napi-rs/canvas';
import { randomAt } from '../../packages/core/src/motion/random';
import {
  BLUE,
  type Context,
  clouds,
  finish,
  GOLD,
  GREEN,
  glow,
  grass,
  handWithSpool,
  heldKite,
  hill,
  type KiteColours,
  kite,
  PLUM,
  pennants,
  person,
  RED,
  sky,
  string,
  WHITE,
} from './paint';

type Scene = (context: Context, width: number, height: number) => void;

/** Many kites over the hill, early. */
const morning: Scene = (c, w, h) => {
  sky(c, w, h, ['#3E7FA8', '#7FB6C9', '#F3D7B0', '#F6B88A']);
  glow(c, w * 0.72, h * 0.62, h * 0.8, '#FFE2A8', 0.9);
  clouds(c, w, h, 0.3, 5, '#FFF1DE');
  hill(c, w, h, 0.66, 0.05, 3, '#8FA7B0', '#B9B7A4');
  hill(c, w, h, 0.74, 0.06, 9, '#5F8574', '#87966A');
  const near = hill(c, w, h, 0.86, 0.07, 14, '#3E6B4E', '#1E4433');
  grass(c, w, near, h * 0.022, '#2A5740', 3);
  const flown: [number, number, number, number, [string, string, string]][] = [
    [0.3, 0.3, 0.11, -0.35, ['#D9432B', '#F2A541', '#B9331B']],
    [0.56, 0.18, 0.075, 0.25, ['#F4C430', '#FFF1C9', '#E08A1E']],
    [0.72, 0.36, 0.055, -0.2, ['#2E6E9E', '#F3E6CF', '#1E4D6E']],
    [0.86, 0.2, 0.045, 0.4, ['#6B3F7E', '#F2A541', '#4A2A5A']],
    [0.14, 0.14, 0.04, 0.1, ['#1E7F6E', '#F4E3B5', '#14594D']],
    [0.46, 0.44, 0.036, -0.4, ['#D9432B', '#FFFFFF', '#8F2412']],
  ];
  flown.forEach(([x, y, s, lean, colours], i) => {
    const hand = w * (0.2 + i * 0.1);
    string(c, x * w, y * h, hand, near(hand) - h * 0.03, 'rgba(40,40,50,0.35)', h * 0.0014);
    kite(c, x * w, y * h, s * h, lean, colours, i);
  });
  for (let i = 0; i < 26; i++) {
    const x = w * (0.05 + 0.9 * randomAt(21, i));
    person(c, x, near(x) + h * 0.008, h * (0.035 + 0.012 * randomAt(22, i)), '#1C3A30', i, i % 3 === 0);
  }
  finish(c, w, h, 1);
};

/** One kite, near, against a soft afternoon. */
const closeUp: Scene = (c, w, h) => {
  sky(c, w, h, ['#1F5F86', '#4F9BB8', '#A9D3D2', '#F4E2B8']);
  glow(c, w * 0.2, h * 0.86, h * 0.6, '#FFE9B0', 0.8);
  for (let i = 0; i < 16; i++) {
    glow(
      c,
      randomAt(31, i) * w,
      h * (0.55 + 0.45 * randomAt(32, i)),
      w * (0.05 + 0.09 * randomAt(33, i)),
      '#FFF6DA',
      0.22,
    );
  }
  clouds(c, w, h, 0.66, 8, '#FFFFFF');
  hill(c, w, h, 0.94, 0.03, 4, '#6F9A78', '#3F6E55');
  string(c, w * 0.52, h * 0.42, w * 0.06, h * 1.02, 'rgba(30,40,60,0.55)', w * 0.003);
  kite(c, w * 0.52, h * 0.38, w * 0.27, 0.42, ['#E4572E', '#F4C430', '#C23A18'], 2, 0.85);
  kite(c, w * 0.14, h * 0.3, w * 0.06, -0.3, ['#2B3E73', '#F3E6CF', '#1B2850'], 5);
  finish(c, w, h, 2);
};

/** The crowd on the hill, a low sun behind it. */
const dusk: Scene = (c, w, h) => {
  sky(c, w, h, ['#2A2450', '#6B3F6E', '#D9693F', '#F8B25C', '#FBD98A']);
  glow(c, w * 0.5, h * 0.7, h * 0.6, '#FFE7A6', 1);
  c.fillStyle = '#FFF3CE';
  c.beginPath();
  c.arc(w * 0.5, h * 0.68, h * 0.075, 0, Math.PI * 2);
  c.fill();
  clouds(c, w, h, 0.34, 12, '#F7A28A');
  hill(c, w, h, 0.78, 0.03, 7, '#8A4A52', '#5C3347');
  const near = hill(c, w, h, 0.85, 0.06, 6, '#2A1B33', '#140D1E');
  grass(c, w, near, h * 0.03, '#1B1226', 7);
  const flown: [number, number, number, number, [string, string, string]][] = [
    [0.24, 0.26, 0.085, -0.3, ['#E4572E', '#F2A541', '#A83214']],
    [0.66, 0.2, 0.065, 0.3, ['#F4C430', '#FBE7B0', '#C77E1A']],
    [0.84, 0.42, 0.04, -0.2, ['#C23A5A', '#F6C6A8', '#7E2440']],
    [0.44, 0.42, 0.032, 0.2, ['#3F3A7E', '#F3D7B0', '#2A2658']],
  ];
  flown.forEach(([x, y, s, lean, colours], i) => {
    const hand = w * (0.3 + i * 0.14);
    string(c, x * w, y * h, hand, near(hand) - h * 0.07, 'rgba(30,16,36,0.55)', h * 0.0018);
    kite(c, x * w, y * h, s * h, lean, colours, i + 3);
  });
  for (let i = 0; i < 30; i++) {
    const x = w * (0.02 + (0.96 * (i + 0.6 * randomAt(41, i))) / 30);
    person(c, x, near(x) + h * 0.02, h * (0.075 + 0.045 * randomAt(42, i)), '#140D1E', i + 60, i % 7 === 2);
  }
  finish(c, w, h, 3);
};

/** Kites of the loft hanging to dry, close together. */
const loft: Scene = (c, w, h) => {
  sky(c, w, h, ['#3A2A2E', '#7A4A3A', '#C98A58']);
  glow(c, w * 0.82, h * 0.2, h * 0.9, '#FFE3A8', 0.9);
  for (let i = 0; i < 5; i++) {
    c.fillStyle = `rgba(30,18,20,${0.28 - i * 0.03})`;
    c.fillRect(w * (0.02 + i * 0.21), 0, w * 0.012, h);
  }
  pennants(c, [-20, h * 0.08], [w + 20, h * 0.05], h * 0.05, h * 0.06, [
    '#C8431C',
    '#F2A541',
    '#1E7F6E',
    '#F3E6CF',
  ]);
  const hung: [number, number, number, number, KiteColours][] = [
    [0.16, 0.5, 0.26, -0.1, BLUE],
    [0.39, 0.46, 0.3, 0.06, RED],
    [0.63, 0.52, 0.27, -0.05, GOLD],
    [0.86, 0.48, 0.25, 0.12, PLUM],
  ];
  for (const [x, y, s, lean, colours] of hung) {
    string(c, x * w, (y - s) * h, x * w + 6, h * 0.09, 'rgba(40,24,24,0.6)', h * 0.002);
    heldKite(c, x * w, y * h, s * h, lean, colours);
  }
  bench(c, w, h);
  finish(c, w, h, 4);
};

/** A workbench edge below. */
function bench(c: Context, w: number, h: number): void {
  const g = c.createLinearGradient(0, h * 0.88, 0, h);
  g.addColorStop(0, '#5A3524');
  g.addColorStop(1, '#2A1810');
  c.fillStyle = g;
  c.fillRect(0, h * 0.88, w, h * 0.12);
  c.fillStyle = 'rgba(255,226,168,0.35)';
  c.fillRect(0, h * 0.88, w, h * 0.008);
}

/** The hand that holds the line. */
const spool: Scene = (c, w, h) => {
  sky(c, w, h, ['#2F6F93', '#8CC0C8', '#F6DDB0']);
  glow(c, w * 0.78, h * 0.16, h * 0.8, '#FFF0C4', 0.9);
  for (let i = 0; i < 12; i++)
    glow(
      c,
      randomAt(51, i) * w,
      h * (0.6 + 0.4 * randomAt(52, i)),
      w * (0.05 + 0.08 * randomAt(53, i)),
      '#FFF6DA',
      0.2,
    );
  hill(c, w, h, 0.92, 0.03, 5, '#7FA37E', '#3F6E55');
  string(c, w * 0.86, h * 0.1, w * 0.5, h * 0.55, 'rgba(40,40,50,0.7)', w * 0.003);
  kite(c, w * 0.86, h * 0.12, h * 0.07, 0.4, RED, 3);
  handWithSpool(c, w * 0.46, h * 0.6, h * 0.24, 0.1, '#7A4632');
  finish(c, w, h, 5);
};

/** The path up the hill, people on it, pennants along it. */
const path: Scene = (c, w, h) => {
  sky(c, w, h, ['#4A90B4', '#A8D4D6', '#F8E8C4']);
  clouds(c, w, h, 0.22, 17, '#FFFFFF');
  hill(c, w, h, 0.5, 0.05, 21, '#8FB0A0', '#7C9C72');
  const near = hill(c, w, h, 0.62, 0.06, 25, '#5E8F5E', '#2F5F44');
  c.fillStyle = '#E5CFA0';
  c.beginPath();
  c.moveTo(w * 0.34, h);
  c.bezierCurveTo(w * 0.5, h * 0.84, w * 0.36, h * 0.74, w * 0.56, near(w * 0.56) + 6);
  c.lineTo(w * 0.585, near(w * 0.585) + 6);
  c.bezierCurveTo(w * 0.48, h * 0.76, w * 0.72, h * 0.86, w * 0.66, h);
  c.closePath();
  c.fill();
  grass(c, w, near, h * 0.02, '#3F7350', 9);
  for (let i = 0; i < 9; i++) {
    const t = i / 8;
    person(
      c,
      w * (0.5 + 0.07 * Math.sin(i * 2.1)),
      h * (0.98 - t * 0.36),
      h * (0.17 - t * 0.13),
      '#24443A',
      i + 90,
      i % 4 === 1,
    );
  }
  pennants(c, [w * 0.04, h * 0.5], [w * 0.36, h * 0.66], h * 0.05, h * 0.045, [
    '#C8431C',
    '#F2A541',
    '#2E6E9E',
    '#F3E6CF',
  ]);
  kite(c, w * 0.8, h * 0.24, h * 0.1, 0.35, GREEN, 4);
  kite(c, w * 0.2, h * 0.2, h * 0.06, -0.3, RED, 8);
  finish(c, w, h, 6);
};

/** One kite straight above, against the noon. */
const noon: Scene = (c, w, h) => {
  sky(c, w, h, ['#1C5F94', '#3F8EBB', '#86C1D2']);
  glow(c, w * 0.68, h * 0.22, h * 0.55, '#FFFBE4', 1);
  clouds(c, w, h, 0.78, 23, '#FFFFFF');
  kite(c, w * 0.44, h * 0.4, h * 0.24, -0.5, GOLD, 6, 1.1);
  finish(c, w, h, 7);
};

/** Tails alone, blown across the picture. */
const tails: Scene = (c, w, h) => {
  sky(c, w, h, ['#F7D9A8', '#F0A36A', '#C9573F']);
  glow(c, w * 0.3, h * 0.75, h * 0.9, '#FFF0C0', 0.8);
  for (const [i, colours] of [PLUM, RED, BLUE, GOLD].entries()) {
    kite(
      c,
      w * (0.16 + i * 0.24),
      h * (0.02 + 0.1 * (i % 2)),
      h * 0.22,
      -0.7 + i * 0.07,
      colours,
      i * 2,
      1.05,
    );
  }
  finish(c, w, h, 8);
};

/** Night: lights in the kites, the crowd below. */
const lanterns: Scene = (c, w, h) => {
  sky(c, w, h, ['#0B1030', '#1C2350', '#4A3A6A', '#B5616A']);
  for (let i = 0; i < 90; i++)
    glow(c, randomAt(61, i) * w, randomAt(62, i) * h * 0.6, 2 + 3 * randomAt(63, i), '#FFF8E0', 0.7);
  const lit: [number, number, number, number, KiteColours][] = [
    [0.24, 0.34, 0.14, -0.2, GOLD],
    [0.55, 0.24, 0.11, 0.24, RED],
    [0.78, 0.42, 0.12, -0.1, WHITE],
  ];
  const near = hill(c, w, h, 0.86, 0.05, 31, '#17142E', '#0A0818');
  lit.forEach(([x, y, s, lean, colours], i) => {
    glow(c, x * w, y * h, s * h * 3, '#FFC766', 0.75);
    string(
      c,
      x * w,
      y * h,
      w * (0.3 + i * 0.18),
      near(w * (0.3 + i * 0.18)) - h * 0.06,
      'rgba(255,220,160,0.35)',
      h * 0.0016,
    );
    kite(c, x * w, y * h, s * h, lean, colours, i + 11);
  });
  for (let i = 0; i < 22; i++) {
    const x = w * (0.03 + 0.045 * i);
    person(c, x, near(x) + h * 0.02, h * (0.075 + 0.03 * randomAt(64, i)), '#080612', i + 120, i % 5 === 2);
  }
  finish(c, w, h, 9);
};

/** The tent by the gate. */
const tent: Scene = (c, w, h) => {
  sky(c, w, h, ['#5FA4C0', '#BFE0DC', '#FBEBC8']);
  clouds(c, w, h, 0.3, 29, '#FFFFFF');
  hill(c, w, h, 0.72, 0.04, 33, '#86A98A', '#5F8A5F');
  const base = h * 0.84;
  for (let i = 0; i < 8; i++) {
    c.fillStyle = i % 2 ? '#F7EBD2' : '#C8431C';
    c.beginPath();
    c.moveTo(w * 0.5, h * 0.26);
    c.lineTo(w * (0.2 + i * 0.075), h * 0.56);
    c.lineTo(w * (0.275 + i * 0.075), h * 0.56);
    c.closePath();
    c.fill();
    c.fillStyle = i % 2 ? '#E8D8B8' : '#A83618';
    c.fillRect(w * (0.2 + i * 0.075), h * 0.56, w * 0.0755, base - h * 0.56);
  }
  c.fillStyle = '#2A1B20';
  c.beginPath();
  c.moveTo(w * 0.425, base);
  c.lineTo(w * 0.46, h * 0.6);
  c.lineTo(w * 0.54, h * 0.6);
  c.lineTo(w * 0.575, base);
  c.closePath();
  c.fill();
  const near = hill(c, w, h, 0.88, 0.03, 35, '#4F8455', '#2A5740');
  grass(c, w, near, h * 0.024, '#356847', 13);
  pennants(c, [w * 0.5, h * 0.26], [w * 0.02, h * 0.5], h * 0.05, h * 0.045, [
    '#F2A541',
    '#2E6E9E',
    '#F3E6CF',
  ]);
  pennants(c, [w * 0.5, h * 0.26], [w * 0.98, h * 0.5], h * 0.05, h * 0.045, [
    '#F2A541',
    '#1E7F6E',
    '#F3E6CF',
  ]);
  for (let i = 0; i < 8; i++) {
    const x = w * (0.1 + 0.115 * i);
    person(c, x, near(x) + h * 0.03, h * (0.15 + 0.03 * randomAt(71, i)), '#26382F', i + 140, i === 5);
  }
  finish(c, w, h, 10);
};

/** The maker and her kite, against the light. */
const maker: Scene = (c, w, h) => {
  sky(c, w, h, ['#F4B26A', '#F7D59A', '#FBEFD2']);
  glow(c, w * 0.5, h * 0.42, h * 0.6, '#FFF7DC', 1);
  hill(c, w, h, 0.8, 0.03, 41, '#C79A6A', '#7A5A48');
  const near = hill(c, w, h, 0.92, 0.02, 43, '#4A3A38', '#1E1618');
  person(c, w * 0.34, near(w * 0.34) + h * 0.012, h * 0.27, '#241A20', 7, true);
  string(c, w * 0.6, h * 0.36, w * 0.405, h * 0.66, 'rgba(30,20,24,0.6)', h * 0.0022);
  kite(c, w * 0.6, h * 0.32, h * 0.2, 0.35, RED, 5, 0.9);
  finish(c, w, h, 11);
};

/** A gust before the rain. */
const gust: Scene = (c, w, h) => {
  sky(c, w, h, ['#2E3F52', '#5D7688', '#A9B8B4', '#DCCFA8']);
  clouds(c, w, h, 0.2, 47, '#C4CDD0');
  clouds(c, w, h, 0.34, 49, '#8C9AA4');
  hill(c, w, h, 0.78, 0.05, 51, '#5F7A70', '#40584E');
  const near = hill(c, w, h, 0.88, 0.05, 53, '#34503F', '#182A22');
  grass(c, w, near, h * 0.06, '#27402F', 15);
  string(c, w * 0.7, h * 0.3, w * 0.18, near(w * 0.18) - h * 0.12, 'rgba(20,26,32,0.6)', h * 0.002);
  kite(c, w * 0.7, h * 0.32, h * 0.17, 0.85, RED, 9, 1.2);
  kite(c, w * 0.36, h * 0.2, h * 0.07, 0.7, GREEN, 2, 1.2);
  person(c, w * 0.16, near(w * 0.16) + h * 0.02, h * 0.22, '#141C1A', 4, true);
  finish(c, w, h, 12);
};

const SCENES = {
  morning: [morning, 1500, 1000],
  'close-up': [closeUp, 960, 1280],
  dusk: [dusk, 1200, 1200],
  loft: [loft, 1200, 800],
  spool: [spool, 1200, 800],
  path: [path, 900, 1200],
  noon: [noon, 1000, 1000],
  tails: [tails, 1200, 675],
  lanterns: [lanterns, 1200, 800],
  tent: [tent, 1200, 900],
  maker: [maker, 900, 1200],
  gust: [gust, 1200, 675],
} as const satisfies Record<string, readonly [Scene, number, number]>;

export const PHOTOS = Object.keys(SCENES) as (keyof typeof SCENES)[];

/** A photo as JPEG bytes: always the same for the same machine of canvas. */
export async function photo(name: keyof typeof SCENES): Promise<Buffer> {
  const [draw, w, h] = SCENES[name];
  const canvas = createCanvas(w, h);
  draw(canvas.getContext('2d'), w, h);
  return canvas.encode('jpeg', 80);
}
