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

export interface EffectTools {
  /** Pixels per frame unit. */
  readonly scale: number;
  /** A clear surface of at least one pixel; give it back when done. */
  borrow(width: number, height: number): Surface;
  giveBack(surface: Surface): void;
}

/** An effect: its document, its values at a moment, and what it does to a painted group. */
export interface EffectKind<Document, Values> {
  readonly schema: z.ZodType<Document>;
  resolve(document: Document, value: <T extends Value>(p: Property<T>) => T): Values;
  /** The values of a layer that shows `by` times as large. */
  scaled(values: Values, by: number): Values;
  /** Whether these values leave the picture as it is. */
  isNothing(values: Values): boolean;
  growth(values: Values): Growth;
  /** Takes the group's surface (it owns it now) and returns one of the same size. */
  apply(values: Values, surface: Surface, tools: EffectTools): Surface;
}
