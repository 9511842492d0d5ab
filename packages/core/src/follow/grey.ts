/** A picture in shades of grey, row by row, 0 (black) to 255. */
export interface Grey {
  readonly width: number;
  readonly height: number;
  readonly data: Float32Array;
}

/** A picture of half the size, each pixel the mean of four; an odd last row or column is left out. */
export function halved({ width, height, data }: Grey): Grey {
  const [w, h] = [Math.max(1, width >> 1), Math.max(1, height >> 1)];
  const [right, below] = [width > 1 ? 1 : 0, height > 1 ? width : 0];
  const half = new Float32Array(w * h);
  for (let y = 0, to = 0; y < h; y++) {
    let from = 2 * y * width;
    for (let x = 0; x < w; x++, from += 2, to++)
      half[to] = (data[from]! + data[from + right]! + data[from + below]! + data[from + below + right]!) / 4;
  }
  return { width: w, height: h, data: half };
}

/** A picture and smaller ones of it, each half as large as the one before. */
export function pyramidOf(grey: Grey, levels: number): Grey[] {
  const all = [grey];
  while (all.length < levels) all.push(halved(all.at(-1)!));
  return all;
}

/**
 * Shade at a point, linear between pixels; beyond the picture, that of its edge.
 * @param x pixels from the left, where whole numbers are the middles of pixels
 */
export function shadeAt({ width, height, data }: Grey, x: number, y: number): number {
  const px = clamp(x, width - 1);
  const py = clamp(y, height - 1);
  const x0 = clamp(px | 0, width - 2);
  const y0 = clamp(py | 0, height - 2);
  const at = y0 * width + x0;
  const right = width > 1 ? 1 : 0;
  const below = height > 1 ? width : 0;
  const top = data[at]! + (data[at + right]! - data[at]!) * (px - x0);
  const bottom = data[at + below]! + (data[at + below + right]! - data[at + below]!) * (px - x0);
  return top + (bottom - top) * (py - y0);
}

/** A number between nothing and the most there is. */
export function clamp(value: number, most: number): number {
  if (value < 0 || most < 0) return 0;
  if (value > most) return most;
  return value;
}
