import { z } from 'zod';
import type { Property, Value } from '../documents/property';
import type { Surface } from '../paint/surface';
import { type Blur, blur, blurSchema } from './blur';
import type { EffectKind, EffectTools, Growth } from './kind';
import { type Shadow, shadow, shadowSchema } from './shadow';

/** An effect with its values at one moment. */
export type Effect = Blur | Shadow;

/** One line per effect. */
const KINDS = { blur, shadow } as const;

export const effectSchema = z.discriminatedUnion('effect', [blurSchema, shadowSchema]);
export type EffectDocument = z.infer<typeof effectSchema>;

/** The registry's kinds take their own documents and values; the name keeps the pairs together. */
function kindOf(name: keyof typeof KINDS): EffectKind<EffectDocument, Effect> {
  return KINDS[name] as unknown as EffectKind<EffectDocument, Effect>;
}

/**
 * An effect's values at a moment, or nothing when it would change nothing.
 * @param scale how much larger than its own units the layer shows: its effects go with it
 */
export function resolveEffect(
  document: EffectDocument,
  value: <T extends Value>(p: Property<T>) => T,
  scale: number,
): Effect | undefined {
  const kind = kindOf(document.effect);
  const values = kind.scaled(kind.resolve(document, value), scale);
  return kind.isNothing(values) ? undefined : values;
}

export function growthOf(effect: Effect): Growth {
  return kindOf(effect.effect).growth(effect);
}

export function applyEffect(effect: Effect, surface: Surface, tools: EffectTools): Surface {
  return kindOf(effect.effect).apply(effect, surface, tools);
}
