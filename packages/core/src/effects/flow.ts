import { z } from 'zod';
import { colourSchema } from '../colour/colour';
import { property } from '../values/property';
import { type EffectKind, NO_GROWTH, type Over, onlySchema } from './kind';

export const flowShape = (over: Over) => ({
  /** How strongly its colours cover the content's own. */
  amount: over(z.number().min(0).max(1)).default(1),
  colours: z.array(over(colourSchema)).min(2).max(8),
  /** Height of a band, how far its edge swings up and down, and from one crest to the next: frame units. */
  band: over(z.number().min(4).max(2000)).default(60),
  swing: over(z.number().min(0).max(1000)).default(24),
  crest: over(z.number().min(20).max(8000)).default(520),
  /** Frames in which a band goes on to the next one's place. */
  every: over(z.number().min(4).max(100000)).default(120),
});

export const flowSchema = z.strictObject({
  effect: z.literal('flow'),
  only: onlySchema,
  ...flowShape(property),
});

export interface Flow {
  readonly effect: 'flow';
  readonly amount: number;
  readonly colours: readonly string[];
  readonly band: number;
  readonly swing: number;
  readonly crest: number;
  /** Bands that have gone by. */
  readonly gone: number;
}

/** Places of a band's edge from one crest to the next. */
const PLACES = 14;

/** Bands of colour that run in waves through what it is put on, as through one window: they belong to the frame. */
export const flow: EffectKind<z.infer<typeof flowSchema>, Flow> = {
  schema: flowSchema,
  isOfFrame: true,
  resolve: ({ amount, colours, band, swing, crest, every }, { value, time }) => ({
    effect: 'flow',
    amount: value(amount),
    colours: colours.map((c) => value(c)),
    band: Math.max(4, value(band)),
    swing: value(swing),
    crest: Math.max(20, value(crest)),
    gone: time / Math.max(4, value(every)),
  }),
  scaled: (values) => values,
  isNothing: ({ amount }) => amount < 0.004,
  growth: () => NO_GROWTH,
  apply: ({ amount, colours, band, swing, crest, gone }, surface, { scale, left, top }) => {
    const { canvas, context } = surface;
    const [width, height] = [canvas.width, canvas.height];
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.globalCompositeOperation = 'source-atop';
    context.globalAlpha = amount;
    const tall = band * scale;
    const reach = swing * scale;
    const step = (crest * scale) / PLACES;
    const first = Math.floor((top - reach) / tall - gone) - 1;
    const last = Math.ceil((top + height + reach) / tall - gone);
    // From above downwards, each band down to the bottom, so that the next covers what it leaves.
    for (let i = first; i <= last; i++) {
      context.fillStyle = colours[((i % colours.length) + colours.length) % colours.length];
      context.beginPath();
      context.moveTo(0, height);
      for (let k = Math.floor(left / step); k * step < left + width + step; k++) {
        const x = k * step;
        const wave = Math.sin((2 * Math.PI * x) / (crest * scale) + i * 0.55 + gone * 0.8);
        context.lineTo(x - left, (i + gone) * tall + wave * reach - top);
      }
      context.lineTo(width, height);
      context.closePath();
      if ((i + gone) * tall - reach - top < height) context.fill();
    }
    context.globalAlpha = 1;
    context.globalCompositeOperation = 'source-over';
    return surface;
  },
};
