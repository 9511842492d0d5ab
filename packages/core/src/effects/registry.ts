import { z } from 'zod';
import type { Surface } from '../canvas/surface';
import type { Affine } from '../geometry/matrix';
import { type Bleed, bleed, bleedSchema } from './bleed';
import { type Blur, blur, blurSchema } from './blur';
import { type Bulge, bulge, bulgeSchema } from './bulge';
import { type Chalk, chalk, chalkSchema } from './chalk';
import { type Crumple, crumple, crumpleSchema } from './crumple';
import { type Disturb, disturb, disturbSchema } from './disturb';
import { type Flow, flow, flowSchema } from './flow';
import { type Frost, frost, frostSchema } from './frost';
import { type Glow, glow, glowSchema } from './glow';
import { type GrainOver, grain, grainSchema } from './grain';
import { type Halftone, halftone, halftoneSchema } from './halftone';
import { type InnerShadow, innerShadow, innerShadowSchema } from './innerShadow';
import type { EffectKind, EffectMoment, EffectTools, Growth } from './kind';
import { type LongShadow, longShadow, longShadowSchema } from './longShadow';
import { type Neon, neon, neonSchema } from './neon';
import { type Shadow, shadow, shadowSchema } from './shadow';
import { type Sharpen, sharpen, sharpenSchema } from './sharpen';
import { type Tape, tape, tapeSchema } from './tape';
import { type Tear, tear, tearSchema } from './tear';
import { type Tint, tint, tintSchema } from './tint';
import {
  type Brightness,
  brightness,
  brightnessSchema,
  type Contrast,
  contrast,
  contrastSchema,
  type Saturation,
  saturation,
  saturationSchema,
} from './tone';
import { type Tremble, tremble, trembleSchema } from './tremble';
import { type Vignette, vignette, vignetteSchema } from './vignette';

/** An effect with its values at one moment. */
export type Effect =
  | Blur
  | Shadow
  | InnerShadow
  | Frost
  | Tear
  | Disturb
  | Brightness
  | Contrast
  | Saturation
  | Tint
  | Sharpen
  | GrainOver
  | Vignette
  | Glow
  | Tremble
  | Neon
  | Flow
  | Bulge
  | Tape
  | Crumple
  | Bleed
  | LongShadow
  | Chalk
  | Halftone;

export const effectSchema = z.discriminatedUnion('effect', [
  blurSchema,
  shadowSchema,
  innerShadowSchema,
  frostSchema,
  tearSchema,
  disturbSchema,
  brightnessSchema,
  contrastSchema,
  saturationSchema,
  tintSchema,
  sharpenSchema,
  grainSchema,
  vignetteSchema,
  glowSchema,
  trembleSchema,
  neonSchema,
  flowSchema,
  bulgeSchema,
  tapeSchema,
  crumpleSchema,
  bleedSchema,
  longShadowSchema,
  chalkSchema,
  halftoneSchema,
]);
export type EffectDocument = z.infer<typeof effectSchema>;

/** One line per effect: its document meets its own kind. */
function resolved(document: EffectDocument, at: Resolving): Effect | undefined {
  switch (document.effect) {
    case 'blur':
      return valuesOf(blur, document, at);
    case 'shadow':
      return valuesOf(shadow, document, at);
    case 'inner-shadow':
      return valuesOf(innerShadow, document, at);
    case 'frost':
      return valuesOf(frost, document, at);
    case 'tear':
      return valuesOf(tear, document, at);
    case 'disturb':
      return valuesOf(disturb, document, at);
    case 'brightness':
      return valuesOf(brightness, document, at);
    case 'contrast':
      return valuesOf(contrast, document, at);
    case 'saturation':
      return valuesOf(saturation, document, at);
    case 'tint':
      return valuesOf(tint, document, at);
    case 'sharpen':
      return valuesOf(sharpen, document, at);
    case 'grain':
      return valuesOf(grain, document, at);
    case 'vignette':
      return valuesOf(vignette, document, at);
    case 'glow':
      return valuesOf(glow, document, at);
    case 'tremble':
      return valuesOf(tremble, document, at);
    case 'neon':
      return valuesOf(neon, document, at);
    case 'flow':
      return valuesOf(flow, document, at);
    case 'bulge':
      return valuesOf(bulge, document, at);
    case 'tape':
      return valuesOf(tape, document, at);
    case 'crumple':
      return valuesOf(crumple, document, at);
    case 'bleed':
      return valuesOf(bleed, document, at);
    case 'long-shadow':
      return valuesOf(longShadow, document, at);
    case 'chalk':
      return valuesOf(chalk, document, at);
    case 'halftone':
      return valuesOf(halftone, document, at);
  }
}

