import { motionSchema, type TextMotion } from '../layers/motionSchema';
import type { Easing } from '../motion/easing';
import { axisFields, type MotionField, type MotionKind, number, pivotFields, vector } from './motionFields';

const away = (m: TextMotion, part: Partial<TextMotion['away']>): TextMotion => ({
  ...m,
  away: { ...m.away, ...part },
});

const motion = (part: Record<string, unknown>): TextMotion =>
  motionSchema.parse({
    unit: 'letter',
    stagger: 3,
    start: { at: 0, of: 'in' },
    length: 30,
    ease: { bezier: [0.16, 1, 0.3, 1] },
    away: {},
    ...part,
  });

const OVERSHOOT: Easing = { overshoot: 1.7, ends: 'out' };
const BOUNCE: Easing = { bounce: 'out' };

const fadeToo: MotionField<TextMotion> = {
  kind: 'switch',
  id: 'fade',
  name: 'Fades too',
  read: (m) => (m.away.opacity as number) < 1,
  write: (m, on) => away(m, { opacity: on ? 0 : 1 }),
};
const distance = number<TextMotion>(
  'distance',
  'Distance',
  'em',
  [0, 20, 0.05],
  (m) => Math.hypot(vector(m.away.move)[0], vector(m.away.move)[1]),
  (m, v) => {
    const [x, y, z] = vector(m.away.move);
    const angle = Math.hypot(x, y) > 1e-6 ? Math.atan2(y, x) : Math.PI / 2;
    return away(m, { move: [Math.cos(angle) * v, Math.sin(angle) * v, z] });
  },
);
const angle = number<TextMotion>(
  'angle',
  'From the side at',
  '°',
  [-180, 180, 1],
  (m) => Math.round((Math.atan2(vector(m.away.move)[1], vector(m.away.move)[0]) * 180) / Math.PI),
  (m, v) => {
    const [x, y, z] = vector(m.away.move);
    const reach = Math.max(0.05, Math.hypot(x, y));
    const turn = (v * Math.PI) / 180;
    return away(m, { move: [Math.cos(turn) * reach, Math.sin(turn) * reach, z] });
  },
);
const behind: MotionField<TextMotion> = {
  kind: 'switch',
  id: 'behind',
  name: 'From behind an edge',
  read: (m) => m.behind,
  write: (m, on) => ({ ...m, behind: on }),
};

const turned = (m: TextMotion) => vector(m.away.turn);
const moved = (m: TextMotion) => vector(m.away.move);
const scaled = (m: TextMotion) => m.away.scale as readonly [number, number];

const scale = number<TextMotion>(
  'scale',
  'Size it starts at',
  '%',
  [0, 400, 5],
  (m) => scaled(m)[0] * 100,
  (m, v) => away(m, { scale: [v / 100, v / 100] }),
);

