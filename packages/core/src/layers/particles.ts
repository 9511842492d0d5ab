import { z } from 'zod';
import { type Affine, affineOf, multiply4, planeOf, planeTimes } from '../geometry/matrix';
import { type Path, pathBounds, transformPath } from '../geometry/path';
import type { Point } from '../geometry/plane';
import { scatter } from '../geometry/scatter';
import { type Forces, flightAt } from '../motion/flight';
import { noiseAt, randomAt } from '../motion/random';
import type { Op } from '../paint/ops';
import type { PlacedGlyph } from '../text/textLayout';
import { markTime } from '../time/clock';
import {
  between,
  isConstant,
  markSchema,
  type Property,
  property,
  type Value,
  valueAt,
} from '../values/property';
import {
  colourProperty,
  layerBase,
  numberProperty,
  outlineSchema,
  pointProperty,
  positiveProperty,
  switchProperty,
} from './common';
import type { LayerKind, PaintTools } from './kind';
import { outlinePath } from './outline';
import { ALIGN, bendGlyph } from './textBend';

const part = property(z.number().min(0).max(1));
/** Values along a life, evenly spaced from birth to death. */
const over = z.array(z.number().min(0).max(10)).min(1).max(8);

export const particlesSchema = z.strictObject({
  ...layerBase,
  kind: z.literal('particles'),
  /** Frame units; the parent's box when absent. */
  size: pointProperty.optional(),
  /** Where they come from: a point of the box in parts of it, an outline that fills it, or the letters of a text. */
  from: z.union([
    z.strictObject({ point: pointProperty }),
    z.strictObject({ outline: outlineSchema, where: z.enum(['inside', 'edge']).default('inside') }),
    z.strictObject({
      /** A text layer beside this one. */
      text: z.string(),
      only: property(z.enum(['all', 'marked'])).default('all'),
      where: z.enum(['inside', 'edge', 'middle']).default('inside'),
    }),
  ]),
  /** What each is: an outline, the letter it comes from, or the picture of a slot. */
  looks: z
    .union([
      z.strictObject({ outline: outlineSchema, ratio: z.number().min(0.05).max(20).default(1) }),
      z.strictObject({ letter: z.literal(true) }),
      z.strictObject({ picture: z.string() }),
    ])
    .default({ outline: { kind: 'ellipse' }, ratio: 1 }),
  /** When they are born: all at once, or one after the other, so many frames apart. */
  born: z.union([
    z.strictObject({ count: z.number().int().min(1).max(4000), at: markSchema }),
    z.strictObject({ every: z.number().min(0.05).max(600), from: markSchema, to: markSchema.optional() }),
  ]),
  /** The part of them that is born, at the moment of their birth. */
  amount: part.default(1),
  /** Frames. */
  life: property(z.number().min(1).max(3600)),
  /** Frame units a frame, at birth. */
  speed: numberProperty.default(0),
  /** Degrees, 0 to the right, 90 downwards, and how far to either side of it. */
  direction: numberProperty.default(-90),
  spread: property(z.number().min(0).max(180)).default(0),
  /** How much each differs from the others, as parts of the value. */
  vary: z
    .strictObject({ life: part.default(0.3), speed: part.default(0.3), size: part.default(0.3) })
    .prefault({}),
  /** Frame units a frame squared. */
  gravity: pointProperty.default([0, 0]),
  wind: pointProperty.default([0, 0]),
  drag: property(z.number().min(0).max(1)).default(0),
  /** How far they are carried about, in frame units, and over how many frames they turn back. */
  turbulence: z
    .strictObject({ reach: positiveProperty, every: z.number().min(1).max(600).default(60) })
    .optional(),
  /** Frame units of the longer side. */
  across: positiveProperty.default(16),
  /** Of their size, and of their opacity, along a life. */
  grow: over.default([1]),
  show: over.default([0, 1, 1, 0]),
  colours: z.array(colourProperty).min(1).max(6).default(['#ffffff']),
  /** Degrees at birth, how far to either side, and degrees a frame to either side. */
  angle: z
    .strictObject({
      at: numberProperty.default(0),
      spread: positiveProperty.default(0),
      spin: positiveProperty.default(0),
      /** Whether they face the way they go. */
      along: switchProperty.default(false),
    })
    .prefault({}),
  seed: z.number().int().min(0).max(1_000_000).default(1),
});
export type ParticlesLayer = z.infer<typeof particlesSchema>;

