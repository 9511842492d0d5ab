import { z } from 'zod';
import { colourSchema } from '../colour/colour';
import { property } from '../values/property';
import { type EffectKind, type Over, onlySchema } from './kind';

export const halftoneShape = (over: Over) => ({
  /** How strongly the dots take the picture's place. */
  amount: over(z.number().min(0).max(1)).default(1),
  /** Frame units from one dot to the next. */
  cell: over(z.number().min(6).max(200)).default(14),
  /** Degrees that the rows of dots are turned: 45 shows least. */
  angle: over(z.number().min(-180).max(180)).default(45),
  /** The ink of the dots; each dot's own colour, when absent. */
  ink: over(colourSchema).optional(),
});

export const halftoneSchema = z.strictObject({
  effect: z.literal('halftone'),
  only: onlySchema,
  ...halftoneShape(property),
});

export interface Halftone {
  readonly effect: 'halftone';
  readonly amount: number;
  readonly cell: number;
  readonly angle: number;
  readonly ink?: string;
}

/** Dots at most. */
const MOST = 40_000;

/**
 * A print in dots: the darker, the larger. It belongs to the frame. Of an ink of its own a dot covers as much of its
 * cell as the picture lacks of white; without, it is as large as the picture is dense there, in its colour.
 */
export const halftone: EffectKind<z.infer<typeof halftoneSchema>, Halftone> = {
  dear: true,
  schema: halftoneSchema,
  isOfFrame: true,
  resolve: ({ amount, cell, angle, ink }, { value }) => ({
    effect: 'halftone',
    amount: value(amount),
    cell: Math.max(6, value(cell)),
    angle: value(angle),
    ...(ink === undefined ? {} : { ink: value(ink) }),
  }),
  scaled: (values) => values,
  isNothing: ({ amount }) => amount < 0.004,
  growth: ({ cell }) => ({ left: cell, top: cell, right: cell, bottom: cell }),
  apply: ({ amount, cell, angle, ink }, surface, { scale, left, top, borrow, giveBack, layStrokes }) => {
    const { width, height } = surface.canvas;
    const tall = Math.max(cell * scale, Math.sqrt((width * height) / MOST));
    const small = borrow(Math.max(1, Math.ceil(width / tall)), Math.max(1, Math.ceil(height / tall)));
    const { width: w, height: h } = small.canvas;
    small.context.drawImage(surface.canvas, 0, 0, width, height, 0, 0, width / tall, height / tall);
    const { data } = small.context.getImageData(0, 0, w, h);
    giveBack(small);
    const [c, s] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
    const [r, g, b] = ink ? [1, 3, 5].map((i) => Number.parseInt(ink.slice(i, i + 2), 16)) : [0, 0, 0];
    const rows: number[] = [];
    // Rows of dots stand at the same places of the frame, however much of it is painted.
    const corners = [
      [left, top],
      [left + width, top],
      [left, top + height],
      [left + width, top + height],
    ].map(([x, y]) => [(x! * c + y! * s) / tall, (-x! * s + y! * c) / tall] as const);
    const range = (axis: 0 | 1) => {
      const all = corners.map((p) => p[axis]);
      return [Math.floor(Math.min(...all)) - 1, Math.ceil(Math.max(...all)) + 1] as const;
    };
    const [[i0, i1], [j0, j1]] = [range(0), range(1)];
    for (let j = j0; j <= j1; j++) {
      for (let i = i0; i <= i1; i++) {
        const [x, y] = [(i * c - j * s) * tall - left, (i * s + j * c) * tall - top];
        const [px, py] = [Math.floor(x / tall), Math.floor(y / tall)];
        if (px < 0 || py < 0 || px >= w || py >= h) continue;
        const at = (py * w + px) * 4;
        const [red, green, blue, alpha] = [data[at]!, data[at + 1]!, data[at + 2]!, data[at + 3]! / 255];
        const light = (0.2126 * red + 0.7152 * green + 0.0722 * blue) / 255;
        const cover = ink ? alpha * (1 - light) : alpha;
        if (cover < 0.01) continue;
        // A dot of this radius covers that part of its cell; beyond π/4 dots grow into each other.
        const radius = tall * Math.sqrt(cover / Math.PI) * (cover > 0.7 ? 1 + (cover - 0.7) * 0.6 : 1);
        const own = ink ? [r!, g!, b!] : [red, green, blue];
        rows.push(x, y, radius, x, y, radius, ...own, 255);
      }
    }
    const dots = borrow(width, height);
    const image = dots.context.createImageData(width, height);
    image.data.set(layStrokes(Float32Array.from(rows), width, height));
    dots.context.putImageData(image, 0, 0);
    if (amount >= 1) {
      giveBack(surface);
      return dots;
    }
    const { context } = surface;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.globalCompositeOperation = 'destination-out';
    context.globalAlpha = amount;
    context.fillStyle = '#000000';
    context.fillRect(0, 0, width, height);
    context.globalCompositeOperation = 'source-over';
    context.drawImage(dots.canvas, 0, 0);
    context.globalAlpha = 1;
    giveBack(dots);
    return surface;
  },
};
