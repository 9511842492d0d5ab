import { duringSchema, type TextDuring } from '../layers/motionSchema';
import { axisFields, type MotionKind, number, vector } from './motionFields';

const course = (part: Record<string, unknown>): TextDuring => duringSchema.parse({ unit: 'letter', ...part });
const every = number<TextDuring>(
  'every',
  'One cycle',
  'frames',
  [2, 1200, 1],
  (m) => m.every as number,
  (m, v) => ({
    ...m,
    every: Math.max(1, v),
  }),
);
const lag = number<TextDuring>(
  'stagger',
  'Each lags by',
  'frames',
  [-60, 60, 0.5],
  (m) => m.stagger as number,
  (m, v) => ({
    ...m,
    stagger: v,
  }),
);
const duringMove = (index: 0 | 1 | 2, id: string, name: string) =>
  number<TextDuring>(
    id,
    name,
    '% em',
    [-300, 300, 1],
    (m) => Math.round(vector(m.move)[index] * 100),
    (m, v) => {
      const move = [...vector(m.move)] as [number, number, number];
      move[index] = v / 100;
      return { ...m, move };
    },
  );
const duringTurn = (m: TextDuring) => vector(m.turn);
const duringScale = number<TextDuring>(
  'scale',
  'Size, more or less',
  '%',
  [-90, 300, 1],
  (m) => Math.round((m.scale as readonly [number, number])[0] * 100),
  (m, v) => ({ ...m, scale: [v / 100, v / 100] }),
);
const has = (v: readonly number[]) => v.some((n) => n !== 0);

/** Ways to move while standing. */
export const STANDING: readonly MotionKind<TextDuring>[] = [
  {
    id: 'held',
    name: 'Stays turned',
    about: 'Each one moved and turned in space, and held',
    make: () => course({ course: 'held', turn: [0, 35, 0] }),
    is: (m) => m.course === 'held',
    fields: [
      ...axisFields<TextDuring>(duringTurn, (m, turn) => ({ ...m, turn }), 360),
      duringMove(0, 'move-x', 'Sideways'),
      duringMove(1, 'move-y', 'Up and down'),
      duringMove(2, 'move-z', 'Away'),
      duringScale,
    ],
  },
  {
    id: 'flicker',
    name: 'Flicker',
    about: 'Light that is not steady',
    make: () => course({ course: 'at-random', every: 4, fade: 0.6 }),
    is: (m) => (m.fade as number) > 0,
    fields: [
      number<TextDuring>(
        'fade',
        'Depth',
        '%',
        [1, 100, 1],
        (m) => Math.round((m.fade as number) * 100),
        (m, v) => ({
          ...m,
          fade: v / 100,
        }),
      ),
      every,
    ],
  },
  {
    id: 'shake',
    name: 'Shake',
    about: 'Restless, at random',
    make: () => course({ course: 'at-random', every: 5, move: [0.03, 0.03, 0], turn: [0, 0, 2] }),
    is: (m) => m.course === 'at-random',
    fields: [
      duringMove(0, 'move-x', 'Sideways'),
      duringMove(1, 'move-y', 'Up and down'),
      number<TextDuring>(
        'turn-z',
        'Turns',
        '°',
        [-180, 180, 1],
        (m) => duringTurn(m)[2],
        (m, v) => ({ ...m, turn: [0, 0, v] }),
      ),
      every,
    ],
  },
  {
    id: 'size',
    name: 'Size',
    about: 'Slowly larger or smaller',
    make: () => course({ unit: 'whole', course: 'once', scale: [0.06, 0.06] }),
    is: (m) => m.course === 'once',
    fields: [duringScale],
  },
  {
    id: 'round',
    name: 'Turn',
    about: 'Goes round at a speed of its own',
    make: () => course({ course: 'round', every: 180, turn: [0, 360, 0], stagger: 6 }),
    is: (m) => m.course === 'round',
    fields: [
      ...axisFields<TextDuring>(duringTurn, (m, turn) => ({ ...m, turn }), 3600),
      number<TextDuring>(
        'every',
        'Turns by that in',
        'frames',
        [2, 3600, 1],
        (m) => m.every as number,
        (m, v) => ({
          ...m,
          every: Math.max(1, v),
        }),
      ),
      lag,
    ],
  },
  {
    id: 'swell',
    name: 'Swell',
    about: 'Grows and shrinks gently',
    make: () =>
      course({ unit: 'word', course: 'back-and-forth', every: 150, scale: [0.04, 0.04], stagger: 8 }),
    is: (m) => has(m.scale as readonly number[]),
    fields: [duringScale, every, lag],
  },
  {
    id: 'swing',
    name: 'Swing',
    about: 'To and fro about a pivot',
    make: () =>
      course({
        unit: 'word',
        course: 'back-and-forth',
        every: 130,
        turn: [0, 0, 4],
        pivot: [0.5, -0.4, 0],
        stagger: 6,
      }),
    is: (m) => has(duringTurn(m)),
    fields: [...axisFields<TextDuring>(duringTurn, (m, turn) => ({ ...m, turn }), 360), every, lag],
  },
  {
    id: 'wave',
    name: 'Wave',
    about: 'Runs through the letters',
    make: () => course({ course: 'back-and-forth', every: 80, move: [0, 0.12, 0], stagger: 5 }),
    is: (m) => (m.stagger as number) !== 0 && vector(m.move)[0] === 0,
    fields: [duringMove(1, 'move-y', 'Height'), every, lag],
  },
  {
    id: 'sway',
    name: 'Sway',
    about: 'Drifts to and fro',
    make: () => course({ unit: 'whole', course: 'back-and-forth', every: 200, move: [0.12, 0, 0] }),
    is: () => true,
    fields: [duringMove(0, 'move-x', 'Sideways'), duringMove(1, 'move-y', 'Up and down'), every, lag],
  },
];
