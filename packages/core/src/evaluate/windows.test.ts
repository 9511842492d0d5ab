import fc from 'fast-check';
import { EMPTY_FILL } from '../documents/fill';
import { pictureSlot, templateOf } from '../testing/studio';
import { documentOnly } from './documentOnly';
import { GraphicScene } from './graphicScene';

let made = 0;
const shown = (id: string, size: unknown, more: object = {}) => ({
  ...{ id: `${id}-${++made}`, kind: 'picture', slot: id, size, at: [900, 500] },
  ...more,
});
const windowOf = (layers: readonly object[], id = 'p', frame = { width: 1920, height: 1080 }) =>
  new GraphicScene(
    templateOf([...layers], { slots: [pictureSlot('p'), pictureSlot('q')] }),
    EMPTY_FILL,
    frame,
    documentOnly(),
  ).pictureWindow(id);

describe('the window that a picture fills', () => {
  it('is the size of its layer, however that is turned, scaled or cropped', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 40, max: 900 }),
        fc.integer({ min: 40, max: 900 }),
        fc.integer({ min: -180, max: 180 }),
        fc.double({ min: 0.2, max: 2, noNaN: true }),
        (width, height, turn, scale) => {
          const layer = shown('p', [width, height], {
            turn: [0, 0, turn],
            scale: [scale, scale],
            outline: { kind: 'ellipse' },
          });
          expect(windowOf([layer])).toEqual({ width, height });
        },
      ),
      { numRuns: 40 },
    );
  });

  it('is the largest of several, each slot’s its own', () => {
    const layers = [shown('p', [100, 50]), shown('p', [600, 300]), shown('q', [300, 900])];
    expect(windowOf(layers)).toEqual({ width: 600, height: 300 });
    expect(windowOf(layers, 'q')).toEqual({ width: 300, height: 900 });
  });

  it('follows the frame', () => {
    const layer = shown('p', { parts: [{ frame: 'width' }, { frame: 'height' }] });
    expect(windowOf([layer])).toEqual({ width: 1920, height: 1080 });
    expect(windowOf([layer], 'p', { width: 1080, height: 1920 })).toEqual({ width: 1080, height: 1920 });
  });

  it('is none where the picture keeps its own shape, where none is seen, and of what is no slot', () => {
    expect(windowOf([shown('p', [400, 300], { fit: 'fit' })])).toBeUndefined();
    expect(windowOf([shown('q', [400, 300])])).toBeUndefined();
    expect(windowOf([shown('p', [400, 300])], 'nothing')).toBeUndefined();
    expect(windowOf([shown('p', [400, 0])])).toBeUndefined();
  });
});
