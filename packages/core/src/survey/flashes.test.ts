import { FlashMeter } from './flashes';

const PIXELS = 100;
type Colour = readonly [number, number, number];

/** Seconds of a picture whose part flickers between two colours. */
function flicker(hertz: number, one: Colour, other: Colour, { part = 1, rate = 60, seconds = 2 } = {}) {
  const meter = new FlashMeter(PIXELS, rate);
  for (let f = 0; f < seconds * rate; f++) {
    const lit = Math.floor((f / rate) * hertz * 2) % 2 === 0;
    const frame = new Uint8ClampedArray(PIXELS * 4);
    for (let i = 0; i < PIXELS; i++) frame.set([...(i < PIXELS * part && lit ? one : other), 255], i * 4);
    meter.add(frame);
  }
  return meter.harmful();
}
const BLACK: Colour = [0, 0, 0];
const WHITE: Colour = [255, 255, 255];

describe('flashes, by ITU-R BT.1702 and WCAG 2.3.1', () => {
  it('three a second may be, more may not', () => {
    expect(flicker(3, WHITE, BLACK)).toEqual([]);
    expect(flicker(5, WHITE, BLACK).length).toBeGreaterThan(0);
    expect(flicker(25, WHITE, BLACK, { rate: 50 }).length).toBeGreaterThan(0);
  });

  it('a quarter of the picture or less may flash, and so may small changes, and changes of what is bright', () => {
    expect(flicker(10, WHITE, BLACK, { part: 0.2 })).toEqual([]);
    expect(flicker(10, WHITE, BLACK, { part: 0.4 }).length).toBeGreaterThan(0);
    // Relative luminances of 0.216 and 0.27: 0.05 apart. And of 0.83 and 1: both above 160 of 200 cd/m².
    expect(flicker(10, [128, 128, 128], [142, 142, 142])).toEqual([]);
    expect(flicker(10, WHITE, [235, 235, 235])).toEqual([]);
  });

  it('saturated red counts by itself, however dark', () => {
    // (R − G − B) of linear light: 0.21, and 0; luminance changes by 0.045 alone.
    expect(flicker(5, [128, 0, 0], BLACK).length).toBeGreaterThan(0);
    expect(flicker(5, [0, 0, 128], BLACK)).toEqual([]);
  });

  it('one flash, a fade and a cut are none of it', () => {
    const meter = new FlashMeter(PIXELS, 60);
    for (let f = 0; f < 180; f++) {
      const v = f < 60 ? f * 4 : f === 90 ? 255 : f < 120 ? 30 : 200;
      meter.add(new Uint8ClampedArray(PIXELS * 4).fill(v).map((x, i) => (i % 4 === 3 ? 255 : x)));
    }
    expect(meter.harmful()).toEqual([]);
  });
});
