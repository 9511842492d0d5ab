/**
 * RGBA pixels into the planes that video encoders take: 8-bit Y'CbCr 4:2:0 by ITU-R BT.709, limited range
 * (Y' 16..235, C 16..240), chroma as the mean of each four pixels; with straight alpha as a plane of its own.
 *
 * Coefficients are those of BT.709-6, 3.2 to 3.4, in 2.14 fixed point: 219/255 of luma, 224/255 of chroma.
 */

export { layStrokes } from './strokes';

const KR: i32 = 2991; // 0.2126 · 219/255 · 2^14
const KG: i32 = 10064; // 0.7152
const KB: i32 = 1016; // 0.0722
const BR: i32 = -1649; // −0.2126/1.8556 · 224/255 · 2^14
const BG: i32 = -5547; // −0.7152/1.8556
const BB: i32 = 7196; // 0.5
const RR: i32 = 7196; // 0.5
const RG: i32 = -6536; // −0.7152/1.5748
const RB: i32 = -660; // −0.0722/1.5748

/** Side of the squares in which what is transparent takes the colour of what is not. */
const BLOCK: i32 = 16;

/** Where free memory begins. */
export function freeFrom(): usize {
  return __heap_base;
}

function lumaOf(r: i32, g: i32, b: i32, first: i32, third: i32): u8 {
  return <u8>(16 + ((first * r + KG * g + third * b + 8192) >> 14));
}

/** Luma of four pixels, as whole numbers. */
function lumaOfFour(pixels: v128, k: v128): v128 {
  const low = i32x4.dot_i16x8_s(i16x8.extend_low_i8x16_u(pixels), k);
  const high = i32x4.dot_i16x8_s(i16x8.extend_high_i8x16_u(pixels), k);
  const sum = i32x4.add(v128.shuffle<i32>(low, high, 0, 2, 4, 6), v128.shuffle<i32>(low, high, 1, 3, 5, 7));
  return i32x4.add(i32x4.shr_s(i32x4.add(sum, i32x4.splat(8192)), 14), i32x4.splat(16));
}

/** A row of luma. */
function lumaRow(from: usize, width: i32, to: usize, first: i32, third: i32): void {
  const k = i16x8(<i16>first, <i16>KG, <i16>third, 0, <i16>first, <i16>KG, <i16>third, 0);
  let x = 0;
  for (; x + 16 <= width; x += 16) {
    const at = from + ((<usize>x) << 2);
    const first = i16x8.narrow_i32x4_s(lumaOfFour(v128.load(at), k), lumaOfFour(v128.load(at, 16), k));
    const second = i16x8.narrow_i32x4_s(lumaOfFour(v128.load(at, 32), k), lumaOfFour(v128.load(at, 48), k));
    v128.store(to + x, i8x16.narrow_i16x8_u(first, second));
  }
  for (; x < width; x++) {
    const at = from + ((<usize>x) << 2);
    store<u8>(to + x, lumaOf(load<u8>(at), load<u8>(at, 1), load<u8>(at, 2), first, third));
  }
}

/** Sums of two by two pixels, of four side by side: r g b a of the first two, r g b a of the others. */
function sums(upper: usize, lower: usize): v128 {
  const u = v128.load(upper);
  const l = v128.load(lower);
  const left = i16x8.add(i16x8.extend_low_i8x16_u(u), i16x8.extend_low_i8x16_u(l));
  const right = i16x8.add(i16x8.extend_high_i8x16_u(u), i16x8.extend_high_i8x16_u(l));
  return i16x8.add(v128.shuffle<i64>(left, right, 0, 2), v128.shuffle<i64>(left, right, 1, 3));
}

/** Four samples of chroma, as whole numbers, from the sums of eight by two pixels. */
function chromaOfFour(first: v128, second: v128, k: v128): v128 {
  const a = i32x4.dot_i16x8_s(first, k);
  const b = i32x4.dot_i16x8_s(second, k);
  const sum = i32x4.add(v128.shuffle<i32>(a, b, 0, 2, 4, 6), v128.shuffle<i32>(a, b, 1, 3, 5, 7));
  return i32x4.add(i32x4.shr_s(i32x4.add(sum, i32x4.splat(32768)), 16), i32x4.splat(128));
}

/** Sum of one channel of two by two pixels. */
function fourOf(upper: usize, lower: usize): i32 {
  return <i32>load<u8>(upper) + load<u8>(upper, 4) + load<u8>(lower) + load<u8>(lower, 4);
}

/** One sample of each chroma, of two by two pixels. */
function chromaOfOne(upper: usize, lower: usize, cb: usize, cr: usize, bgra: bool): void {
  const red: usize = bgra ? 2 : 0;
  const blue: usize = 2 - red;
  const r = fourOf(upper + red, lower + red);
  const g = fourOf(upper + 1, lower + 1);
  const b = fourOf(upper + blue, lower + blue);
  store<u8>(cb, <u8>(128 + ((BR * r + BG * g + BB * b + 32768) >> 16)));
  store<u8>(cr, <u8>(128 + ((RR * r + RG * g + RB * b + 32768) >> 16)));
}