/** As many of one layer show at once; of more, the oldest are left out, and it is told. */
const MOST = 4000;
/** Places made on each outline: particles take one of them by chance. */
const PLACES = 512;
/** Colours and opacities a life is painted in, where they change: copies of one colour are one operation. */
const STEPS = 8;
/** Outlines are made at this size and scaled from there. */
const DRAWN = 100;

/** A place to come from. */
interface Source {
  /** Points of the layer's box. */
  readonly points: readonly Point[];
  readonly letter?: Letter;
}

/** The letter of a source, about its middle, its longer side one unit. */
interface Letter {
  readonly path?: Path;
  /** A colour glyph, which the canvas draws itself. */
  readonly sign?: string;
}

/** A value at any moment; asked for once, where it stays the same. */
function valuesOf({ moment, value }: PaintTools) {
  const steady = (p: Property<Value>): boolean => {
    if (isConstant(p)) return true;
    const control =
      typeof p === 'object' && 'control' in p && !p.table ? moment.controls[p.control] : undefined;
    return control !== undefined && isConstant(control);
  };
  return <T extends Value>(p: Property<T>): ((time: number) => T) => {
    if (!steady(p as Property<Value>)) return (time) => valueAt(p, { ...moment, time });
    const held = value(p);
    return () => held;
  };
}

/** One particle at a moment. */
interface Particle {
  readonly source: number;
  /** Part of its life, 0..1. */
  readonly age: number;
  readonly place: Affine;
  readonly opacity: number;
}

/** A number or a colour of a row of them that are spread evenly over 0..1. */
function along<T extends number | string>(row: readonly T[], part: number): T {
  if (row.length === 1) return row[0]!;
  const at = Math.min(Math.max(part, 0), 1) * (row.length - 1);
  const i = Math.min(Math.floor(at), row.length - 2);
  return between(row[i]!, row[i + 1]!, at - i) as T;
}

/** Births that may still live at a moment: the youngest first. */
function* births(layer: ParticlesLayer, tools: PaintTools, longest: number): Generator<[number, number]> {
  const { born, seed } = layer;
  const { clock, time } = tools.moment;
  if ('count' in born) {
    const at = markTime(clock, born.at);
    if (at <= time && time < at + longest) for (let i = 0; i < born.count; i++) yield [i, at];
    return;
  }
  const from = markTime(clock, born.from);
  const to = born.to ? markTime(clock, born.to) : Number.POSITIVE_INFINITY;
  const last = Math.floor((Math.min(time, to) - from) / born.every);
  for (let i = last; i >= 0; i--) {
    const at = from + (i + randomAt(seed, i, 1)) * born.every;
    if (at + longest + born.every < time) return;
    if (at <= time && at < to) yield [i, at];
  }
}

/** All that live at a moment. */
function alive(layer: ParticlesLayer, sources: readonly Source[], tools: PaintTools): Particle[] {
  const { moment, notice } = tools;
  const { seed, vary, angle, turbulence } = layer;
  const at = valuesOf(tools);
  const start = markTime(moment.clock, 'count' in layer.born ? layer.born.at : layer.born.from);
  const held = <T extends Value>(p: Property<T>): T => at(p)(start);
  // What acts all along the way is as it was at the start, so that nothing jumps on its way.
  const forces: Forces = {
    gravity: held(layer.gravity) as [number, number],
    wind: held(layer.wind) as [number, number],
    drag: held(layer.drag),
  };
  const life = held(layer.life);
  const varies = { life: held(vary.life), speed: held(vary.speed), size: held(vary.size) };
  const turn = {
    at: held(angle.at),
    spread: held(angle.spread),
    spin: held(angle.spin),
    along: held(angle.along),
  };
  const reach = turbulence ? held(turbulence.reach) : 0;
  const [amount, speed, direction, spread, across] = [
    at(layer.amount),
    at(layer.speed),
    at(layer.direction),
    at(layer.spread),
    at(layer.across),
  ];
  const found: Particle[] = [];
  for (const [i, birth] of births(layer, tools, life * (1 + varies.life))) {
    const chance = (channel: number) => randomAt(seed, i, channel);
    const either = (channel: number) => chance(channel) * 2 - 1;
    if (chance(2) >= amount(birth)) continue;
    const lasts = life * (1 + varies.life * either(3));
    const age = moment.time - birth;
    if (age >= lasts) continue;
    if (found.length === MOST) {
      notice({ kind: 'too-much', slot: '' });
      break;
    }
    const part = age / lasts;
    const source = Math.floor(chance(4) * sources.length);
    const { points } = sources[source]!;
    const [x, y] = points[Math.floor(chance(5) * points.length)]!;
    const pace = speed(birth) * (1 + varies.speed * either(6));
    const heading = ((direction(birth) + spread(birth) * either(7)) * Math.PI) / 180;
    const velocity = [Math.cos(heading) * pace, Math.sin(heading) * pace] as const;
    const [dx, dy] = flightAt(velocity, forces, age);
    const carried = (axis: number) =>
      reach === 0
        ? 0
        : reach * (noiseAt(seed + i, axis, age / turbulence!.every) - noiseAt(seed + i, axis, 0));
    let degrees = turn.at + turn.spread * either(8) + turn.spin * either(9) * age;
    if (turn.along) {
      const [nx, ny] = flightAt(velocity, forces, age + 0.01);
      degrees += (Math.atan2(ny - dy, nx - dx) * 180) / Math.PI;
    }
    const size = across(birth) * (1 + varies.size * either(10)) * along(layer.grow, part);
    const opacity = Math.min(1, along(layer.show, part));
    if (!(size > 0.01 && opacity > 0.004)) continue;
    const [c, s] = [Math.cos((degrees * Math.PI) / 180) * size, Math.sin((degrees * Math.PI) / 180) * size];
    found.push({
      source,
      age: part,
      opacity,
      place: [c, s, -s, c, x + dx + carried(0), y + dy + carried(1)],
    });
  }
  // The oldest lie lowest, and keep their place among the others.
  return found.reverse();
}

