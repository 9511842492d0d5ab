import { z } from 'zod';

/** A curve from 0 to 1 over progress 0 to 1. May go beyond both on the way. */
export type EasingFunction = (progress: number) => number;

const unit = z.number().min(0).max(1);
/** How far a curve of points may go beyond its ends. */
const beyond = z.number().min(-100).max(100);

/** An easing as documents hold it: a name, or a kind with its numbers. */
export const easingSchema = z.union([
  z.enum(['linear', 'ease', 'ease-in', 'ease-out', 'ease-in-out', 'step-start', 'step-end']),
  z.strictObject({ bezier: z.tuple([unit, beyond, unit, beyond]) }),
  z.strictObject({
    steps: z.number().int().min(1).max(1000),
    jump: z.enum(['start', 'end', 'none', 'both']).default('end'),
  }),
  z.strictObject({ linear: z.array(z.tuple([beyond, unit])).min(2) }),
  z.strictObject({
    overshoot: z.number().min(0).max(10),
    ends: z.enum(['in', 'out', 'both']).default('out'),
  }),
  z.strictObject({ bounce: z.enum(['in', 'out', 'both']) }),
  z.strictObject({
    elastic: z.enum(['in', 'out', 'both']),
    amplitude: z.number().min(1).max(10).default(1),
    period: z.number().min(0.05).max(2).default(0.3),
  }),
  z.strictObject({
    /** Damping ratio below 1 swings past the end and settles; 1 is the quickest that does not. */
    spring: z.number().min(0.05).max(1),
    /** How many whole swings fit the length, undamped. */
    swings: z.number().min(0.25).max(20).default(2),
  }),
]);
export type Easing = z.infer<typeof easingSchema>;

/**
 * Cubic Bézier timing function through (0,0), (x1,y1), (x2,y2), (1,1). Source: CSS Easing Functions Level 1, §2.3,
 * including the straight-line continuation outside 0..1. Solved by Newton's method with bisection as a fallback.
 */
export function cubicBezier(x1: number, y1: number, x2: number, y2: number): EasingFunction {
  const cx = 3 * x1;
  const bx = 3 * (x2 - x1) - cx;
  const ax = 1 - cx - bx;
  const cy = 3 * y1;
  const by = 3 * (y2 - y1) - cy;
  const ay = 1 - cy - by;
  const xAt = (t: number) => ((ax * t + bx) * t + cx) * t;
  const yAt = (t: number) => ((ay * t + by) * t + cy) * t;
  const slopeAt = (t: number) => (3 * ax * t + 2 * bx) * t + cx;
  const startSlope = x1 > 0 ? y1 / x1 : y1 === 0 && x2 > 0 ? y2 / x2 : y1 === 0 && y2 === 0 ? 1 : 0;
  const endSlope =
    x2 < 1 ? (y2 - 1) / (x2 - 1) : y2 === 1 && x1 < 1 ? (y1 - 1) / (x1 - 1) : y2 === 1 && y1 === 1 ? 1 : 0;

  return (x) => {
    if (x <= 0) return startSlope * x;
    if (x >= 1) return 1 + endSlope * (x - 1);
    let t = x;
    for (let i = 0; i < 8; i++) {
      const error = xAt(t) - x;
      if (Math.abs(error) < 1e-9) return yAt(t);
      const slope = slopeAt(t);
      if (Math.abs(slope) < 1e-6) break;
      t -= error / slope;
    }
    let low = 0;
    let high = 1;
    t = x;
    while (high - low > 1e-12) {
      if (xAt(t) < x) low = t;
      else high = t;
      t = (low + high) / 2;
    }
    return yAt(t);
  };
}

/** Step timing function. Source: CSS Easing Functions Level 1, §2.4 (the "before" flag is not needed here). */
export function steps(count: number, jump: 'start' | 'end' | 'none' | 'both'): EasingFunction {
  const jumps = jump === 'none' ? Math.max(1, count - 1) : jump === 'both' ? count + 1 : count;
  return (x) => {
    let step = Math.floor(x * count);
    if (jump === 'start' || jump === 'both') step += 1;
    if (x >= 0 && step < 0) step = 0;
    if (x <= 1 && step > jumps) step = jumps;
    return step / jumps;
  };
}

