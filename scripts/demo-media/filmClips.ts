import { randomAt } from '../../packages/core/src/motion/random';
import { type Clip, ease, wander } from './clip';
import {
  BLUE,
  type Context,
  clouds,
  GOLD,
  GREEN,
  glow,
  grass,
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
  vignette,
  WHITE,
} from './paint';

/** Clips that the demo's film is cut from, beside those that templates show: other light, other sizes, other movement. */

/** Before the sun is up: two carry their kites along the ridge, in mist. */
const dawn: Clip = {
  width: 960,
  height: 540,
  seconds: 9,
  backdropWidth: 1240,
  backdrop: (c, w, h) => {
    sky(c, w, h, ['#3B4668', '#8C7B98', '#D9A59B', '#F3CDB0']);
    glow(c, w * 0.62, h * 0.72, h * 0.7, '#FFE3C2', 0.9);
    hill(c, w, h, 0.6, 0.04, 61, '#8F8AA0', '#B5A3A8');
    hill(c, w, h, 0.7, 0.04, 64, '#6E7088', '#8F8998');
    clouds(c, w, h, 0.68, 66, '#F4DDD0');
  },
  moment: (c, w, h, t, backdrop) => {
    c.drawImage(backdrop, -22 * t, 0);
    const edge = hill(c, w, h, 0.84, 0.04, 68, '#3A3F55', '#20243A');
    grass(c, w, edge, h * 0.03, '#1B2036', 9);
    for (const [i, from] of [0.06, -0.06].entries()) {
      const x = w * (from + 0.095 * t);
      const y = edge(x) + 4 - Math.abs(Math.sin(t * 5 + i * 1.6)) * 5;
      person(c, x, y, h * 0.26, '#171B2E', 90 + i, true, t);
      heldKite(c, x + h * 0.02, y - h * 0.33, h * 0.085, 0.5 + 0.1 * wander(t, i), i ? GOLD : RED);
    }
    for (let i = 0; i < 5; i++)
      glow(c, w * ((0.2 + 0.27 * i + 0.02 * t) % 1.3), h * 0.83, w * 0.16, '#E9D5CF', 0.2);
    vignette(c, w, h);
  },
};

/** Where the head of the flyer is, in parts of the frame: the bubble of the demo's film follows it. */
export const flyerHead = (t: number): [x: number, y: number] => [
  0.36 + 0.1 * wander(t * 0.8, 3),
  0.5 + 0.045 * wander(t * 1.1, 7),
];

/** A flyer from the side, looking up at her kite, scarf in the wind. */
const flyer: Clip = {
  width: 960,
  height: 540,
  seconds: 10,
  backdrop: (c, w, h) => {
    sky(c, w, h, ['#2C7DA0', '#79B8CB', '#CFE5D6', '#F8E7B9']);
    glow(c, w * 0.85, h * 0.3, h * 0.8, '#FFF3C9', 0.9);
    clouds(c, w, h, 0.36, 71, '#FFFFFF');
    hill(c, w, h, 0.86, 0.05, 73, '#7FA37E', '#4B7A5B');
  },
  moment: (c, w, h, t, backdrop) => {
    c.drawImage(backdrop, 0, 0);
    const [px, py] = flyerHead(t);
    const [x, y] = [px * w, py * h];
    const r = h * 0.105;
    const [kx, ky] = [w * (0.83 + 0.03 * wander(t, 1)), h * (0.17 + 0.05 * wander(t, 4))];
    // A coat that leans back into the pull.
    const coat = c.createLinearGradient(x - r * 2, y, x + r * 2, h);
    coat.addColorStop(0, '#C43D2B');
    coat.addColorStop(1, '#7E2119');
    c.fillStyle = coat;
    c.beginPath();
    c.moveTo(x - r * 0.5, y + r * 0.8);
    c.quadraticCurveTo(x - r * 2.3, y + r * 1.5, x - r * 2.7, h + 10);
    c.lineTo(x + r * 1.8, h + 10);
    c.quadraticCurveTo(x + r * 1.4, y + r * 1.8, x + r * 0.4, y + r * 0.85);
    c.closePath();
    c.fill();
    // Arms to the line.
    const [hx, hy] = [x + r * 2.3 + 6 * wander(t * 1.6, 2), y + r * 1.25 + 5 * wander(t * 1.4, 9)];
    c.strokeStyle = '#A93224';
    c.lineWidth = r * 0.62;
    c.lineCap = 'round';
    c.lineJoin = 'round';
    c.beginPath();
    c.moveTo(x - r * 0.2, y + r * 1.9);
    c.quadraticCurveTo(x + r * 1.2, y + r * 2.5, hx, hy);
    c.stroke();
    string(c, kx, ky, hx, hy, 'rgba(40,40,50,0.65)', 1.8);
    kite(c, kx, ky, h * 0.11, 0.35 + 0.2 * wander(t * 1.2, 3), GREEN, 5, 1, t);
    c.fillStyle = '#8A5238';
    c.beginPath();
    c.arc(hx, hy, r * 0.33, 0, 7);
    c.fill();
    head(c, x, y, r, t);
    vignette(c, w, h);
  },
};

