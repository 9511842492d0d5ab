import { converter, modeLrgb, modeOklab, modeRgb, useMode, wcagContrast, wcagLuminance } from 'culori/fn';
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

useMode(modeRgb);
useMode(modeLrgb);
useMode(modeOklab);

const toOklab = converter('oklab');
const toRgb = converter('rgb');

const rgb = (text: string) => {
  const [r, g, b, alpha] = parseColour(text);
  return { mode: 'rgb', r, g, b, alpha } as const;
};

/**
 * A colour `amount` of the way from one to the other, even to the eye: through OKLab, and premultiplied, so that what
 * is transparent lends no colour (CSS Color 4, 12.3).
 */
export function mixColours(from: string, to: string, amount: number): string {
  const t = Math.min(1, Math.max(0, amount));
  const [a, b] = [toOklab(rgb(from)), toOklab(rgb(to))];
  const [wa, wb] = [(a.alpha ?? 1) * (1 - t), (b.alpha ?? 1) * t];
  const alpha = wa + wb;
  // Of nothing at all the colour is the nearer one's.
  const [ka, kb] = alpha > 0 ? [wa / alpha, wb / alpha] : [1 - Math.round(t), Math.round(t)];
  const mixed = toRgb({
    mode: 'oklab',
    l: a.l * ka + b.l * kb,
    a: a.a * ka + b.a * kb,
    b: a.b * ka + b.b * kb,
  });
  return colourText([mixed.r, mixed.g, mixed.b, alpha]);
}

/** Lightness 0..1, and the two axes of hue. */
export type Oklab = readonly [l: number, a: number, b: number];

/** A colour in OKLab; its alpha is left out. */
export function oklabOf(text: string): Oklab {
  const { l, a, b } = toOklab(rgb(text));
  return [l, a, b];
}

/** A colour of OKLab as it can be shown: what no screen has loses strength, and keeps its lightness and hue. */
export function fromOklab([l, a, b]: Oklab): string {
  for (let k = 1; k > 0; k -= 0.05) {
    const shown = toRgb({ mode: 'oklab', l, a: a * k, b: b * k });
    if ([shown.r, shown.g, shown.b].every((v) => v >= -0.002 && v <= 1.002))
      return colourText([shown.r, shown.g, shown.b, 1]);
  }
  const grey = toRgb({ mode: 'oklab', l, a: 0, b: 0 });
  return colourText([grey.r, grey.g, grey.b, 1]);
}

/** Relative luminance, 0..1. Source: WCAG 2.2. */
export function luminance(text: string): number {
  return wcagLuminance(rgb(text));
}

/** Contrast ratio, 1..21. Source: WCAG 2.2. */
export function contrast(a: string, b: string): number {
  return wcagContrast(rgb(a), rgb(b));
}

/** The one of the candidates that reads best on a ground. */
export function mostReadable(ground: string, candidates: readonly string[]): string {
  return candidates.reduce((best, c) => (contrast(ground, c) > contrast(ground, best) ? c : best));
}
