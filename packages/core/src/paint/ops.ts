import type { Effect } from '../effects/registry';
import type { Affine, Homography } from '../geometry/matrix';
import type { Path } from '../geometry/path';
import type { Rect } from '../geometry/rect';
import type { MaterialName } from './materials/kinds';

/** The sixteen blend modes of W3C Compositing and Blending Level 1, §10. */
export const BLEND_MODES = [
  'normal',
  'multiply',
  'screen',
  'overlay',
  'darken',
  'lighten',
  'color-dodge',
  'color-burn',
  'hard-light',
  'soft-light',
  'difference',
  'exclusion',
  'hue',
  'saturation',
  'color',
  'luminosity',
] as const;
export type BlendMode = (typeof BLEND_MODES)[number];

/**
 * How a group meets what lies below: a blend mode, on its alpha alone, or the part that stays inside or outside the
 * group's alpha.
 */
export type Composite = BlendMode | 'atop' | 'keep-inside' | 'keep-outside';

/** A shade of wood, cloth or stone over a colour or gradient. */
export interface Material {
  readonly of: MaterialName;
  /** 0..1. */
  readonly strength: number;
  /** From texels of its tile to the operation's plane. */
  readonly map: Affine;
}

/** A colour or a gradient, of some material or of none; points in the coordinates of the operation's plane. */
export type Paint = Ground & { readonly material?: Material };
type Ground =
  | { readonly kind: 'solid'; readonly colour: string }
  | {
      readonly kind: 'linear';
      readonly from: readonly [number, number];
      readonly to: readonly [number, number];
      readonly stops: readonly Stop[];
    }
  | {
      readonly kind: 'radial';
      readonly centre: readonly [number, number];
      readonly radius: number;
      readonly stops: readonly Stop[];
    };
/** Whether a paint is a colour and nothing more. */
export const isPlain = (paint: Paint): paint is Paint & { readonly kind: 'solid' } =>
  paint.kind === 'solid' && !paint.material;

export type Stop = readonly [at: number, colour: string];

export interface StrokeStyle {
  readonly paint: Paint;
  readonly width: number;
  readonly join: 'miter' | 'round' | 'bevel';
  readonly cap: 'butt' | 'round' | 'square';
  readonly dash?: readonly number[];
}

/**
 * One step of painting. Paths, pictures and signs lie in a plane of their own, with their paints and strokes, and
 * `plane` says how it shows in frame units; the painter scales those to the size painted, and only there perspective
 * is worked out. What one operation draws is one thing: its fill and its stroke fade and blend together. The list is
 * plain data: it can be sent, stored and compared.
 */