/** Where particles come from, in the layer's own coordinates. */
function sourcesOf(
  layer: ParticlesLayer,
  box: { width: number; height: number },
  tools: PaintTools,
): Source[] {
  const { from, seed } = layer;
  const { value, memo } = tools;
  if ('point' in from) {
    const [x, y] = value(from.point);
    return [{ points: [[x * box.width, y * box.height]] }];
  }
  if ('outline' in from) {
    const path = outlinePath(from.outline, { x: 0, y: 0, width: box.width, height: box.height }, tools);
    const points = memo.of(
      `scatter/${from.where}/${seed}`,
      () => scatter(path, PLACES, seed, from.where),
      path,
    );
    return points.length > 0 ? [{ points }] : [];
  }
  return lettersOf(from, layer, tools);
}

function lettersOf(
  { text, only, where }: Extract<ParticlesLayer['from'], { text: string }>,
  { seed }: ParticlesLayer,
  { value, memo, besides }: PaintTools,
): Source[] {
  const beside = besides(text);
  const layout = beside?.node.measured.text;
  if (!beside || !layout) return [];
  const runs = beside.node.measured.runs ?? [];
  const wanted = value(only);
  const align = beside.node.layer.kind === 'text' ? ALIGN[value(beside.node.layer.align)] : 0;
  const { bend } = beside.node.measured;
  const glyphs = layout.glyphs.filter(
    (g) => g.advance > 0 && (wanted === 'all' || runs[g.run]?.marked === true),
  );
  return glyphs.flatMap((g): Source[] => {
    const { letter, points } = memo.of(
      `letter/${where}/${seed}/${g.glyph}/${g.picture ?? ''}`,
      () => letterOf(g, where, seed),
      g.face,
    );
    const base = bend ? multiply4(beside.matrix, bendGlyph(bend, layout, g, align)) : beside.matrix;
    const [a, b, c, d, e, f] = affineOf(
      planeTimes(planeOf(base), [layout.size, 0, 0, layout.size, g.x, g.y]),
    );
    const placed = points.map(([x, y]): Point => [a * x + c * y + e, b * x + d * y + f]);
    return placed.length > 0 ? [{ points: placed, letter }] : [];
  });
}

