import { z } from 'zod';
import type { Surface } from '../paint/surface';
import { type Blur, blur, blurSchema } from './blur';
import { type Frost, frost, frostSchema } from './frost';
import type { EffectKind, EffectMoment, EffectTools, Growth } from './kind';
import { type Shadow, shadow, shadowSchema } from './shadow';
import { type Tear, tear, tearSchema } from './tear';

/** An effect with its values at one moment. */
export type Effect = Blur | Shadow | Frost | Tear;

export const effectSchema = z.discriminatedUnion('effect', [
  blurSchema,
  shadowSchema,
  frostSchema,
  tearSchema,
]);
export type EffectDocument = z.infer<typeof effectSchema>;

/** One line per effect: its document meets its own kind. */
function resolved(document: EffectDocument, at: Resolving): Effect | undefined {
  switch (document.effect) {
    case 'blur':
      return valuesOf(blur, document, at);
    case 'shadow':
      return valuesOf(shadow, document, at);
    case 'frost':
      return valuesOf(frost, document, at);
    case 'tear':
      return valuesOf(tear, document, at);
  }
}

/** One line per effect: its values meet their own kind. */
function withKind<R>(effect: Effect, use: <D, V>(kind: EffectKind<D, V>, values: V) => R): R {
  switch (effect.effect) {
    case 'blur':
      return use(blur, effect);
    case 'shadow':
      return use(shadow, effect);
    case 'frost':
      return use(frost, effect);
    case 'tear':
      return use(tear, effect);
  }
}

interface Resolving {
  readonly moment: EffectMoment;
  readonly scale: number;
}

function valuesOf<D, V>(kind: EffectKind<D, V>, document: D, { moment, scale }: Resolving): V | undefined {
  const values = kind.scaled(kind.resolve(document, moment), scale);
  return kind.isNothing(values) ? undefined : values;
}

/**
 * An effect's values at a moment, or nothing when it would change nothing.
 * @param scale how much larger than its own units the layer shows: its effects go with it
 */
export function resolveEffect(
  document: EffectDocument,
  moment: EffectMoment,
  scale: number,
): Effect | undefined {
  return resolved(document, { moment, scale });
}

/** An effect of something that shows `by` times as large. */
export function scaledEffect(effect: Effect, by: number): Effect {
  return withKind(effect, (kind, values) => kind.scaled(values, by) as unknown as Effect);
}

export function growthOf(effect: Effect): Growth {
  return withKind(effect, (kind, values) => kind.growth(values));
}

/** Pixels per frame unit beyond which nothing more is seen of what these effects are put on. */
export function detailUnder([first]: readonly Effect[]): number {
  if (!first) return Number.POSITIVE_INFINITY;
  return withKind(first, (kind, values) => kind.detail?.(values) ?? Number.POSITIVE_INFINITY);
}

/** Whether an effect depends on where in the frame its content lies. */
export function isOfFrame(effect: Effect): boolean {
  return withKind(effect, (kind) => kind.isOfFrame ?? false);
}

/** Whether an effect looks at what lies below its group. */
export function readsBackdrop(effect: Effect): boolean {
  return withKind(effect, (kind) => kind.readsBackdrop ?? false);
}

export function applyEffect(effect: Effect, surface: Surface, tools: EffectTools): Surface {
  return withKind(effect, (kind, values) => kind.apply(values, surface, tools));
}
