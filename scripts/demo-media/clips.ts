import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { type Canvas, createCanvas } from '@napi-rs/canvas';
import { randomAt } from '../../packages/core/src/motion/random';
import { type Clip, ease, RATE, wander } from './clip';
import { FILM_CLIPS } from './filmClips';
import {
  BLUE,
  clouds,
  GOLD,
  GREEN,
  glow,
  grass,
  handWithSpool,
  hill,
  type KiteColours,
  kite,
  PLUM,
  pennants,
  person,
  RED,
  sky,
  string,
  vignette,
} from './paint';

/** Short clips of the kite weekend. Each is a still backdrop, painted once, and what moves before it. */

const crossing: Clip = {
  width: 960,
  height: 540,
  seconds: 6,
  backdrop: (c, w, h) => {
    sky(c, w, h, ['#3E7FA8', '#86BCCB', '#F3D9B4', '#F6BE90']);
    glow(c, w * 0.3, h * 0.7, h * 0.8, '#FFE2A8', 0.9);
    clouds(c, w, h, 0.3, 5, '#FFF1DE');
    hill(c, w, h, 0.72, 0.05, 3, '#8FA7B0', '#B9B7A4');
    hill(c, w, h, 0.8, 0.05, 9, '#5F8574', '#87966A');
    grass(c, w, hill(c, w, h, 0.9, 0.05, 14, '#3E6B4E', '#1E4433'), h * 0.025, '#2A5740', 3);
  },
  moment: (c, w, h, t, backdrop) => {
    c.drawImage(backdrop, 0, 0);
    const flown: [number, number, number, number, KiteColours][] = [
      [-0.16, 0.42, 0.06, 0.16, BLUE],
      [-0.02, 0.24, 0.085, 0.19, GOLD],
      [0.1, 0.4, 0.135, 0.135, RED],
    ];
    flown.forEach(([from, level, size, speed, colours], i) => {
      const x = (from + speed * t) * w;
      const y = (level + 0.05 * wander(t, i * 2)) * h;
      const lean = 0.35 + 0.22 * wander(t * 1.2, i + 5);
      string(c, x, y, (0.22 + i * 0.16 + 0.01 * t) * w, h * 0.93, 'rgba(40,40,50,0.45)', 1.2);
      kite(c, x, y, size * h * 1.15, lean, colours, i, 1, t);
    });
    vignette(c, w, h);
  },
};

const near: Clip = {
  width: 960,
  height: 540,
  seconds: 6,
  backdropWidth: 1160,
  backdrop: (c, w, h) => {
    sky(c, w, h, ['#1F5F86', '#4F9BB8', '#A9D3D2', '#F4E2B8']);
    glow(c, w * 0.2, h * 0.9, h * 0.7, '#FFE9B0', 0.8);
    clouds(c, w, h, 0.72, 8, '#FFFFFF');
    clouds(c, w, h, 0.4, 19, '#FFFFFF');
  },
  moment: (c, w, h, t, backdrop) => {
    c.drawImage(backdrop, -20 - 26 * t, 0);
    const x = w * (0.52 + 0.07 * wander(t, 1));
    const y = h * (0.44 + 0.08 * wander(t * 1.1, 4));
    string(c, x, y, -w * 0.05, h * 1.25, 'rgba(30,40,60,0.55)', 2.4);
    kite(c, x, y, h * 0.36, 0.4 + 0.2 * wander(t * 1.3, 2), RED, 2, 0.8, t * 1.2);
    vignette(c, w, h);
  },
};