export type Op =
  | {
      readonly op: 'path';
      readonly path: Path;
      readonly plane: Homography;
      readonly fill?: Paint;
      readonly stroke?: StrokeStyle;
      /** One of hundreds of small words, which may be laid from a picture of it. */
      readonly small?: true;
      readonly opacity: number;
      readonly blend?: BlendMode;
    }
  /** One outline painted as often as there are places: together they are one thing, which fades and blends as one. */
  | {
      readonly op: 'copies';
      readonly path: Path;
      readonly plane: Homography;
      readonly fill: Paint;
      /** Six numbers for each copy: the affine map (a, b, c, d, e, f, as of a canvas) that puts it in the plane. */
      readonly places: Float32Array;
      /** One number for each copy, 0..1; all of them full, when absent. */
      readonly opacities?: Float32Array;
      readonly opacity: number;
      readonly blend?: BlendMode;
    }
  /** Flat faces with four corners each, painted in this order: together they are one thing, as the sides of a solid are. */
  | {
      readonly op: 'faces';
      readonly plane: Homography;
      /** Eight numbers a face, x and y of its corners, all faces the same way round. */
      readonly points: Float32Array;
      /** A colour for each face. */
      readonly colours: readonly string[];
      readonly opacity: number;
      readonly blend?: BlendMode;
    }
  /** Strokes with round ends, the first lowest: thousands of lines and dots that fade and blend as one. */
  | {
      readonly op: 'strokes';
      readonly plane: Homography;
      /** Eight numbers a stroke: x, y and half the width at either end; the index of its colour, and its opacity. */
      readonly rows: Float32Array;
      readonly colours: readonly string[];
      readonly opacity: number;
      readonly blend?: BlendMode;
    }
  | {
      readonly op: 'picture';
      readonly picture: string;
      /** Of a clip: the second of the file whose frame it is. */
      readonly at?: number;
      readonly source: Rect;
      readonly target: Rect;
      readonly plane: Homography;
      readonly opacity: number;
      readonly blend?: BlendMode;
    }
  | {
      readonly op: 'glyph';
      readonly text: string;
      readonly size: number;
      readonly plane: Homography;
      readonly opacity: number;
      readonly blend?: BlendMode;
    }
  | {
      readonly op: 'grain';
      readonly seed: number;
      readonly size: number;
      readonly area: Rect;
      readonly opacity: number;
      readonly blend?: BlendMode;
    }
  | { readonly op: 'clip'; readonly path: Path; readonly plane: Homography }
  | { readonly op: 'unclip' }
  | {
      readonly op: 'open';
      readonly bounds: Rect;
      readonly opacity: number;
      readonly composite: Composite;
      readonly effects: readonly Effect[];
      readonly luminance?: boolean;
      /** What a draft does with it: leaves it out, or paints it without its effects. `only`: nothing else paints it. */
      readonly draft?: 'without' | 'plain' | 'only';
    }
  | { readonly op: 'close' };

const DRAWINGS = ['path', 'copies', 'faces', 'strokes', 'picture', 'glyph', 'grain'] as const;
export type Drawing = Extract<Op, { op: (typeof DRAWINGS)[number] }>;

export function isDrawing(op: Op): op is Drawing {
  return (DRAWINGS as readonly string[]).includes(op.op);
}

/** Whether two operation lists paint the same picture: used to skip painting what did not change. */
export function sameOps(a: readonly Op[], b: readonly Op[]): boolean {
  return a.length === b.length && a.every((op, i) => sameData(op, b[i]));
}

/** Whether two rows of moments paint the same mean picture. */
export function sameMoments(a: readonly (readonly Op[])[], b: readonly (readonly Op[])[]): boolean {
  return a.length === b.length && a.every((ops, i) => sameOps(ops, b[i]!));
}

/** Deep equality of plain data; equal objects are recognised at once, so shared outlines cost nothing. */
export function sameData(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (a instanceof Float32Array) {
    return b instanceof Float32Array && a.length === b.length && a.every((v, i) => v === b[i]);
  }
  if (Array.isArray(a)) {
    return Array.isArray(b) && a.length === b.length && a.every((v, i) => sameData(v, b[i]));
  }
  const keys = Object.keys(a);
  return (
    keys.length === Object.keys(b).length &&
    keys.every((k) => sameData((a as Record<string, unknown>)[k], (b as Record<string, unknown>)[k]))
  );
}

/** A frame of a clip that a painter needs to have. */
export interface ClipFrame {
  readonly media: string;
  readonly at: number;
}

/** The frames of clips that operations show, each once. */
export function clipFramesOf(moments: readonly (readonly Op[])[]): ClipFrame[] {
  const found = new Map<string, ClipFrame>();
  for (const ops of moments) {
    for (const op of ops) {
      if (op.op !== 'picture' || op.at === undefined) continue;
      found.set(`${op.picture}/${op.at}`, { media: op.picture, at: op.at });
    }
  }
  return [...found.values()];
}

/** The pictures that operations show, clips left out, each once. */
export function picturesOf(moments: readonly (readonly Op[])[]): string[] {
  const found = moments.flatMap((ops) =>
    ops.flatMap((op) => (op.op === 'picture' && op.at === undefined ? [op.picture] : [])),
  );
  return [...new Set(found)];
}
