import { ORDERS, type TextMotion, UNITS } from '../layers/motionSchema';

/** One thing of a motion that can be set: how it is named, its range, and where it lies in the document. */
export type MotionField<M> =
  | {
      readonly kind: 'number';
      readonly id: string;
      readonly name: string;
      readonly unit: string;
      readonly min: number;
      readonly max: number;
      readonly step: number;
      read(motion: M): number;
      write(motion: M, value: number): M;
    }
  | {
      readonly kind: 'choice';
      readonly id: string;
      readonly name: string;
      readonly options: readonly { readonly id: string; readonly name: string }[];
      read(motion: M): string;
      write(motion: M, value: string): M;
    }
  | {
      readonly kind: 'switch';
      readonly id: string;
      readonly name: string;
      read(motion: M): boolean;
      write(motion: M, value: boolean): M;
    };

/** A kind of motion, as it is offered: how it starts out, how it is told from others, and what can be set. */
export interface MotionKind<M> {
  readonly id: string;
  readonly name: string;
  /** In a few words, what it does. */
  readonly about: string;
  make(): M;
  is(motion: M): boolean;
  readonly fields: readonly MotionField<M>[];
}

const NAMES: Readonly<Record<string, string>> = {
  letter: 'Letter',
  word: 'Word',
  line: 'Line',
  whole: 'All at once',
  forwards: 'Forwards',
  backwards: 'Backwards',
  'from-middle': 'From the middle',
  'to-middle': 'To the middle',
  random: 'At random',
};
const named = (ids: readonly string[]) => ids.map((id) => ({ id, name: NAMES[id] ?? id }));

export type Vector = readonly [number, number, number];
/** A motion whose properties are all plain values: what the kinds read and write. */
export const vector = (p: unknown) => p as Vector;

export function number<M>(
  id: string,
  name: string,
  unit: string,
  [min, max, step]: readonly [number, number, number],
  read: (m: M) => number,
  write: (m: M, v: number) => M,
): MotionField<M> {
  return { kind: 'number', id, name, unit, min, max, step, read, write };
}

/** Degrees about one axis, and the pivot it swings about. */
export function axisFields<M extends { pivot: Vector }>(
  read: (m: M) => Vector,
  write: (m: M, turn: [number, number, number]) => M,
  most: number,
): MotionField<M>[] {
  const axis = (index: 0 | 1 | 2, id: string, name: string) =>
    number<M>(
      id,
      name,
      '°',
      [-most, most, 1],
      (m) => read(m)[index],
      (m, v) => {
        const turn = [...read(m)] as [number, number, number];
        turn[index] = v;
        return write(m, turn);
      },
    );
  return [
    axis(0, 'turn-x', 'Tips over'),
    axis(1, 'turn-y', 'Opens sideways'),
    axis(2, 'turn-z', 'Turns'),
    ...pivotFields<M>(),
  ];
}

export function pivotFields<M extends { pivot: Vector }>(): MotionField<M>[] {
  const part = (
    index: 0 | 1 | 2,
    id: string,
    name: string,
    unit: string,
    range: readonly [number, number, number],
    k: number,
  ) =>
    number<M>(
      id,
      name,
      unit,
      range,
      (m) => m.pivot[index] * k,
      (m, v) => {
        const pivot = [...m.pivot] as [number, number, number];
        pivot[index] = v / k;
        return { ...m, pivot };
      },
    );
  return [
    part(0, 'pivot-x', 'Pivot across', '%', [-200, 300, 5], 100),
    part(1, 'pivot-y', 'Pivot down', '%', [-200, 300, 5], 100),
    part(2, 'pivot-z', 'Pivot behind', 'em', [-10, 10, 0.1], 1),
  ];
}

const inFrames = (m: TextMotion, goes: 'in' | 'out') =>
  number<TextMotion>(
    'start',
    goes === 'in' ? 'Starts after' : 'Starts, into the out',
    'frames',
    [-600, 3600, 1],
    () => m.start.at,
    (x, v) => ({ ...x, start: { ...x.start, at: Math.round(v) } }),
  );

/** What every way to come or go has besides its own: on what it works, in which order, when and for how long. */
export function commonFields(m: TextMotion, goes: 'in' | 'out'): readonly MotionField<TextMotion>[] {
  return [
    ...unitFields<TextMotion>(),
    number<TextMotion>(
      'stagger',
      'From one to the next',
      'frames',
      [0, 120, 0.5],
      (x) => x.stagger as number,
      (x, v) => ({
        ...x,
        stagger: v,
      }),
    ),
    inFrames(m, goes),
    ...(m.away.typing
      ? []
      : [
          number<TextMotion>(
            'length',
            'Takes',
            'frames',
            [0, 600, 1],
            (x) => x.length as number,
            (x, v) => ({
              ...x,
              length: v,
            }),
          ),
        ]),
  ];
}

/** On what a motion works, and in which order. */
export function unitFields<
  M extends Pick<TextMotion, 'unit' | 'order' | 'only'>,
>(): readonly MotionField<M>[] {
  return [
    {
      kind: 'choice',
      id: 'unit',
      name: 'By',
      options: named(UNITS),
      read: (m) => m.unit as string,
      write: (m, v) => ({ ...m, unit: v }),
    },
    {
      kind: 'choice',
      id: 'order',
      name: 'Order',
      options: named(ORDERS),
      read: (m) => m.order as string,
      write: (m, v) => ({ ...m, order: v }),
    },
    {
      kind: 'choice',
      id: 'only',
      name: 'Works on',
      options: [
        { id: 'all', name: 'All words' },
        { id: 'marked', name: 'Marked' },
        { id: 'unmarked', name: 'Not marked' },
      ],
      read: (m) => m.only ?? 'all',
      write: (m, v) => {
        const { only: _, ...rest } = m;
        return (v === 'all' ? rest : { ...rest, only: v }) as M;
      },
    },
  ];
}