const crowd: Clip = {
  width: 960,
  height: 540,
  seconds: 6,
  backdrop: (c, w, h) => {
    sky(c, w, h, ['#2A2450', '#6B3F6E', '#D9693F', '#F8B25C', '#FBD98A']);
    glow(c, w * 0.5, h * 0.7, h * 0.6, '#FFE7A6', 1);
    c.fillStyle = '#FFF3CE';
    c.beginPath();
    c.arc(w * 0.5, h * 0.66, h * 0.09, 0, Math.PI * 2);
    c.fill();
    clouds(c, w, h, 0.34, 12, '#F7A28A');
    hill(c, w, h, 0.76, 0.03, 7, '#8A4A52', '#5C3347');
  },
  moment: (c, w, h, t, backdrop) => {
    c.drawImage(backdrop, 0, 0);
    const edge = hill(c, w, h, 0.86, 0.06, 6, '#2A1B33', '#140D1E');
    grass(c, w, edge, h * 0.03, '#1B1226', 7);
    const flown: [number, number, number, KiteColours][] = [
      [0.22, 0.26, 0.1, RED],
      [0.68, 0.2, 0.08, GOLD],
      [0.86, 0.4, 0.05, PLUM],
    ];
    flown.forEach(([x, y, s, colours], i) => {
      const [kx, ky] = [(x + 0.03 * wander(t, i)) * w, (y + 0.04 * wander(t * 1.1, i + 3)) * h];
      string(c, kx, ky, w * (0.3 + i * 0.16), h * 0.78, 'rgba(30,16,36,0.55)', 1.1);
      kite(c, kx, ky, s * h, -0.2 + 0.3 * wander(t, i + 7), colours, i + 3, 1, t);
    });
    for (let i = 0; i < 26; i++) {
      const x = w * (0.02 + (0.96 * (i + 0.6 * randomAt(41, i))) / 26);
      const tall = h * (0.1 + 0.06 * randomAt(42, i));
      const hop = i % 6 === 2 ? Math.max(0, Math.sin(t * 3.4 + i)) * h * 0.012 : 0;
      person(c, x, edge(x) + h * 0.02 - hop, tall, '#140D1E', i + 60, i % 3 === 2, t);
    }
    vignette(c, w, h);
  },
};

const drifting: Clip = {
  width: 960,
  height: 540,
  seconds: 6,
  backdropWidth: 1440,
  backdrop: (c, w, h) => {
    for (const [i, level] of [0.16, 0.36, 0.58, 0.8].entries()) clouds(c, w, h, level, 23 + i, '#FFFFFF');
  },
  moment: (c, w, h, t, backdrop) => {
    sky(c, w, h, ['#1C5F94', '#4A95BE', '#A5D2DA', '#E8E4C8']);
    glow(c, w * 0.78, h * 0.18, h * 0.5, '#FFFBE4', 1);
    c.globalAlpha = 0.55;
    c.drawImage(backdrop, -40 * t - 90, -h * 0.1, 1440, h * 1.1);
    c.globalAlpha = 1;
    c.drawImage(backdrop, -74 * t, 0);
    kite(
      c,
      w * (0.3 + 0.02 * wander(t, 6)),
      h * (0.42 + 0.03 * wander(t, 3)),
      h * 0.06,
      0.3 + 0.1 * wander(t, 8),
      RED,
      4,
      1.2,
      t,
    );
    vignette(c, w, h);
  },
};

const line: Clip = {
  width: 960,
  height: 540,
  seconds: 6,
  backdrop: (c, w, h) => {
    sky(c, w, h, ['#2F6F93', '#8CC0C8', '#F6DDB0']);
    glow(c, w * 0.8, h * 0.16, h * 0.8, '#FFF0C4', 0.9);
    for (let i = 0; i < 14; i++)
      glow(
        c,
        randomAt(51, i) * w,
        h * (0.6 + 0.4 * randomAt(52, i)),
        w * (0.04 + 0.07 * randomAt(53, i)),
        '#FFF6DA',
        0.2,
      );
    hill(c, w, h, 0.95, 0.03, 5, '#7FA37E', '#3F6E55');
  },
  moment: (c, w, h, t, backdrop) => {
    c.drawImage(backdrop, 0, 0);
    const pull = wander(t * 1.4, 2);
    const [hx, hy] = [w * 0.42 + 8 * pull, h * 0.62 + 10 * wander(t * 1.2, 5)];
    const [kx, ky] = [w * (0.84 + 0.03 * wander(t, 1)), h * (0.18 + 0.05 * wander(t, 4))];
    string(c, kx, ky, hx + h * 0.06, hy - h * 0.04, 'rgba(40,40,50,0.75)', 2.6);
    kite(c, kx, ky, h * 0.085, 0.35 + 0.2 * wander(t, 3), GOLD, 3, 1, t);
    handWithSpool(c, hx, hy, h * 0.27, t * 0.9 + pull * 0.1, '#7A4632');
    vignette(c, w, h);
  },
};

