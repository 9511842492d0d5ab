import { z } from 'zod';
import { property } from '../values/property';
import { type EffectKind, onlySchema } from './kind';
import { copyOf } from './mixed';
import { growthOfBlur, softened } from './soften';

export const frostSchema = z.strictObject({
  effect: z.literal('frost'),
  only: onlySchema,
  /** Standard deviation of how far what lies behind is out of focus, in frame units. */
  radius: property(z.number().min(0).max(500)),
  /** How strongly the content's own colours lie on the glass. */
  tint: property(z.number().min(0).max(1)).default(0.3),
});

export interface Frost {
  readonly effect: 'frost';
  readonly radius: number;
  readonly tint: number;
}

/** Ground glass in the shape of the content: what lies behind it is out of focus, and tinted with its colours. */
export const frost: EffectKind<z.infer<typeof frostSchema>, Frost> = {
  schema: frostSchema,
  readsBackdrop: true,
  isOfFrame: true,
  resolve: (effect, { value }) => ({
    effect: 'frost',
    radius: value(effect.radius),
    tint: value(effect.tint),
  }),
  scaled: (values, by) => ({ ...values, radius: values.radius * by }),
  // A content whose own colours hide the glass is painted as it is.
  isNothing: ({ tint }) => tint >= 1,
  // So far around the content the backdrop is looked at.
  growth: ({ radius }) => growthOfBlur(radius),
  apply: ({ radius, tint }, surface, tools) => {
    const glass = copyOf(surface, tools);
    const behind = softened(tools.backdrop(), radius * tools.scale, tools);
    glass.context.globalCompositeOperation = 'source-in';
    glass.context.drawImage(behind.canvas, 0, 0);
    // Laid on where there is glass: its edge stays as soft as it was.
    glass.context.globalCompositeOperation = 'source-atop';
    glass.context.globalAlpha = tint;
    glass.context.drawImage(surface.canvas, 0, 0);
    tools.giveBack(behind);
    tools.giveBack(surface);
    return glass;
  },
};
