import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { BlackFrame, PlaneMaker, planesSize } from './videoFrames';

let maker: PlaneMaker;
beforeAll(async () => {
  maker = await PlaneMaker.load(readFileSync(require.resolve('@fresh-reel/pixels/kernel.wasm')));
});

/** ITU-R BT.709-6, 3.2 to 3.4: luma and chroma of R'G'B' 0..1, in 8 bits of limited range. */
function bt709(r: number, g: number, b: number): [number, number, number] {
  const y = 0.2126 * r + 0.7152 * g + 0.0722 * b;
  return [16 + 219 * y, 128 + (224 * (b - y)) / 1.8556, 128 + (224 * (r - y)) / 1.5748];
}

const filled = (width: number, height: number, at: (x: number, y: number) => readonly number[]) =>
  Uint8Array.from({ length: width * height }, (_, i) => i).reduce(
    (pixels, _, i) => {
      pixels.set(at(i % width, Math.floor(i / width)), i * 4);
      return pixels;
    },
    new Uint8Array(width * height * 4),
  );

describe('planes of BT.709 in limited range', () => {
  it.each([
    ['black', [0, 0, 0], [16, 128, 128]],
    ['white', [255, 255, 255], [235, 128, 128]],
    // EBU and SMPTE bars at 100%, 8-bit values of BT.709.
    ['red', [255, 0, 0], [63, 102, 240]],
    ['green', [0, 255, 0], [173, 42, 26]],
    ['blue', [0, 0, 255], [32, 240, 118]],
  ])('%s', (_, [r, g, b], expected) => {
    const planes = maker.planes(
      filled(16, 2, () => [r!, g!, b!, 255]),
      16,
      2,
      false,
    );
    expect([planes[0], planes[32], planes[40]]).toEqual(expected);
  });

  it('is what the formula gives, for any pixels and sizes: chroma is the mean of four', () => {
    const byte = fc.integer({ min: 0, max: 255 });
    const half = fc.integer({ min: 1, max: 23 });
    fc.assert(
      fc.property(half, half, fc.array(byte, { minLength: 64, maxLength: 64 }), (w, h, noise) => {
        const [width, height] = [w * 2, h * 2];
        const at = (x: number, y: number) =>
          [0, 1, 2].map((c) => noise[(x * 7 + y * 13 + c * 29) % 64]!).concat(255);
        const planes = maker.planes(filled(width, height, at), width, height, false);
        const luma = width * height;
        for (let y = 0; y < height; y++) {
          for (let x = 0; x < width; x++) {
            const [r, g, b] = at(x, y).map((v) => v / 255) as [number, number, number];
            if (Math.abs(planes[y * width + x]! - bt709(r, g, b)[0]) > 0.6) return false;
          }
        }
        for (let y = 0; y < h; y++) {
          for (let x = 0; x < w; x++) {
            const four = [
              [0, 0],
              [1, 0],
              [0, 1],
              [1, 1],
            ].map(([i, j]) => at(2 * x + i!, 2 * y + j!));
            const mean = [0, 1, 2].map((c) => four.reduce((s, p) => s + p[c]! / 255, 0) / 4);
            const [, cb, cr] = bt709(...(mean as [number, number, number]));
            if (Math.abs(planes[luma + y * w + x]! - cb) > 0.6) return false;
            if (Math.abs(planes[luma + w * h + y * w + x]! - cr) > 0.6) return false;
          }
        }
        return true;
      }),
      { numRuns: 60 },
    );
  });

  it('is the same of pixels that begin with blue', () => {
    for (const [width, height] of [
      [32, 4],
      [22, 6],
    ] as const) {
      const rgba = filled(width, height, (x, y) => [
        (x * 31) % 256,
        (y * 57 + x) % 256,
        (x * y * 7) % 256,
        255,
      ]);
      const expected = [...maker.planes(rgba, width, height, false)];
      const room = maker.pixels(width, height);
      for (let i = 0; i < rgba.length; i += 4) room.set([rgba[i + 2]!, rgba[i + 1]!, rgba[i]!, 255], i);
      expect([...maker.planesOfPixels(width, height, { bgra: true })]).toEqual(expected);
    }
  });

  it('keeps straight alpha as it is, in a plane of its own', () => {
    const at = (x: number, y: number) => [200, 100, 50, (x * 16 + y) % 256];
    const planes = maker.planes(filled(32, 8, at), 32, 8, true);
    expect(planes).toHaveLength(planesSize(32, 8, true));
    const alpha = planes.subarray(32 * 8 * 1.5);
    expect(alpha[5 + 32 * 3]).toBe(83);
    // 50% blue keeps its colour, and is not darkened by its alpha.
    const blue = maker.planes(
      filled(16, 16, () => [16, 64, 223, 128]),
      16,
      16,
      true,
    );
    const [y, cb, cr] = bt709(16 / 255, 64 / 255, 223 / 255);
    expect(Math.abs(blue[0]! - y)).toBeLessThan(1);
    expect(Math.abs(blue[256]! - cb)).toBeLessThan(1);
    expect(Math.abs(blue[320]! - cr)).toBeLessThan(1);
  });

  it('gives what is transparent the colour of what is near it', () => {
    // Cream in one corner, nothing elsewhere.
    const at = (x: number, y: number) => (x < 5 && y < 5 ? [246, 232, 200, 255] : [0, 0, 0, 0]);
    const planes = maker.planes(filled(64, 48, at), 64, 48, true);
    const [y] = bt709(246 / 255, 232 / 255, 200 / 255);
    for (const i of [0, 8, 63, 47 * 64, 47 * 64 + 63]) expect(Math.abs(planes[i]! - y)).toBeLessThan(1.5);
    expect(planes[64 * 48 * 1.5 + 8]).toBe(0);
    const none = maker.planes(new Uint8Array(16 * 16 * 4), 16, 16, true);
    expect(none[0]).toBe(16);
  });

  it('says what it cannot take', () => {
    expect(() => maker.planes(new Uint8Array(15 * 2 * 4), 15, 2, false)).toThrow('even sides, not 15x2');
    expect(() => maker.planes(new Uint8Array(8), 16, 2, false)).toThrow('128 bytes of pixels, not 8');
  });
});

describe('a frame that is black but for a part', () => {
  it('has the planes of the whole, wherever the part is and was before', () => {
    const size = { width: 24, height: 16 };
    const half = (most: number) => fc.integer({ min: 0, max: most / 2 - 1 }).map((n) => n * 2);
    const area = fc
      .record({ x: half(24), y: half(16), right: half(24), bottom: half(16) })
      .map(({ x, y, right, bottom }) => {
        const [width, height] = [Math.max(2, right - x + 2), Math.max(2, bottom - y + 2)];
        return { x, y, width, height };
      });
    fc.assert(
      fc.property(fc.array(area, { minLength: 1, maxLength: 5 }), (areas) => {
        const frame = new BlackFrame(size);
        areas.forEach((box, turn) => {
          const colour = (x: number, y: number) => [(x * 31 + turn) % 256, (y * 57) % 256, 90, 255];
          const part = maker
            .planes(
              filled(box.width, box.height, (x, y) => colour(x + box.x, y + box.y)),
              box.width,
              box.height,
              false,
            )
            .slice();
          const found = frame.with(part, box).slice();
          const whole = filled(size.width, size.height, (x, y) => {
            const inside = x >= box.x && y >= box.y && x < box.x + box.width && y < box.y + box.height;
            return inside ? colour(x, y) : [0, 0, 0, 255];
          });
          expect([...found]).toEqual([...maker.planes(whole, size.width, size.height, false)]);
        });
      }),
    );
  });
});