/** Piecewise linear function through [output, input] points. Source: CSS Easing Functions Level 2, `linear()`. */
function piecewise(points: readonly (readonly [number, number])[]): EasingFunction {
  return (x) => {
    let i = 0;
    while (i < points.length - 2 && x >= points[i + 1]![1]) i++;
    const [y0, x0] = points[i]!;
    const [y1, x1] = points[i + 1]!;
    return x1 === x0 ? y1 : y0 + ((x - x0) / (x1 - x0)) * (y1 - y0);
  };
}

type Ends = 'in' | 'out' | 'both';

/** Turns an ease-in curve into in, out, or both. */
function mirrored(easeIn: EasingFunction, ends: Ends): EasingFunction {
  if (ends === 'in') return easeIn;
  const easeOut: EasingFunction = (x) => 1 - easeIn(1 - x);
  if (ends === 'out') return easeOut;
  return (x) => (x < 0.5 ? easeIn(2 * x) / 2 : (1 + easeOut(2 * x - 1)) / 2);
}

/** Pulls back before it goes: t²((s+1)t − s). Source: R. Penner's "back" curve, as in d3-ease. */
const backIn =
  (s: number): EasingFunction =>
  (x) =>
    x * x * ((s + 1) * x - s);

/** Bounces of a falling ball, parabolas of fixed ratios. Source: R. Penner, as in d3-ease `easeBounceOut`. */
const bounceOut: EasingFunction = (x) => {
  const k = 7.5625;
  if (x < 4 / 11) return k * x * x;
  if (x < 8 / 11) return k * (x - 6 / 11) ** 2 + 3 / 4;
  if (x < 10 / 11) return k * (x - 9 / 11) ** 2 + 15 / 16;
  return k * (x - 21 / 22) ** 2 + 63 / 64;
};

/** Swings that grow by 2^10(x−1). Source: R. Penner's "elastic" curve, as in d3-ease (which shifts it to meet 0). */
function elasticIn(amplitude: number, period: number): EasingFunction {
  const p = period / (2 * Math.PI);
  const s = Math.asin(1 / amplitude) * p;
  const growth = (x: number) => (2 ** (-10 * x) - 0.0009765625) * 1.0009775171065494;
  return (x) => amplitude * growth(1 - x) * Math.sin((s + 1 - x) / p);
}

/**
 * Step response of a damped oscillator, normalised to reach exactly 1 at the end.
 * Source: second-order system, x'' + 2ζω x' + ω² x = ω², at rest at 0 (any control-theory text).
 */
function spring(damping: number, swings: number): EasingFunction {
  const omega = 2 * Math.PI * swings;
  const response = (x: number): number => {
    if (damping >= 1) return 1 - Math.exp(-omega * x) * (1 + omega * x);
    const damped = omega * Math.sqrt(1 - damping * damping);
    const decay = Math.exp(-damping * omega * x);
    return 1 - decay * (Math.cos(damped * x) + ((damping * omega) / damped) * Math.sin(damped * x));
  };
  // What is left at the end is taken out evenly, so that the value lands on 1 without a visible jump.
  const left = 1 - response(1);
  return (x) => response(x) + left * x;
}

const NAMED = {
  linear: (x: number) => x,
  ease: cubicBezier(0.25, 0.1, 0.25, 1),
  'ease-in': cubicBezier(0.42, 0, 1, 1),
  'ease-out': cubicBezier(0, 0, 0.58, 1),
  'ease-in-out': cubicBezier(0.42, 0, 0.58, 1),
  'step-start': steps(1, 'start'),
  'step-end': steps(1, 'end'),
} as const satisfies Record<string, EasingFunction>;

/** The function of an easing. */
export function easingFunction(easing: Easing): EasingFunction {
  if (typeof easing === 'string') return NAMED[easing];
  if ('bezier' in easing) return cubicBezier(...easing.bezier);
  if ('steps' in easing) return steps(easing.steps, easing.jump);
  if ('linear' in easing) return piecewise(easing.linear);
  if ('overshoot' in easing) return mirrored(backIn(easing.overshoot), easing.ends);
  if ('bounce' in easing) return mirrored((x) => 1 - bounceOut(1 - x), easing.bounce);
  if ('elastic' in easing) return mirrored(elasticIn(easing.amplitude, easing.period), easing.elastic);
  return spring(easing.spring, easing.swings);
}