/** Held upright, as phones are: a kite goes up past the pennants. */
const tall: Clip = {
  width: 540,
  height: 960,
  seconds: 5,
  backdrop: (c, w, h) => {
    sky(c, w, h, ['#3D86B0', '#8CC3CF', '#F5E3BE', '#F8CB98']);
    glow(c, w * 0.5, h * 0.74, h * 0.4, '#FFF1C8', 0.9);
    clouds(c, w, h, 0.2, 37, '#FFFFFF');
    clouds(c, w, h, 0.5, 39, '#FFF6E6');
    hill(c, w, h, 0.8, 0.03, 41, '#8FA7A0', '#A9B08A');
    grass(c, w, hill(c, w, h, 0.9, 0.03, 45, '#3E6B4E', '#1E4433'), h * 0.018, '#2A5740', 3);
  },
  moment: (c, w, h, t, backdrop) => {
    c.drawImage(backdrop, 0, 0);
    const up = ease(Math.min(1, t / 4.4));
    const x = w * (0.5 + 0.13 * wander(t, 2));
    const y = h * (0.78 - 0.52 * up) + h * 0.015 * wander(t * 1.3, 5);
    string(c, x, y, w * 0.3, h * 0.86, 'rgba(40,40,50,0.5)', 1.6);
    kite(c, x, y, w * 0.2, 0.25 * wander(t * 1.3, 3), GREEN, 5, 1, t);
    pennants(
      c,
      [-10, h * 0.06],
      [w + 10, h * 0.1],
      h * 0.03,
      w * 0.07,
      ['#C8431C', '#F2A541', '#2E6E9E', '#FFF6E6'],
      t,
    );
    for (let i = 0; i < 5; i++)
      person(
        c,
        w * (0.14 + 0.17 * i),
        h * (0.915 + 0.01 * (i % 2)),
        h * (0.075 + 0.02 * randomAt(81, i)),
        '#1C3A30',
        i + 30,
        i === 1 || i === 3,
        t,
      );
    vignette(c, w, h);
  },
};

export const CLIPS = {
  'kites-crossing': crossing,
  'kite-near': near,
  'crowd-on-the-hill': crowd,
  'drifting-sky': drifting,
  'hand-and-line': line,
  'kite-going-up': tall,
  ...FILM_CLIPS,
} as const satisfies Record<string, Clip>;

/** Writes a clip as H.264 in MP4, and a small picture of it; ffmpeg encodes. */
export async function writeClip(name: keyof typeof CLIPS, path: string, thumb: string): Promise<void> {
  const { width, height, seconds, backdrop, moment, ...rest } = CLIPS[name] as Clip;
  const still = createCanvas(rest.backdropWidth ?? width, height);
  backdrop(still.getContext('2d'), still.width, height);
  const encoder = spawn(
    'ffmpeg',
    [
      ...['-v', 'error', '-y', '-f', 'rawvideo', '-pix_fmt', 'rgba', '-s', `${width}x${height}`],
      ...['-r', String(RATE), '-i', 'pipe:0', '-vf', 'scale=out_color_matrix=bt709:out_range=tv'],
      ...['-c:v', 'libx264', '-preset', 'slow', '-crf', '25', '-pix_fmt', 'yuv420p', '-g', '50'],
      ...['-color_primaries', 'bt709', '-color_trc', 'bt709', '-colorspace', 'bt709', '-color_range', 'tv'],
      // The same bytes on every run.
      ...['-threads', '1', '-fflags', '+bitexact', '-flags:v', '+bitexact', '-movflags', '+faststart', path],
    ],
    { stdio: ['pipe', 'inherit', 'inherit'] },
  );
  const canvas = createCanvas(width, height);
  const c = canvas.getContext('2d');
  const count = seconds * RATE;
  for (let frame = 0; frame < count; frame++) {
    moment(c, width, height, frame / RATE, still);
    const pixels = Buffer.from(c.getImageData(0, 0, width, height).data.buffer);
    if (!encoder.stdin.write(pixels)) await once(encoder.stdin, 'drain');
    if (frame === Math.round(count * 0.4)) await writeThumb(canvas, thumb);
  }
  encoder.stdin.end();
  const [code] = await once(encoder, 'close');
  if (code !== 0) throw new Error(`ffmpeg could not write ${path}.`);
}

async function writeThumb(canvas: Canvas, path: string): Promise<void> {
  const k = 320 / Math.max(canvas.width, canvas.height);
  const small = createCanvas(Math.round(canvas.width * k), Math.round(canvas.height * k));
  small.getContext('2d').drawImage(canvas, 0, 0, small.width, small.height);
  const { writeFile } = await import('node:fs/promises');
  await writeFile(path, await small.encode('webp', 84));
}
