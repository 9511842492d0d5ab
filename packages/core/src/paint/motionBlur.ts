import type { PaintHost, Place, Surface } from '../canvas/surface';
import type { Size } from '../geometry/rect';
import { EMPTY, isEmpty, type Rect, union } from '../geometry/rect';
import { opsBounds, pixelBox } from './bounds';
import { needsBackdrop } from './compose';
import { type Op, sameOps } from './ops';

/** Where a list may be cut: no group and no clip is open. */
function cuts(ops: readonly Op[]): boolean[] {
  let depth = 0;
  const free = [true];
  for (const op of ops) {
    if (op.op === 'open' || op.op === 'clip') depth++;
    else if (op.op === 'close' || op.op === 'unclip') depth--;
    free.push(depth === 0);
  }
  return free;
}

interface Split {
  readonly before: readonly Op[];
  readonly moving: readonly (readonly Op[])[];
  readonly after: readonly Op[];
}

/** Parts that all samples share at the beginning and at the end, and what differs between them. */
export function splitSamples(samples: readonly (readonly Op[])[]): Split {
  const [first] = samples;
  if (!first) return { before: [], moving: [], after: [] };
  const shortest = Math.min(...samples.map((s) => s.length));
  const same = (ops: readonly Op[], at: number, other: number) => sameOps([first[at]!], [ops[other]!]);
  let head = 0;
  while (head < shortest && samples.every((s) => same(s, head, head))) head++;
  const free = cuts(first);
  while (!free[head]) head--;
  let tail = 0;
  while (
    tail < shortest - head &&
    samples.every((s) => same(s, first.length - 1 - tail, s.length - 1 - tail))
  ) {
    tail++;
  }
  while (!free[first.length - tail]) tail--;
  const moving = samples.map((s) => s.slice(head, s.length - tail));
  // What only lies over what is below it can be added up apart from that.
  if (moving.some(needsBackdrop)) return { before: [], moving: samples, after: [] };
  return { before: first.slice(0, head), moving, after: first.slice(first.length - tail) };
}

/** What paints one moment: a `Painter`. */
interface MomentPainter {
  paint(ops: readonly Op[], target: Surface, frame: Size, place: Place): void;
  paintOver(ops: readonly Op[], target: Surface, place: Place): void;
}

/**
 * Paints the mean of several moments: motion blur by sub-frame samples. What stands still is painted once, and what
 * moves is added up on a surface of its own size, in 16-bit floats where the host has them.
 * Laying over is linear in premultiplied colour, so the mean of the layers over a ground is the mean of the pictures.
 */
export function paintSamples(
  painter: MomentPainter,
  host: PaintHost,
  samples: readonly (readonly Op[])[],
  target: Surface,
  frame: Size,
  place: Place,
): void {
  const { before, moving, after } = splitSamples(samples);
  painter.paint(before, target, frame, place);
  const { scale, x, y } = place;
  const whole: Rect = { x, y, width: target.canvas.width, height: target.canvas.height };
  const boxes = moving.map((ops) => opsBounds(ops));
  const bounds = boxes.reduce(union, EMPTY);
  const box = pixelBox(bounds, scale, whole);
  if (!isEmpty(box)) {
    const scratch = host.createSurface(box.width, box.height);
    const sum = host.createPreciseSurface?.(box.width, box.height);
    const add = sum ? addOn(sum, moving.length) : addUp(box.width, box.height);
    for (const ops of moving) {
      scratch.context.setTransform(1, 0, 0, 1, 0, 0);
      scratch.context.clearRect(0, 0, box.width, box.height);
      painter.paintOver(ops, scratch, { scale, x: box.x, y: box.y });
      add.take(scratch);
    }
    target.context.setTransform(1, 0, 0, 1, 0, 0);
    target.context.drawImage(add.mean(scratch, moving.length).canvas, box.x - x, box.y - y);
  }
  painter.paintOver(after, target, place);
}

interface Sum {
  take(sample: Surface): void;
  /** The mean, on the surface given or on one of its own. */
  mean(spare: Surface, count: number): Surface;
}

/** Adds on a canvas that keeps fractions. */
function addOn(sum: Surface, count: number): Sum {
  const { context } = sum;
  context.globalCompositeOperation = 'lighter';
  context.globalAlpha = 1 / count;
  return { take: (sample) => context.drawImage(sample.canvas, 0, 0), mean: () => sum };
}

/** Adds pixel by pixel, premultiplied: exact on any host. */
function addUp(width: number, height: number): Sum {
  const sums = new Float32Array(width * height * 4);
  return {
    take: ({ context }) => {
      const { data } = context.getImageData(0, 0, width, height);
      for (let i = 0; i < data.length; i += 4) {
        const alpha = data[i + 3]!;
        if (alpha === 0) continue;
        sums[i] = sums[i]! + data[i]! * alpha;
        sums[i + 1] = sums[i + 1]! + data[i + 1]! * alpha;
        sums[i + 2] = sums[i + 2]! + data[i + 2]! * alpha;
        sums[i + 3] = sums[i + 3]! + alpha;
      }
    },
    mean: (spare, count) => {
      const pixels = spare.context.createImageData(width, height);
      for (let i = 0; i < sums.length; i += 4) {
        const alpha = sums[i + 3]!;
        if (alpha === 0) continue;
        pixels.data[i] = Math.round(sums[i]! / alpha);
        pixels.data[i + 1] = Math.round(sums[i + 1]! / alpha);
        pixels.data[i + 2] = Math.round(sums[i + 2]! / alpha);
        pixels.data[i + 3] = Math.round(alpha / count);
      }
      spare.context.putImageData(pixels, 0, 0);
      return spare;
    },
  };
}