/** A glyph as a particle, and places on it; both in ems. */
function letterOf(
  g: PlacedGlyph,
  where: 'inside' | 'edge' | 'middle',
  seed: number,
): { letter: Letter; points: readonly Point[] } {
  if (g.picture !== undefined) {
    // A colour glyph has no outline: its em is taken for it.
    const box = { x: 0.1, y: -0.75, width: 0.8, height: 0.8 };
    const middle: Point = [box.x + box.width / 2, box.y + box.height / 2];
    const any = (i: number): Point => [
      box.x + box.width * randomAt(seed, i, 1),
      box.y + box.height * randomAt(seed, i, 2),
    ];
    const points = where === 'middle' ? [middle] : Array.from({ length: PLACES }, (_, i) => any(i));
    return { letter: { sign: g.picture }, points };
  }
  const path = g.face.outline(g.glyph);
  const { x, y, width, height } = pathBounds(path);
  const long = Math.max(width, height);
  if (!(long > 0)) return { letter: {}, points: [] };
  const middle: Point = [x + width / 2, y + height / 2];
  const k = DRAWN / long;
  return {
    letter: { path: transformPath(path, [k, 0, 0, k, -middle[0] * k, -middle[1] * k]) },
    points: where === 'middle' ? [middle] : scatter(path, PLACES, seed, where, 0.002),
  };
}

/** Small things that come from somewhere, fly as they are pushed, and go. */
export const particles: LayerKind<ParticlesLayer> = {
  measure(layer, parent, { value }) {
    const [width, height] = layer.size ? value(layer.size) : [parent.width, parent.height];
    return { size: { width, height } };
  },

  paint({ layer, box }, tools) {
    const sources = sourcesOf(layer, box, tools);
    if (sources.length === 0) return [];
    const found = alive(layer, sources, tools);
    const { looks } = layer;
    if ('picture' in looks) return pictures(found, looks.picture, tools);
    if ('letter' in looks) {
      return sources.flatMap(({ letter }, source) => {
        const own = found.filter((p) => p.source === source);
        if (letter?.sign !== undefined) return signs(own, letter.sign, tools);
        return letter?.path ? copies(own, letter.path, layer, tools) : [];
      });
    }
    const wide = Math.min(1, looks.ratio) * DRAWN;
    const high = Math.min(1, 1 / looks.ratio) * DRAWN;
    const drawn = { x: -wide / 2, y: -high / 2, width: wide, height: high };
    return copies(found, outlinePath(looks.outline, drawn, tools), layer, tools);
  },

  slots: ({ looks }) => ('picture' in looks ? [looks.picture] : []),
};

/** Particles of one outline: one operation for each colour they have just now. */
function copies(found: readonly Particle[], path: Path, layer: ParticlesLayer, tools: PaintTools): Op[] {
  const colours = layer.colours.map((c) => tools.value(c));
  const steps = colours.length === 1 ? 1 : STEPS;
  const parts: Particle[][] = Array.from({ length: steps }, () => []);
  for (const p of found) parts[Math.min(steps - 1, Math.floor(p.age * steps))]!.push(p);
  // The oldest lie lowest.
  return parts.reverse().flatMap((own, i): Op[] => {
    if (own.length === 0) return [];
    const places = new Float32Array(own.length * 6);
    own.forEach(({ place: [a, b, c, d, e, f] }, n) => {
      places.set([a / DRAWN, b / DRAWN, c / DRAWN, d / DRAWN, e, f], n * 6);
    });
    return [
      {
        op: 'copies',
        path,
        plane: tools.plane,
        fill: { kind: 'solid', colour: along(colours, (steps - i - 0.5) / steps) },
        places,
        opacities: Float32Array.from(own, (p) => p.opacity),
        opacity: 1,
      },
    ];
  });
}

/** Particles that are a colour glyph. */
function signs(found: readonly Particle[], text: string, { plane }: PaintTools): Op[] {
  return found.map(({ place: [a, b, c, d, e, f], opacity }) => ({
    op: 'glyph',
    text,
    size: DRAWN,
    // A sign stands on its baseline: its middle is moved to the particle's.
    plane: planeTimes(planeTimes(plane, [a, b, c, d, e, f]), [1 / DRAWN, 0, 0, 1 / DRAWN, -0.5, 0.35]),
    opacity,
  }));
}

/** Particles that are the picture of a slot, whole. */
function pictures(found: readonly Particle[], slot: string, tools: PaintTools): Op[] {
  const picture = tools.picture(slot);
  if (!picture) return [];
  const { width, height } = picture;
  const k = 1 / Math.max(width, height);
  return found.map(({ place, opacity }) => ({
    op: 'picture',
    picture: picture.id,
    ...(picture.at === undefined ? {} : { at: picture.at }),
    source: { x: 0, y: 0, width, height },
    target: { x: (-width * k) / 2, y: (-height * k) / 2, width: width * k, height: height * k },
    plane: planeTimes(tools.plane, place),
    opacity: opacity * (picture.opacity ?? 1),
  }));
}
