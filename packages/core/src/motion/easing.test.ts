import bezierEasing from 'bezier-easing';
import * as d3 from 'd3-ease';
import { cubicBezier, type Easing, easingFunction, easingSchema, steps } from './easing';

const samples = Array.from({ length: 101 }, (_, i) => i / 100);

describe('cubic Bézier easing', () => {
  const curves = [
    [0.25, 0.1, 0.25, 1],
    [0.42, 0, 0.58, 1],
    [0.16, 1, 0.3, 1],
    [0.7, 0, 0.84, 0],
    [0.3, -0.6, 0.6, 1.8],
    [0, 0, 1, 1],
    [1, 0, 0, 1],
  ] as const;

  it.each(curves)('agrees with the bezier-easing package: %f %f %f %f', (...points) => {
    const ours = cubicBezier(...points);
    const theirs = bezierEasing(...points);
    for (const x of samples) expect(ours(x)).toBeCloseTo(theirs(x), 5);
  });

  it('goes on in a straight line outside 0 to 1 (CSS Easing Level 1, §2.3)', () => {
    const curve = cubicBezier(0.5, 1, 0.5, 0);
    expect(curve(-0.5)).toBeCloseTo(-1, 12);
    expect(curve(1.5)).toBeCloseTo(2, 12);
    // With x1 = 0 and y1 > 0 the tangent is vertical, and the output stays.
    expect(cubicBezier(0, 1, 0.5, 1)(-1)).toBeCloseTo(0, 12);
  });

  it('names the keywords of CSS Easing Level 1', () => {
    const keyword: Record<string, [number, number, number, number]> = {
      ease: [0.25, 0.1, 0.25, 1],
      'ease-in': [0.42, 0, 1, 1],
      'ease-out': [0, 0, 0.58, 1],
      'ease-in-out': [0.42, 0, 0.58, 1],
    };
    for (const [name, points] of Object.entries(keyword)) {
      for (const x of samples)
        expect(easingFunction(name as Easing)(x)).toBeCloseTo(cubicBezier(...points)(x), 12);
    }
  });
});

describe('steps', () => {
  // The four figures of CSS Easing Level 1, §2.4: three steps, and where each jump stands.
  it.each([
    ['start', [1 / 3, 1 / 3, 2 / 3, 1]],
    ['end', [0, 0, 1 / 3, 2 / 3]],
    ['none', [0, 0, 1 / 2, 1]],
    ['both', [1 / 4, 1 / 4, 2 / 4, 3 / 4]],
  ] as const)('jump-%s', (jump, expected) => {
    const curve = steps(3, jump);
    expect([0, 0.2, 0.5, 0.9].map(curve)).toEqual(expected);
    expect(curve(1)).toBe(1);
  });

  it('step-start and step-end', () => {
    expect(easingFunction('step-start')(0)).toBe(1);
    expect(easingFunction('step-end')(0.999)).toBe(0);
    expect(easingFunction('step-end')(1)).toBe(1);
  });
});

describe('curves with a life of their own, against d3-ease', () => {
  const pairs: [string, Easing, (t: number) => number][] = [
    ['overshoot in', { overshoot: 1.7, ends: 'in' }, d3.easeBackIn.overshoot(1.7)],
    ['overshoot out', { overshoot: 1.7, ends: 'out' }, d3.easeBackOut.overshoot(1.7)],
    ['bounce in', { bounce: 'in' }, d3.easeBounceIn],
    ['bounce out', { bounce: 'out' }, d3.easeBounceOut],
    ['bounce both', { bounce: 'both' }, d3.easeBounceInOut],
    ['elastic in', { elastic: 'in', amplitude: 1, period: 0.3 }, d3.easeElasticIn],
    [
      'elastic out',
      { elastic: 'out', amplitude: 1.5, period: 0.4 },
      d3.easeElasticOut.amplitude(1.5).period(0.4),
    ],
  ];
  it.each(pairs)('%s', (_, easing, theirs) => {
    const ours = easingFunction(easing);
    for (const x of samples) expect(ours(x)).toBeCloseTo(theirs(x), 6);
  });
});

describe('spring', () => {
  it('starts at 0, passes its end when damped below 1, and lands on 1', () => {
    const curve = easingFunction({ spring: 0.4, swings: 2 });
    const values = samples.map(curve);
    expect(values[0]).toBeCloseTo(0, 12);
    expect(Math.max(...values)).toBeGreaterThan(1.2);
    expect(curve(1)).toBeCloseTo(1, 12);
  });

  it('follows the equation of a damped oscillator, integrated step by step', () => {
    const [damping, swings] = [0.5, 3];
    const omega = 2 * Math.PI * swings;
    let [x, v] = [0, 0];
    const dt = 1e-5;
    const curve = easingFunction({ spring: damping, swings });
    for (let t = 0; t < 0.5; t += dt) {
      v += (omega * omega * (1 - x) - 2 * damping * omega * v) * dt;
      x += v * dt;
    }
    expect(curve(0.5)).toBeCloseTo(x, 2);
  });
});

describe('easings as documents', () => {
  it('fills in what is left out, and refuses what makes no sense', () => {
    expect(easingSchema.parse({ steps: 4 })).toEqual({ steps: 4, jump: 'end' });
    expect(easingSchema.safeParse({ bezier: [1.2, 0, 0, 1] }).success).toBe(false);
    expect(easingSchema.safeParse('quickly').success).toBe(false);
  });

  it('draws piecewise lines', () => {
    const curve = easingFunction({
      linear: [
        [0, 0],
        [0.8, 0.25],
        [1, 1],
      ],
    });
    expect([0, 0.125, 0.25, 1].map(curve)).toEqual([0, 0.4, 0.8, 1]);
  });
});