/** One line per effect: its values meet their own kind. */
function withKind<R>(effect: Effect, use: <D, V>(kind: EffectKind<D, V>, values: V) => R): R {
  switch (effect.effect) {
    case 'blur':
      return use(blur, effect);
    case 'shadow':
      return use(shadow, effect);
    case 'inner-shadow':
      return use(innerShadow, effect);
    case 'frost':
      return use(frost, effect);
    case 'tear':
      return use(tear, effect);
    case 'disturb':
      return use(disturb, effect);
    case 'brightness':
      return use(brightness, effect);
    case 'contrast':
      return use(contrast, effect);
    case 'saturation':
      return use(saturation, effect);
    case 'tint':
      return use(tint, effect);
    case 'sharpen':
      return use(sharpen, effect);
    case 'grain':
      return use(grain, effect);
    case 'vignette':
      return use(vignette, effect);
    case 'glow':
      return use(glow, effect);
    case 'tremble':
      return use(tremble, effect);
    case 'neon':
      return use(neon, effect);
    case 'flow':
      return use(flow, effect);
    case 'bulge':
      return use(bulge, effect);
    case 'tape':
      return use(tape, effect);
    case 'crumple':
      return use(crumple, effect);
    case 'bleed':
      return use(bleed, effect);
    case 'long-shadow':
      return use(longShadow, effect);
    case 'chalk':
      return use(chalk, effect);
    case 'halftone':
      return use(halftone, effect);
  }
}

/** What an effect of a layer is called where the user switches it off. */
export const effectKey = (layer: string, { effect }: EffectDocument): string => `${layer}/${effect}`;

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

/** An effect of something that is laid elsewhere in the frame, where it shows `scale` times as large. */
export function movedEffect(effect: Effect, matrix: Affine, scale: number): Effect {
  return withKind(effect, (kind, values) => {
    const scaled = kind.scaled(values, scale);
    return (kind.moved?.(scaled, matrix) ?? scaled) as unknown as Effect;
  });
}

export function growthOf(effect: Effect): Growth {
  return withKind(effect, (kind, values) => kind.growth(values));
}

/** Pixels per frame unit that a draft gives what is dear: 480 by 270 for a whole frame. */
const DEAR_DETAIL = 0.25;

/**
 * Pixels per frame unit that what these effects are put on is painted at, at most: beyond them nothing more is seen, or
 * a draft does without.
 */
export function detailUnder(effects: readonly Effect[], draft: boolean): number {
  const [first] = effects;
  if (!first) return Number.POSITIVE_INFINITY;
  const seen = withKind(first, (kind, values) => kind.detail?.(values, draft) ?? Number.POSITIVE_INFINITY);
  const dear = draft && effects.some((effect) => withKind(effect, (kind) => kind.dear ?? false));
  return dear ? Math.min(seen, DEAR_DETAIL) : seen;
}

/** Whether an effect depends on where in the frame its content lies. */
export function isOfFrame(effect: Effect): boolean {
  return withKind(effect, (kind) => kind.isOfFrame ?? false);
}

/** Whether an effect looks at what lies below its group. */
export function readsBackdrop(effect: Effect): boolean {
  return withKind(effect, (kind) => kind.readsBackdrop ?? false);
}

/** Whether an effect changes colours and no alpha. */
export function keepsAlpha(effect: Effect): boolean {
  return withKind(effect, (kind) => kind.keepsAlpha ?? false);
}

export function applyEffect(effect: Effect, surface: Surface, tools: EffectTools): Surface {
  return withKind(effect, (kind, values) => kind.apply(values, surface, tools));
}
