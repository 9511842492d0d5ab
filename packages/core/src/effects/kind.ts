import { z } from 'zod';
import type { LayStrokes } from '../canvas/strokes';
import type { Surface } from '../canvas/surface';
import type { Affine, Homography } from '../geometry/matrix';
import type { Rect } from '../geometry/rect';
import type { Property, Value } from '../values/property';

/** Of a text: the words an effect is limited to; all of the layer, when absent. */
export const onlySchema = z.enum(['marked', 'unmarked']).optional();

/** Makes a value one that may change over time, in whatever way the document that holds it can. */
export type Over = <S extends z.ZodType<Value>>(constant: S) => z.ZodType<Property<z.output<S>>>;

/** Frame units an effect paints beyond its content, on each side. */
export interface Growth {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Of an effect that keeps to its content. */
export const NO_GROWTH: Growth = { left: 0, top: 0, right: 0, bottom: 0 };

/** What an effect's values may depend on. What is random is made from the time and a seed of the document's. */
export interface EffectMoment {
  readonly value: <T extends Value>(p: Property<T>) => T;
  /** Local time in frames of the template. */
  readonly time: number;
  /** The content's own box, and the plane it lies in. */
  readonly box: Rect;
  readonly plane: Homography;
}

/** What an effect works with while it is painted. */
export interface EffectTools {
  /** Pixels per frame unit. */
  readonly scale: number;
  /** Whether what is soft may be made rougher, which costs a fraction. */
  readonly draft: boolean;
  /** The pixel of the frame that lies at the surface's top left. */
  readonly left: number;
  readonly top: number;
  /** What has been painted below the group, where its surface lies, gone on at its edges; give it back when done. */
  backdrop(): Surface;
  /** Lays opaque film grain over a surface of the group's size. @param size of a grain, in frame units */
  layGrain(surface: Surface, size: number, seed: number): void;
  /** Lays strokes and dots in pixels over each other: see `paint/strokes.ts`. */
  readonly layStrokes: LayStrokes;
  /** A clear surface of at least one pixel; give it back when done. */
  borrow(width: number, height: number): Surface;
  giveBack(surface: Surface): void;
}

/** An effect: its document, its values at a moment, and what it does to a painted group. */
export interface EffectKind<Document, Values> {
  readonly schema: z.ZodType<Document>;
  /** Whether it looks at what lies below: its group is then painted where that is known. */
  readonly readsBackdrop?: boolean;
  /** Whether it depends on where in the frame the content lies. */
  readonly isOfFrame?: boolean;
  resolve(document: Document, moment: EffectMoment): Values;
  /** The values of a layer that shows `by` times as large. */
  scaled(values: Values, by: number): Values;
  /** The values of content that is laid elsewhere in the frame; where it is changes nothing, when absent. */
  moved?(values: Values, matrix: Affine): Values;
  /** Whether these values leave the picture as it is. */
  isNothing(values: Values): boolean;
  growth(values: Values): Growth;
  /** Pixels per frame unit beyond which nothing more of the content is seen; without end, when absent. */
  detail?(values: Values, draft: boolean): number;
  /** Whether it changes colours and no alpha. */
  readonly keepsAlpha?: boolean;
  /** Whether each pixel of it costs much: a draft makes it of fewer. */
  readonly dear?: boolean;
  /** Takes the group's surface (it owns it now) and returns one of the same size. */
  apply(values: Values, surface: Surface, tools: EffectTools): Surface;
}