/** A head in profile, to the right and a little up: hair, a cap, an ear, an eye, and a scarf that flies. */
function head(c: Context, x: number, y: number, r: number, t: number): void {
  c.save();
  c.translate(x, y);
  c.rotate(-0.22 + 0.05 * wander(t, 12));
  for (let i = 0; i < 2; i++) {
    c.strokeStyle = i ? '#F2C14E' : '#F7D98B';
    c.lineWidth = r * (0.5 - i * 0.16);
    c.lineCap = 'round';
    c.beginPath();
    c.moveTo(-r * 0.2, r * 0.95);
    for (let k = 1; k <= 14; k++) {
      const p = k / 14;
      c.lineTo(-r * (0.2 + 2.5 * p), r * (0.95 - 0.35 * p) + Math.sin(p * 6 - t * 9 + i) * r * 0.3 * p);
    }
    c.stroke();
  }
  const skin = c.createLinearGradient(-r, -r, r, r);
  skin.addColorStop(0, '#A9694A');
  skin.addColorStop(1, '#7A452F');
  c.fillStyle = skin;
  c.beginPath();
  c.arc(0, 0, r, 0, 7);
  c.fill();
  // Nose and chin make it a profile.
  c.beginPath();
  c.moveTo(r * 0.86, -r * 0.3);
  c.quadraticCurveTo(r * 1.3, r * 0.05, r * 0.92, r * 0.2);
  c.quadraticCurveTo(r * 1.02, r * 0.7, r * 0.5, r * 0.88);
  c.lineTo(r * 0.4, -r * 0.3);
  c.fill();
  c.fillStyle = '#2B1A17';
  c.beginPath();
  c.arc(-r * 0.12, -r * 0.1, r * 1.04, Math.PI * 0.62, Math.PI * 1.86);
  c.quadraticCurveTo(r * 0.1, -r * 0.5, -r * 0.1, r * 0.05);
  c.quadraticCurveTo(-r * 0.3, r * 0.5, -r * 0.42, r * 0.95);
  c.fill();
  c.fillStyle = '#F4C430';
  c.beginPath();
  c.arc(-r * 0.06, -r * 0.24, r * 1.02, Math.PI * 1.02, Math.PI * 1.96);
  c.quadraticCurveTo(r * 0.4, -r * 0.62, -r * 1.06, -r * 0.24);
  c.fill();
  c.fillStyle = '#E08A1E';
  c.beginPath();
  c.ellipse(r * 1.02, -r * 0.5, r * 0.42, r * 0.12, -0.12, 0, 7);
  c.fill();
  c.fillStyle = '#1A1210';
  c.beginPath();
  c.ellipse(r * 0.62, -r * 0.12, r * 0.09, r * (Math.sin(t * 1.3) > 0.985 ? 0.02 : 0.12), 0, 0, 7);
  c.fill();
  c.fillStyle = '#8A5238';
  c.beginPath();
  c.ellipse(-r * 0.12, r * 0.12, r * 0.18, r * 0.26, 0.1, 0, 7);
  c.fill();
  c.restore();
}

