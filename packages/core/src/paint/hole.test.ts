import fc from 'fast-check';
import { intersection, isEmpty, type Rect } from '../geometry/rect';
import { around, largestRect } from './hole';

const area = (r: Rect | undefined) => (r ? r.width * r.height : 0);

describe('the largest rectangle of pixels', () => {
  it('is as large as any there is, and holds none that is otherwise', () => {
    const grid = fc.tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 7 })).chain(([w, h]) =>
      fc.record({
        width: fc.constant(w),
        cells: fc.array(fc.boolean(), { minLength: w * h, maxLength: w * h }),
      }),
    );
    fc.assert(
      fc.property(grid, ({ width, cells }) => {
        const height = cells.length / width;
        const full = ({ x, y, width: w, height: h }: Rect) => {
          for (let j = y; j < y + h; j++)
            for (let i = x; i < x + w; i++) if (!cells[j * width + i]) return false;
          return true;
        };
        let most = 0;
        for (let y = 0; y < height; y++)
          for (let x = 0; x < width; x++)
            for (let h = 1; y + h <= height; h++)
              for (let w = 1; x + w <= width; w++)
                if (full({ x, y, width: w, height: h })) most = Math.max(most, w * h);
        const found = largestRect(width, height, (pixel) => cells[pixel]!);
        return area(found) === most && (!found || full(found));
      }),
    );
  });
});

describe('parts around a hole', () => {
  it('are all that is not in it, each pixel once', () => {
    const side = fc.integer({ min: -4, max: 9 });
    const rect = fc.record({ x: side, y: side, width: fc.nat(9), height: fc.nat(9) });
    fc.assert(
      fc.property(rect, rect, (whole, hole) => {
        fc.pre(!isEmpty(whole));
        const parts = around(whole, hole);
        const missing = area(whole) - area(intersection(whole, hole));
        const apart = parts.every((p, i) => parts.slice(i + 1).every((q) => isEmpty(intersection(p, q))));
        const within = parts.every(
          (p) => area(intersection(p, whole)) === area(p) && isEmpty(intersection(p, hole)),
        );
        return parts.reduce((sum, p) => sum + area(p), 0) === missing && apart && within;
      }),
    );
  });
});