/** Ways to come and to go. Those told by a mark of their own stand before those told by a value. */
export const COMING: readonly MotionKind<TextMotion>[] = [
  {
    id: 'typing',
    name: 'Typed',
    about: 'Key by key, with slips if you like',
    make: () => motion({ stagger: 4, length: 1, ease: 'linear', away: { typing: {} } }),
    is: (m) => m.away.typing !== undefined,
    fields: [
      number<TextMotion>(
        'slips',
        'Slips',
        '%',
        [0, 50, 1],
        (m) => Math.round((m.away.typing?.slips as number) * 100),
        (m, v) => away(m, { typing: { ...m.away.typing!, slips: v / 100 } }),
      ),
      {
        kind: 'switch',
        id: 'cursor',
        name: 'Cursor',
        read: (m) => m.away.typing?.cursor ?? false,
        write: (m, on) => away(m, { typing: { ...m.away.typing!, cursor: on } }),
      },
    ],
  },
  {
    id: 'draw',
    name: 'Drawn',
    about: 'Outlines by a pen, then the fill',
    make: () => motion({ stagger: 5, length: 60, ease: 'ease-in-out', away: { draw: 0.02 } }),
    is: (m) => m.away.draw !== undefined,
    fields: [
      number<TextMotion>(
        'pen',
        'Pen',
        '‰ em',
        [2, 100, 1],
        (m) => Math.round((m.away.draw as number) * 1000),
        (m, v) => away(m, { draw: v / 1000 }),
      ),
    ],
  },
  {
    id: 'scramble',
    name: 'Scrambled',
    about: 'Other letters until the right one',
    make: () => motion({ stagger: 3, length: 30, ease: 'linear', away: { scramble: 4, opacity: 0 } }),
    is: (m) => m.away.scramble !== undefined,
    fields: [
      number<TextMotion>(
        'every',
        'Changes every',
        'frames',
        [1, 60, 1],
        (m) => m.away.scramble ?? 4,
        (m, v) => away(m, { scramble: Math.round(v) }),
      ),
      fadeToo,
    ],
  },
  {
    id: 'wipe',
    name: 'Wiped',
    about: 'Uncovered from a side',
    make: () => motion({ unit: 'line', stagger: 8, length: 40, ease: 'ease-in-out', away: { wipe: 'left' } }),
    is: (m) => m.away.wipe !== undefined,
    fields: [
      {
        kind: 'choice',
        id: 'side',
        name: 'From',
        options: [
          { id: 'left', name: 'Left' },
          { id: 'right', name: 'Right' },
          { id: 'top', name: 'Top' },
          { id: 'bottom', name: 'Bottom' },
          { id: 'middle-across', name: 'Middle, across' },
          { id: 'middle-down', name: 'Middle, up and down' },
        ],
        read: (m) => m.away.wipe ?? 'left',
        write: (m, side) => away(m, { wipe: side as NonNullable<TextMotion['away']['wipe']> }),
      },
    ],
  },
  {
    id: 'spread',
    name: 'Spread',
    about: 'Tracking closes or opens',
    make: () => motion({ unit: 'line', stagger: 0, length: 60, away: { spread: 0.5, opacity: 0 } }),
    is: (m) => m.away.spread !== 0,
    fields: [
      number<TextMotion>(
        'spread',
        'Spread',
        '%',
        [-90, 400, 5],
        (m) => Math.round((m.away.spread as number) * 100),
        (m, v) => away(m, { spread: v === 0 ? 0.01 : v / 100 }),
      ),
      fadeToo,
    ],
  },
  {
    id: 'blur',
    name: 'Out of focus',
    about: 'Soft, then sharp',
    make: () => motion({ unit: 'word', length: 40, away: { blur: 24, opacity: 0 } }),
    is: (m) => (m.away.blur as number) > 0,
    fields: [
      number<TextMotion>(
        'blur',
        'Blur',
        'px',
        [1, 200, 1],
        (m) => m.away.blur as number,
        (m, v) => away(m, { blur: v }),
      ),
      fadeToo,
    ],
  },
  {
    id: 'pop',
    name: 'Pop',
    about: 'Grows past its size and settles',
    make: () => motion({ length: 26, ease: OVERSHOOT, away: { scale: [0, 0] } }),
    is: (m) => scaled(m)[0] !== 1 || scaled(m)[1] !== 1,
    fields: [scale, ...pivotFields<TextMotion>(), fadeToo],
  },
  {
    id: 'spiral',
    name: 'Spiral',
    about: 'Out of the depth, round a far pivot',
    make: () =>
      motion({
        stagger: 4,
        length: 80,
        pivot: [0.5, 4, 0],
        away: { move: [0, 0, 30], turn: [0, 0, -260], opacity: 0 },
      }),
    is: (m) => moved(m)[2] > 0 && turned(m)[2] !== 0 && turned(m)[0] === 0 && turned(m)[1] === 0,
    fields: [
      number<TextMotion>(
        'depth',
        'From how deep',
        'em',
        [1, 80, 1],
        (m) => moved(m)[2],
        (m, v) => away(m, { move: [moved(m)[0], moved(m)[1], v] }),
      ),
      number<TextMotion>(
        'turn-z',
        'Turns',
        '°',
        [-1440, 1440, 5],
        (m) => turned(m)[2],
        (m, v) => away(m, { turn: [0, 0, v] }),
      ),
      ...pivotFields<TextMotion>(),
      fadeToo,
    ],
  },
  {
    id: 'turn',
    name: 'Turn',
    about: 'Turns into place in the plane',
    make: () => motion({ length: 36, away: { turn: [0, 0, -90], opacity: 0 } }),
    is: (m) => turned(m)[2] !== 0 && turned(m)[0] === 0 && turned(m)[1] === 0,
    fields: [
      number<TextMotion>(
        'turn-z',
        'Turns',
        '°',
        [-720, 720, 5],
        (m) => turned(m)[2],
        (m, v) => away(m, { turn: [0, 0, v] }),
      ),
      ...pivotFields<TextMotion>(),
      fadeToo,
    ],
  },
  {
    id: 'swing',
    name: 'Swing',
    about: 'Opens about an axis in space',
    make: () => motion({ length: 44, pivot: [0.5, 0, 0], away: { turn: [-90, 0, 0] } }),
    is: (m) => turned(m).some((t) => t !== 0),
    fields: [...axisFields<TextMotion>(turned, (m, turn) => away(m, { turn }), 720), fadeToo],
  },
  {
    id: 'drop',
    name: 'Drop',
    about: 'Falls in from above and lands',
    make: () => motion({ length: 44, ease: BOUNCE, away: { move: [0, -3, 0], opacity: 0 } }),
    is: (m) => Math.abs(moved(m)[0]) < 1e-6 && moved(m)[1] < 0,
    fields: [distance, behind, fadeToo],
  },
  {
    id: 'rise',
    name: 'Rise',
    about: 'Comes up from below its line',
    make: () => motion({ unit: 'word', length: 40, behind: true, away: { move: [0, 1.1, 0] } }),
    is: (m) => Math.abs(moved(m)[0]) < 1e-6 && moved(m)[1] > 0,
    fields: [distance, behind, fadeToo],
  },
  {
    id: 'slide',
    name: 'Slide',
    about: 'From any side, near or far',
    make: () => motion({ unit: 'line', stagger: 6, length: 44, away: { move: [4, 0, 0], opacity: 0 } }),
    is: (m) => moved(m).some((v) => v !== 0),
    fields: [angle, distance, behind, fadeToo],
  },
  {
    id: 'fade',
    name: 'Fade',
    about: 'Out of nothing',
    make: () => motion({ stagger: 2, length: 24, ease: 'ease-out', away: { opacity: 0 } }),
    is: () => true,
    fields: [],
  },
];
