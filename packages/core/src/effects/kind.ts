import { z } from 'zod';
import type { Property, Value } from '../documents/property';
import type { Surface } from '../paint/surface';

/** Of a text: the words an effect is limited to; all of the layer, when absent. */
export const onlySchema = z.enum(['marked', 'unmarked']).optional();

/** Frame units an effect paints beyond its content, on each side. */
export interface Growth {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** What an effect's values may depend on. What is random is made from the time and a seed of the document's. */
export interface EffectMoment {
  readonly value: <T extends Value>(p: Property<T>) => T;
  /** Local time in frames of the template. */
  readonly time: number;
}

/** What an effect works with while it is painted. */
export interface EffectTools {
  /** Pixels per frame unit. */
  readonly scale: number;
  /** The pixel of the frame that lies at the surface's top left. */
  readonly left: number;
  readonly top: number;
  /** What has been painted below the group, where its surface lies, gone on at its edges; give it back when done. */
  backdrop(): Surface;
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
  /** Whether these values leave the picture as it is. */
  isNothing(values: Values): boolean;
  growth(values: Values): Growth;
  /** Pixels per frame unit beyond which nothing more of the content is seen; without end, when absent. */
  detail?(values: Values): number;
  /** Takes the group's surface (it owns it now) and returns one of the same size. */
  apply(values: Values, surface: Surface, tools: EffectTools): Surface;
}
