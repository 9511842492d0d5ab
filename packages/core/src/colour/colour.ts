import { z } from 'zod';

/** `#rrggbb` or `#rrggbbaa`, sRGB. */
export const colourSchema = z
  .string()
  .regex(/^#[0-9a-fA-F]{6}([0-9a-fA-F]{2})?$/, 'is not a colour such as #C8431C')
  .meta({ id: 'colour' });

/** Red, green, blue and alpha, each 0..1, sRGB, not premultiplied. */
export type Rgba = readonly [number, number, number, number];

/** @throws {Error} when the text is not `#rrggbb` or `#rrggbbaa`. */
export function parseColour(text: string): Rgba {
  if (!/^#[0-9a-fA-F]{6}([0-9a-fA-F]{2})?$/.test(text))
    throw new Error(`"${text}" is not a colour such as #C8431C.`);
  const byte = (i: number) => Number.parseInt(text.slice(i, i + 2), 16) / 255;
  return [byte(1), byte(3), byte(5), text.length === 9 ? byte(7) : 1];
}

export function colourText([r, g, b, a]: Rgba): string {
  const hex = (v: number) =>
    Math.round(Math.min(1, Math.max(0, v)) * 255)
      .toString(16)
      .padStart(2, '0');
  return `#${hex(r)}${hex(g)}${hex(b)}${a < 1 ? hex(a) : ''}`;
}

/** The same colour with its alpha multiplied. */
export function withAlpha(text: string, alpha: number): string {
  const [r, g, b, a] = parseColour(text);
  return colourText([r, g, b, a * alpha]);
}

/** sRGB to linear light (IEC 61966-2-1). */
const toLinear = (v: number) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);
const fromLinear = (v: number) => (v <= 0.0031308 ? v * 12.92 : 1.055 * v ** (1 / 2.4) - 0.055);

type Triple = [number, number, number];

/** Linear sRGB to OKLab and back. Source: B. Ottosson, "A perceptual color space for image processing" (2020). */
function toOklab(r: number, g: number, b: number): Triple {
  const [lr, lg, lb] = [toLinear(r), toLinear(g), toLinear(b)];
  const l = Math.cbrt(0.4122214708 * lr + 0.5363325363 * lg + 0.0514459929 * lb);
  const m = Math.cbrt(0.2119034982 * lr + 0.6806995451 * lg + 0.1073969566 * lb);
  const s = Math.cbrt(0.0883024619 * lr + 0.2817188376 * lg + 0.6299787005 * lb);
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ];
}
function fromOklab(L: number, a: number, b: number): Triple {
  const l = (L + 0.3963377774 * a + 0.2158037573 * b) ** 3;
  const m = (L - 0.1055613458 * a - 0.0638541728 * b) ** 3;
  const s = (L - 0.0894841775 * a - 1.291485548 * b) ** 3;
  return [
    fromLinear(4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s),
    fromLinear(-1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s),
    fromLinear(-0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s),
  ];
}

/** A colour `amount` of the way from one to the other, even to the eye (through OKLab). */
export function mixColours(from: string, to: string, amount: number): string {
  const [a, b] = [parseColour(from), parseColour(to)];
  const t = Math.min(1, Math.max(0, amount));
  const [la, lb] = [toOklab(a[0], a[1], a[2]), toOklab(b[0], b[1], b[2])];
  const mixed = fromOklab(
    la[0] + (lb[0] - la[0]) * t,
    la[1] + (lb[1] - la[1]) * t,
    la[2] + (lb[2] - la[2]) * t,
  );
  return colourText([...mixed, a[3] + (b[3] - a[3]) * t]);
}

/** Relative luminance, 0..1. Source: WCAG 2.2. */
export function luminance(text: string): number {
  const [r, g, b] = parseColour(text);
  return 0.2126 * toLinear(r) + 0.7152 * toLinear(g) + 0.0722 * toLinear(b);
}

/** Contrast ratio, 1..21. Source: WCAG 2.2. */
export function contrast(a: string, b: string): number {
  const [la, lb] = [luminance(a), luminance(b)];
  return (Math.max(la, lb) + 0.05) / (Math.min(la, lb) + 0.05);
}

/** The one of the candidates that reads best on a ground. */
export function mostReadable(ground: string, candidates: readonly string[]): string {
  return candidates.reduce((best, c) => (contrast(ground, c) > contrast(ground, best) ? c : best));
}
