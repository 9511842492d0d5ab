import { colourText, parseColour, type Rgba } from './colour';

export type Vector = readonly [x: number, y: number, z: number];

/** A light far away. Directions are the viewer's: x to the right, y downwards, z away from the viewer. */
export interface Light {
  /** The unit vector towards it. */
  readonly towards: Vector;
  /** Linear red, green and blue, its strength in them. */
  readonly colour: Vector;
}

/** What falls on surfaces: light from all around, and lights. */
export interface Lighting {
  readonly ambient: number;
  readonly lights: readonly Light[];
  /** How much of the lights a surface mirrors, 0..1. */
  readonly gloss: number;
}

/** How narrow a mirrored light is. */
const SHINE = 22;
/** Steps of a channel: faces that differ by less are painted as one. */
const STEP = 3;

/** IEC 61966-2-1: from sRGB to linear light, and back. */
export const toLinear = (v: number) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);

/** The linear value of each of the 256 of sRGB. */
export const LINEAR = Float32Array.from({ length: 256 }, (_, v) => toLinear(v / 255));
export const fromLinear = (v: number) => (v <= 0.0031308 ? v * 12.92 : 1.055 * v ** (1 / 2.4) - 0.055);

export function linearOf(colour: string): Rgba {
  const [r, g, b, a] = parseColour(colour);
  return [toLinear(r), toLinear(g), toLinear(b), a];
}

/**
 * A light from a direction on the picture.
 * @param angle degrees: 0 from the right, 90 from below
 * @param height degrees above the picture: 0 grazes it, 90 comes from the viewer
 */
export function lightFrom(angle: number, height: number, colour: string, strength: number): Light {
  const [a, h] = [(angle * Math.PI) / 180, (height * Math.PI) / 180];
  const [r, g, b] = linearOf(colour);
  return {
    towards: [Math.cos(h) * Math.cos(a), Math.cos(h) * Math.sin(a), -Math.sin(h)],
    colour: [r * strength, g * strength, b * strength],
  };
}

const dot = (a: Vector, b: Vector) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/** What a surface throws back evenly (Lambert's cosine law), by channel: times its own colour in linear light. */
export function diffuse({ ambient, lights }: Lighting, normal: Vector): Vector {
  let [r, g, b] = [ambient, ambient, ambient];
  for (const { towards, colour } of lights) {
    const k = Math.max(0, dot(normal, towards));
    r += colour[0] * k;
    g += colour[1] * k;
    b += colour[2] * k;
  }
  return [r, g, b];
}

/**
 * What a surface mirrors of the lights (Blinn, "Models of light reflection for computer synthesized pictures", 1977).
 * @param view the unit vector towards the viewer
 */
export function mirrored({ lights, gloss }: Lighting, normal: Vector, view: Vector): Vector {
  if (gloss <= 0) return [0, 0, 0];
  let [r, g, b] = [0, 0, 0];
  for (const { towards, colour } of lights) {
    const half: Vector = [towards[0] + view[0], towards[1] + view[1], towards[2] + view[2]];
    const length = Math.sqrt(dot(half, half)) || 1;
    const k = gloss * Math.max(0, dot(normal, half) / length) ** SHINE;
    r += colour[0] * k;
    g += colour[1] * k;
    b += colour[2] * k;
  }
  return [r, g, b];
}

/** A colour in linear light under what falls on it, as it is painted. */
export function lit([r, g, b, a]: Rgba, under: Vector, more: Vector = [0, 0, 0]): string {
  const channel = (v: number, k: number, m: number) => {
    const shown = fromLinear(Math.min(1, v * k + m)) * 255;
    return (Math.round(shown / STEP) * STEP) / 255;
  };
  return colourText([
    channel(r, under[0], more[0]),
    channel(g, under[1], more[1]),
    channel(b, under[2], more[2]),
    a,
  ]);
}
