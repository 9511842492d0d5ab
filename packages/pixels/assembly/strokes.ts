/**
 * Strokes with round ends, thousands of them, laid over each other in floats: what a canvas takes seven microseconds
 * for each costs as much as the pixels it covers.
 */

/** Numbers a stroke takes: x, y and half the width at either end; red, green, blue and alpha, premultiplied, 0..255. */
const NUMBERS: usize = 10;
/** Pixels at the end of each row of sums that are never shown: four are always touched at once. */
const SPARE: i32 = 3;

/**
 * Lays strokes over each other in rows of pixels, and gives those as straight bytes.
 * @param rows ten floats a stroke, in pixels from the left edge and from the top of the whole picture
 * @param top the first row of pixels, and `height` how many
 * @param sum room for four floats a pixel, of rows that are three pixels longer
 * @param to room for four bytes a pixel
 */
export function layStrokes(
  rows: usize,
  count: i32,
  width: i32,
  top: i32,
  height: i32,
  sum: usize,
  to: usize,
): void {
  memory.fill(sum, 0, (<usize>((width + SPARE) * height)) << 4);
  for (let i = 0; i < count; i++) layStroke(rows + <usize>i * (NUMBERS << 2), width, top, height, sum);
  for (let y = 0; y < height; y++) {
    straighten(sum + ((<usize>(y * (width + SPARE))) << 4), width, to + ((<usize>(y * width)) << 2));
  }
}

/** A row of sums as straight bytes. */
function straighten(sum: usize, width: i32, to: usize): void {
  const end = sum + ((<usize>width) << 4);
  for (; sum < end; sum += 16, to += 4) {
    const alpha = load<f32>(sum, 12);
    if (alpha <= 0) {
      store<u32>(to, 0);
      continue;
    }
    const straight = f32x4.mul(v128.load(sum), f32x4.splat(<f32>255 / alpha));
    const whole = i32x4.trunc_sat_f32x4_s(
      f32x4.add(f32x4.replace_lane(straight, 3, alpha), f32x4.splat(0.5)),
    );
    const halves = i16x8.narrow_i32x4_s(whole, whole);
    v128.store_lane<u32>(to, i8x16.narrow_i16x8_u(halves, halves), 0);
  }
}

function layStroke(row: usize, width: i32, top: i32, height: i32, sum: usize): void {
  const x0 = load<f32>(row);
  const y0 = load<f32>(row, 4) - <f32>top;
  const r0 = load<f32>(row, 8);
  const dx = load<f32>(row, 12) - x0;
  const dy = load<f32>(row, 16) - <f32>top - y0;
  const grows = load<f32>(row, 20) - r0;
  const reach = max(r0, r0 + grows) + <f32>0.5;
  const first = max(0, <i32>Mathf.ceil(min(y0, y0 + dy) - reach - <f32>0.5));
  const last = min(height - 1, <i32>Mathf.floor(max(y0, y0 + dy) + reach - <f32>0.5));
  const left = max(0, <i32>Mathf.ceil(min(x0, x0 + dx) - reach - <f32>0.5));
  const right = min(width - 1, <i32>Mathf.floor(max(x0, x0 + dx) + reach - <f32>0.5));
  if (last < first || right < left) return;
  const square = dx * dx + dy * dy;
  const over: f32 = square > <f32>1e-9 ? <f32>1 / square : 0;
  const level = abs(dy) < <f32>1e-4;
  const slope: f32 = level ? 0 : dx / dy;
  // How far to either side of its axis a row of pixels can be touched.
  const aside: f32 = level ? <f32>1e6 : reach * sqrt<f32>(<f32>1 + slope * slope);
  const ink = v128.load(row, 24);
  const alpha = f32x4.splat(f32x4.extract_lane(ink, 3) / <f32>255);
  const zero = f32x4.splat(0);
  const one = f32x4.splat(1);
  const steps = f32x4(0.5, 1.5, 2.5, 3.5);
  const along = f32x4.splat(dx * over);
  for (let y = first; y <= last; y++) {
    const py = <f32>y + <f32>0.5 - y0;
    const axis = x0 + py * slope - <f32>0.5;
    const from = max(left, <i32>Mathf.ceil(axis - aside));
    const to = min(right, <i32>Mathf.floor(axis + aside));
    const down = f32x4.splat(py * dy * over);
    let at = sum + ((<usize>(y * (width + SPARE) + from)) << 4);
    // Four pixels at once as far as their cover goes, and then each by itself.
    for (let x = from; x <= to; x += 4, at += 64) {
      const px = f32x4.add(f32x4.splat(<f32>x - x0), steps);
      const t = f32x4.pmin(f32x4.pmax(f32x4.add(f32x4.mul(px, along), down), zero), one);
      const ex = f32x4.sub(px, f32x4.mul(t, f32x4.splat(dx)));
      const ey = f32x4.sub(f32x4.splat(py), f32x4.mul(t, f32x4.splat(dy)));
      const far = f32x4.sqrt(f32x4.add(f32x4.mul(ex, ex), f32x4.mul(ey, ey)));
      const edge = f32x4.add(f32x4.splat(r0 + <f32>0.5), f32x4.mul(t, f32x4.splat(grows)));
      // What lies beyond the stroke has no part of it, and stays as it is.
      const part = f32x4.pmax(f32x4.pmin(f32x4.sub(edge, far), one), zero);
      const kept = f32x4.sub(one, f32x4.mul(part, alpha));
      const first = v128.shuffle<f32>(part, part, 0, 0, 0, 0);
      const second = v128.shuffle<f32>(part, part, 1, 1, 1, 1);
      const third = v128.shuffle<f32>(part, part, 2, 2, 2, 2);
      const fourth = v128.shuffle<f32>(part, part, 3, 3, 3, 3);
      const a = f32x4.mul(v128.load(at), v128.shuffle<f32>(kept, kept, 0, 0, 0, 0));
      const b = f32x4.mul(v128.load(at, 16), v128.shuffle<f32>(kept, kept, 1, 1, 1, 1));
      const c = f32x4.mul(v128.load(at, 32), v128.shuffle<f32>(kept, kept, 2, 2, 2, 2));
      const d = f32x4.mul(v128.load(at, 48), v128.shuffle<f32>(kept, kept, 3, 3, 3, 3));
      v128.store(at, f32x4.add(a, f32x4.mul(ink, first)));
      v128.store(at, f32x4.add(b, f32x4.mul(ink, second)), 16);
      v128.store(at, f32x4.add(c, f32x4.mul(ink, third)), 32);
      v128.store(at, f32x4.add(d, f32x4.mul(ink, fourth)), 48);
    }
  }
}