/** A squall: a dark sky, grass laid flat, one kite that fights. */
const squall: Clip = {
  width: 960,
  height: 540,
  seconds: 8,
  backdropWidth: 1500,
  backdrop: (c, w, h) => {
    sky(c, w, h, ['#1B2430', '#36434F', '#6C7A7A', '#A9A58C']);
    for (const [i, level] of [0.12, 0.3, 0.48].entries())
      clouds(c, w, h, level, 81 + i, i ? '#55636D' : '#2A343F');
    glow(c, w * 0.5, h * 0.8, h * 0.5, '#D9CFA2', 0.5);
  },
  moment: (c, w, h, t, backdrop) => {
    c.drawImage(backdrop, -62 * t, 0);
    const flash = Math.max(0, 1 - Math.abs(t - 4.2) * 14) + 0.6 * Math.max(0, 1 - Math.abs(t - 4.42) * 16);
    if (flash > 0) {
      c.globalAlpha = flash * 0.5;
      c.fillStyle = '#E9F2FF';
      c.fillRect(0, 0, w, h);
      c.globalAlpha = 1;
    }
    const edge = hill(c, w, h, 0.84, 0.05, 84, '#3A4A3C', '#151C18');
    c.strokeStyle = '#26332A';
    c.lineWidth = 2;
    c.beginPath();
    for (let i = 0; i < 420; i++) {
      const x = randomAt(85, i) * w;
      const y = edge(x) + 4;
      const tall = h * (0.02 + 0.045 * randomAt(86, i));
      const bend = 1 + 0.35 * Math.sin(t * 7 + x * 0.02);
      c.moveTo(x, y);
      c.quadraticCurveTo(x + tall * 0.5 * bend, y - tall * 0.7, x + tall * 1.25 * bend, y - tall * 0.6);
    }
    c.stroke();
    const shake = (s: number) => wander(t * 3.1, s) + 0.4 * Math.sin(t * 17 + s);
    const [x, y] = [w * (0.56 + 0.06 * shake(1)), h * (0.34 + 0.07 * shake(5))];
    string(c, x, y, w * 0.2, h * 0.82, 'rgba(15,20,24,0.7)', 1.8);
    kite(c, x, y, h * 0.13, 0.8 + 0.35 * shake(3), WHITE, 6, 1, t * 2.2);
    person(c, w * 0.2, edge(w * 0.2) + 3, h * 0.2, '#0D120F', 97, true, t * 2);
    c.strokeStyle = 'rgba(220,230,235,0.28)';
    c.lineWidth = 1;
    c.beginPath();
    for (let i = 0; i < 120; i++) {
      const rx = ((randomAt(87, i) + t * (0.9 + 0.5 * randomAt(88, i))) % 1.2) * w - 0.1 * w;
      const ry = ((randomAt(89, i) + t * 1.6) % 1) * h;
      c.moveTo(rx, ry);
      c.lineTo(rx - 16, ry - 22);
    }
    c.stroke();
    vignette(c, w, h);
  },
};

/** Night: kites with lamps on their lines over a dark hill, and lanterns along the path. */
const lamps: Clip = {
  width: 960,
  height: 540,
  seconds: 9,
  backdrop: (c, w, h) => {
    sky(c, w, h, ['#060A1F', '#0F1838', '#25275A', '#4A2F5E']);
    c.fillStyle = '#FFFFFF';
    for (let i = 0; i < 170; i++) {
      c.globalAlpha = 0.25 + 0.6 * randomAt(91, i);
      const s = randomAt(92, i) > 0.94 ? 2 : 1;
      c.fillRect(randomAt(93, i) * w, randomAt(94, i) * h * 0.75, s, s);
    }
    c.globalAlpha = 1;
    hill(c, w, h, 0.8, 0.05, 95, '#171334', '#0B0A1E');
  },
  moment: (c, w, h, t, backdrop) => {
    c.drawImage(backdrop, 0, 0);
    const edge = hill(c, w, h, 0.88, 0.04, 97, '#0E0B22', '#05050F');
    const tints = ['#FFB84D', '#FF6F59', '#5BC0BE', '#F26CA7', '#FFE66D'];
    for (let k = 0; k < 5; k++) {
      const [x, y] = [
        w * (0.14 + 0.18 * k + 0.025 * wander(t, k)),
        h * (0.22 + 0.08 * (k % 2) + 0.05 * wander(t * 1.1, k + 4)),
      ];
      const foot: [number, number] = [w * (0.22 + 0.13 * k), edge(w * (0.22 + 0.13 * k))];
      for (let i = 0; i < 9; i++) {
        const p = (i + 1) / 10;
        const lx = x + (foot[0] - x) * p - Math.sin(p * Math.PI) * 18;
        const ly = y + (foot[1] - y) * p + Math.sin(p * Math.PI) * 26;
        const lit = 0.55 + 0.45 * Math.sin(t * 2.4 + i * 0.7 + k);
        glow(c, lx, ly, 15, tints[k]!, 0.35 + 0.5 * lit);
        c.fillStyle = '#FFF9E6';
        c.fillRect(lx - 1, ly - 1, 2.4, 2.4);
      }
      glow(c, x, y, h * 0.13, tints[k]!, 0.4);
      kite(
        c,
        x,
        y,
        h * 0.06,
        0.2 + 0.25 * wander(t, k + 8),
        ([RED, GOLD, BLUE, PLUM, WHITE] as const)[k]!,
        k,
        1,
        t,
      );
    }
    for (let i = 0; i < 14; i++) {
      const x = w * ((i + 0.5) / 14);
      person(c, x, edge(x) + 5, h * (0.09 + 0.03 * randomAt(98, i)), '#04040C', i + 110, i % 5 === 1, t);
      if (i % 3 === 0) glow(c, x + 12, edge(x) - h * 0.03, 26, '#FFC86B', 0.75 + 0.15 * Math.sin(t * 5 + i));
    }
    vignette(c, w, h);
  },
};