/** A row of chroma from two rows of pixels. */
function chromaRow(upper: usize, lower: usize, width: i32, cb: usize, cr: usize, bgra: bool): void {
  const kb = bgra
    ? i16x8(<i16>BB, <i16>BG, <i16>BR, 0, <i16>BB, <i16>BG, <i16>BR, 0)
    : i16x8(<i16>BR, <i16>BG, <i16>BB, 0, <i16>BR, <i16>BG, <i16>BB, 0);
  const kr = bgra
    ? i16x8(<i16>RB, <i16>RG, <i16>RR, 0, <i16>RB, <i16>RG, <i16>RR, 0)
    : i16x8(<i16>RR, <i16>RG, <i16>RB, 0, <i16>RR, <i16>RG, <i16>RB, 0);
  let x = 0;
  for (; x + 8 <= width; x += 8) {
    const at = (<usize>x) << 2;
    const first = sums(upper + at, lower + at);
    const second = sums(upper + at + 16, lower + at + 16);
    const both = i16x8.narrow_i32x4_s(chromaOfFour(first, second, kb), chromaOfFour(first, second, kr));
    const bytes = i8x16.narrow_i16x8_u(both, both);
    v128.store_lane<i32>(cb + (x >> 1), bytes, 0);
    v128.store_lane<i32>(cr + (x >> 1), bytes, 1);
  }
  for (; x < width; x += 2) {
    const at = (<usize>x) << 2;
    chromaOfOne(upper + at, lower + at, cb + (x >> 1), cr + (x >> 1), bgra);
  }
}

/**
 * Planes Y, Cb and Cr, one after the other at `to`, of opaque pixels at `from`. Width and height are even.
 * @param bgra whether blue comes first
 */
export function toI420(from: usize, width: i32, height: i32, to: usize, bgra: bool): void {
  const stride = (<usize>width) << 2;
  const luma = <usize>(width * height);
  const first = bgra ? KB : KR;
  const third = bgra ? KR : KB;
  for (let y = 0; y < height; y++) lumaRow(from + stride * y, width, to + <usize>(width * y), first, third);
  const cb = to + luma;
  const cr = to + luma + (luma >> 2);
  for (let y = 0; y < height; y += 2) {
    const row = <usize>((y >> 1) * (width >> 1));
    const upper = from + stride * y;
    chromaRow(upper, upper + stride, width, cb + row, cr + row, bgra);
  }
}

/** Takes alpha out of pixels: a plane of its own at `to`. */
export function takeAlpha(from: usize, count: i32, to: usize): void {
  for (let i = 0; i < count; i++) store<u8>(to + i, load<u8>(from + ((<usize>i) << 2), 3));
}

/**
 * Gives what is transparent the colour of what is not near it, since encoders and small pictures mix neighbours: in
 * squares, the mean of the square's own pixels; in squares with none, that of the nearest square beside, above or below.
 * @param means room for one u32 a square
 */
export function spreadColours(from: usize, width: i32, height: i32, means: usize): void {
  const across = (width + BLOCK - 1) / BLOCK;
  const down = (height + BLOCK - 1) / BLOCK;
  for (let j = 0; j < down; j++) {
    for (let i = 0; i < across; i++)
      store<u32>(means + ((<usize>(j * across + i)) << 2), meanOf(from, width, height, i, j));
  }
  // Nearest that is there, by one pass each way.
  for (let k = 0; k < across * down; k++) {
    const left = k % across > 0 ? k - 1 : -1;
    borrow(means, k, left, k - across);
  }
  for (let k = across * down - 1; k >= 0; k--) {
    const right = k % across < across - 1 ? k + 1 : -1;
    const below = k + across < across * down ? k + across : -1;
    borrow(means, k, right, below);
  }
  for (let j = 0; j < down; j++) {
    for (let i = 0; i < across; i++) {
      const mean = load<u32>(means + ((<usize>(j * across + i)) << 2));
      if (mean >> 24) fill(from, width, height, i, j, mean & 0xffffff);
    }
  }
}

/** A square without a colour of its own takes the first of two others' that has one. */
function borrow(means: usize, k: i32, first: i32, second: i32): void {
  const own = means + ((<usize>k) << 2);
  if (load<u32>(own)) return;
  let found: u32 = first >= 0 ? load<u32>(means + ((<usize>first) << 2)) : 0;
  if (!found && second >= 0) found = load<u32>(means + ((<usize>second) << 2));
  // A square that borrows is marked by 2, one with a colour of its own by 1.
  if (found) store<u32>(own, (found & 0xffffff) | 0x02000000);
}

/** Mean colour of a square, weighed by alpha, as 0x01bbggrr; 0 of one that is all transparent. */
function meanOf(from: usize, width: i32, height: i32, i: i32, j: i32): u32 {
  let r: u32 = 0;
  let g: u32 = 0;
  let b: u32 = 0;
  let all: u32 = 0;
  for (let y = j * BLOCK; y < min(height, (j + 1) * BLOCK); y++) {
    for (let x = i * BLOCK; x < min(width, (i + 1) * BLOCK); x++) {
      const pixel = load<u32>(from + ((<usize>(y * width + x)) << 2));
      const a = pixel >> 24;
      if (a === 0) continue;
      r += (pixel & 0xff) * a;
      g += ((pixel >> 8) & 0xff) * a;
      b += ((pixel >> 16) & 0xff) * a;
      all += a;
    }
  }
  if (all === 0) return 0;
  return 0x01000000 | ((b / all) << 16) | ((g / all) << 8) | (r / all);
}

function fill(from: usize, width: i32, height: i32, i: i32, j: i32, colour: u32): void {
  for (let y = j * BLOCK; y < min(height, (j + 1) * BLOCK); y++) {
    for (let x = i * BLOCK; x < min(width, (i + 1) * BLOCK); x++) {
      const at = from + ((<usize>(y * width + x)) << 2);
      if (load<u32>(at) >> 24 === 0) store<u32>(at, colour);
    }
  }
}
