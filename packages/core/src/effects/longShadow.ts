import { z } from 'zod';
import { colourSchema } from '../colour/colour';
import { property } from '../values/property';
import { type EffectKind, type Over, onlySchema } from './kind';
import { copyOf } from './mixed';

export const longShadowShape = (over: Over) => ({
  /** Where it falls, in degrees: 0 to the right, 90 downwards. */
  angle: over(z.number().min(-3600).max(3600)).default(45),
  /** Frame units. */
  length: over(z.number().min(0).max(3000)),
  colour: over(colourSchema).default('#000000'),
  opacity: over(z.number().min(0).max(1)).default(0.3),
});

export const longShadowSchema = z.strictObject({
  effect: z.literal('long-shadow'),
  only: onlySchema,
  ...longShadowShape(property),
});

export interface LongShadow {
  readonly effect: 'long-shadow';
  readonly angle: number;
  readonly length: number;
  readonly colour: string;
  readonly opacity: number;
}

const towards = (degrees: number) =>
  [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)] as const;

/** A shadow with hard edges that goes on and on to one side. */
export const longShadow: EffectKind<z.infer<typeof longShadowSchema>, LongShadow> = {
  schema: longShadowSchema,
  resolve: ({ angle, length, colour, opacity }, { value }) => ({
    effect: 'long-shadow',
    angle: value(angle),
    length: value(length),
    colour: value(colour),
    opacity: value(opacity),
  }),
  scaled: (values, by) => ({ ...values, length: values.length * by }),
  isNothing: ({ length, opacity }) => length < 0.5 || opacity < 0.004,
  growth: ({ angle, length }) => {
    const [x, y] = towards(angle).map((v) => v * length) as [number, number];
    return { left: Math.max(0, -x), top: Math.max(0, -y), right: Math.max(0, x), bottom: Math.max(0, y) };
  },
  apply: ({ angle, length, colour, opacity }, surface, tools) => {
    const { width, height } = surface.canvas;
    const [dx, dy] = towards(angle);
    const whole = length * tools.scale;
    let drawn = copyOf(surface, tools);
    // Laid over itself a little farther on, then twice as far, and so on: a row without gaps in few steps.
    for (let reached = 0, step = 1; reached < whole; step *= 2) {
      const by = Math.min(step, whole - reached);
      const next = copyOf(drawn, tools);
      next.context.drawImage(drawn.canvas, dx * by, dy * by);
      tools.giveBack(drawn);
      drawn = next;
      reached += by;
    }
    drawn.context.globalCompositeOperation = 'source-in';
    drawn.context.fillStyle = colour;
    drawn.context.fillRect(0, 0, width, height);
    drawn.context.globalCompositeOperation = 'source-over';
    const result = tools.borrow(width, height);
    result.context.globalAlpha = opacity;
    result.context.drawImage(drawn.canvas, 0, 0);
    result.context.globalAlpha = 1;
    result.context.drawImage(surface.canvas, 0, 0);
    tools.giveBack(drawn);
    tools.giveBack(surface);
    return result;
  },
};