/** The market at noon: striped roofs, flags, people who pass. */
const market: Clip = {
  width: 960,
  height: 540,
  seconds: 8,
  backdropWidth: 1300,
  backdrop: (c, w, h) => {
    sky(c, w, h, ['#3E9BC8', '#A4DAE2', '#FBF0CF']);
    clouds(c, w, h, 0.2, 101, '#FFFFFF');
    hill(c, w, h, 0.55, 0.05, 103, '#8DB38B', '#A9C08A');
    c.fillStyle = '#DCC58F';
    c.fillRect(0, h * 0.78, w, h * 0.22);
    for (let i = 0; i < 6; i++) {
      const x = i * 225 - 30;
      const [a, b] = (
        [
          ['#E4572E', '#FFF3DC'],
          ['#2E6E9E', '#F6EAD0'],
          ['#F2A541', '#FFFFFF'],
        ] as const
      )[i % 3]!;
      c.fillStyle = '#6B4A33';
      c.fillRect(x + 8, h * 0.44, 7, h * 0.36);
      c.fillRect(x + 186, h * 0.44, 7, h * 0.36);
      c.fillStyle = '#8A6143';
      c.fillRect(x + 4, h * 0.66, 194, h * 0.13);
      for (let s = 0; s < 8; s++) {
        c.fillStyle = s % 2 ? b : a;
        c.beginPath();
        c.moveTo(x + 20 + s * 20.5, h * 0.34);
        c.lineTo(x + 40 + s * 20.5, h * 0.34);
        c.lineTo(x + (s + 1) * 25.5, h * 0.46);
        c.arc(x + (s + 0.5) * 25.5, h * 0.46, 12.75, 0, Math.PI);
        c.lineTo(x + s * 25.5, h * 0.46);
        c.fill();
      }
      heldKite(c, x + 60, h * 0.6, h * 0.06, 0.3, ([GOLD, PLUM, GREEN] as const)[i % 3]!);
      heldKite(c, x + 140, h * 0.59, h * 0.055, -0.25, ([BLUE, RED, WHITE] as const)[i % 3]!);
    }
  },
  moment: (c, w, h, t, backdrop) => {
    c.drawImage(backdrop, -36 * t, 0);
    pennants(
      c,
      [-20, h * 0.1],
      [w + 20, h * 0.06],
      h * 0.12,
      h * 0.05,
      ['#E4572E', '#F4C430', '#2E6E9E', '#FFFFFF'],
      t,
    );
    for (let i = 0; i < 9; i++) {
      const way = i % 2 ? 1 : -1;
      const x =
        w *
        (((((randomAt(105, i) + way * 0.055 * t * (0.7 + 0.6 * randomAt(106, i))) % 1.2) + 1.2) % 1.2) - 0.1);
      const near = 0.9 + 0.05 * (i % 3);
      const tint = ['#33413D', '#5B2A3C', '#274B66', '#6A4B1F'][i % 4]!;
      person(
        c,
        x,
        h * near - Math.abs(Math.sin(t * 5.4 + i)) * 4,
        h * (0.26 + 0.06 * (i % 3)),
        tint,
        i + 130,
        i % 4 === 0,
        t,
      );
    }
    vignette(c, w, h);
  },
};

/** Held upright: at dusk the crowd jumps, and ribbons fly. */
const cheer: Clip = {
  width: 540,
  height: 960,
  seconds: 7,
  backdrop: (c, w, h) => {
    sky(c, w, h, ['#33204F', '#8C3A62', '#EE6C4D', '#FBC15E']);
    glow(c, w * 0.5, h * 0.68, h * 0.36, '#FFE9A8', 1);
    clouds(c, w, h, 0.3, 121, '#F0937F');
  },
  moment: (c, w, h, t, backdrop) => {
    c.drawImage(backdrop, 0, 0);
    for (const [i, colours] of ([RED, GOLD, PLUM] as KiteColours[]).entries()) {
      const [x, y] = [
        w * (0.2 + 0.3 * i + 0.05 * wander(t, i)),
        h * (0.2 + 0.07 * ((i + 1) % 2) + 0.03 * wander(t * 1.2, i + 5)),
      ];
      string(c, x, y, w * (0.35 + 0.12 * i), h * 0.78, 'rgba(30,16,36,0.5)', 1.3);
      kite(c, x, y, w * 0.11, -0.1 + 0.3 * wander(t, i + 9), colours, i, 1, t);
    }
    const edge = hill(c, w, h, 0.84, 0.02, 123, '#2A1430', '#120818');
    for (let row = 0; row < 2; row++)
      for (let i = 0; i < 9; i++) {
        const x = w * ((i + 0.5 + row * 0.4) / 9);
        const hop = Math.max(0, Math.sin(t * 6 + i * 1.3 + row)) * h * 0.022;
        person(
          c,
          x,
          edge(x) + h * (0.03 + row * 0.07) - hop,
          h * (0.12 + row * 0.05),
          row ? '#0D0512' : '#1D0D26',
          i + row * 20 + 150,
          true,
          t * 1.4,
        );
      }
    for (let i = 0; i < 70; i++) {
      const p = (randomAt(125, i) + t * (0.1 + 0.09 * randomAt(126, i))) % 1;
      const [x, y] = [w * (randomAt(127, i) + 0.04 * Math.sin(t * 3 + i)), h * p];
      c.save();
      c.translate(x, y);
      c.rotate(t * (2 + 3 * randomAt(128, i)) + i);
      c.fillStyle = ['#FFD166', '#F76C5E', '#5BC0BE', '#FFFFFF'][i % 4]!;
      c.fillRect(-4, -1.5 * Math.abs(Math.cos(t * 5 + i)) - 0.5, 9, 3 * Math.abs(Math.cos(t * 5 + i)) + 1);
      c.restore();
    }
    vignette(c, w, h);
  },
};

/** Held upright: up along the line to the kite, as the flyer sees it. */
const alongLine: Clip = {
  width: 540,
  height: 960,
  seconds: 7,
  backdropWidth: 900,
  backdrop: (c, w, h) => {
    for (const [i, level] of [0.15, 0.4, 0.66, 0.9].entries()) clouds(c, w, h, level, 131 + i, '#FFFFFF');
  },
  moment: (c, w, h, t, backdrop) => {
    sky(c, w, h, ['#0F5C8F', '#3F97C2', '#A9DCE0', '#E9F3D9']);
    glow(c, w * 0.85, h * 0.08, h * 0.4, '#FFFCE6', 1);
    c.globalAlpha = 0.8;
    c.drawImage(backdrop, -30 * t, h * 0.03 * wander(t, 2));
    c.globalAlpha = 1;
    const pull = ease(Math.min(1, t / 5));
    const [x, y] = [
      w * (0.55 + 0.1 * wander(t * 1.2, 3)),
      h * (0.36 - 0.1 * pull + 0.03 * wander(t * 1.4, 6)),
    ];
    c.strokeStyle = 'rgba(30,36,48,0.8)';
    c.lineWidth = 3;
    c.beginPath();
    c.moveTo(w * 0.3, h + 10);
    c.quadraticCurveTo(w * 0.44, h * 0.7, x, y);
    c.stroke();
    kite(c, x, y, w * (0.2 - 0.05 * pull), 0.15 + 0.3 * wander(t * 1.3, 8), PLUM, 2, 1.1, t * 1.3);
    vignette(c, w, h);
  },
};

export const FILM_CLIPS = {
  'dawn-walk': dawn,
  'flyer-close': flyer,
  'squall-coming': squall,
  'lamps-at-night': lamps,
  'market-at-noon': market,
  'crowd-cheers': cheer,
  'along-the-line': alongLine,
} as const satisfies Record<string, Clip>;
