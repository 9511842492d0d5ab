import { LINEAR } from '../colour/light';
import type { Size } from '../geometry/rect';

/**
 * What may harm viewers with photosensitive epilepsy, by ITU-R BT.1702-3 (Annex 1) and WCAG 2.2, 2.3.1: more than three
 * flashes within any one second over more than a quarter of the picture. A flash is a pair of opposing changes of
 * relative luminance by a tenth or more (20 cd/m² of 200) where the darker state is below 0.8 (160 cd/m²), or of
 * saturated red.
 */
const CHANGE = 0.1;
const DARKER = 0.8;
const AREA = 0.25;
const MOST = 3;

/** WCAG 2.2, "general flash and red flash thresholds": (R − G − B) × 320 changes by more than 20 between red states. */
const RED_CHANGE = 20 / 320;
const SATURATED = 0.8;

/** Changes that go one way and then the other, each over more than a quarter of the picture. */
class Changes {
  /** Of each pixel: the farthest it has gone the way it goes, and which way that is. */
  private readonly turning: Float32Array;
  private readonly way: Int8Array;
  private last = 0;
  /** Frames at which a flash was complete. */
  readonly flashes: number[] = [];
  private begun = false;

  constructor(
    private readonly pixels: number,
    private readonly least: number,
    private readonly dark: number,
  ) {
    this.turning = new Float32Array(pixels);
    this.way = new Int8Array(pixels);
  }

  /** @param values of the next frame, one a pixel */
  add(values: Float32Array, frame: number): void {
    if (!this.begun) {
      this.turning.set(values);
      this.begun = true;
      return;
    }
    const counts = { up: 0, down: 0 };
    for (let i = 0; i < this.pixels; i++) {
      const v = values[i]!;
      const from = this.turning[i]!;
      const change = v - from;
      const enough = Math.abs(change) >= this.least && Math.min(v, from) < this.dark;
      const way = Math.sign(change);
      if (enough && way !== this.way[i]) {
        // Far enough the other way: a change is complete, and the next is told from the farthest it goes.
        this.way[i] = way;
        this.turning[i] = v;
        if (way > 0) counts.up++;
        else counts.down++;
      } else if (this.way[i]! > 0) this.turning[i] = Math.max(from, v);
      else if (this.way[i]! < 0) this.turning[i] = Math.min(from, v);
    }
    for (const [way, count] of [
      [1, counts.up],
      [-1, counts.down],
    ] as const) {
      if (count < this.pixels * AREA) continue;
      // Two opposing changes are a flash.
      if (this.last === -way) {
        this.flashes.push(frame);
        this.last = 0;
      } else this.last = way;
    }
  }
}

/**
 * Looks for flashes in frames that come one after the other.
 * @param pixels of each frame, any size: as few as show a quarter of the picture will do
 * @param rate frames a second
 */
export class FlashMeter {
  private readonly general: Changes;
  private readonly red: Changes;
  private readonly luminance: Float32Array;
  private readonly redness: Float32Array;
  private frame = 0;

  constructor(
    private readonly pixels: number,
    private readonly rate: number,
  ) {
    this.general = new Changes(pixels, CHANGE, DARKER);
    this.red = new Changes(pixels, RED_CHANGE, Number.POSITIVE_INFINITY);
    this.luminance = new Float32Array(pixels);
    this.redness = new Float32Array(pixels);
  }

  /** @param rgba straight sRGB pixels; what is transparent counts as laid on black */
  add(rgba: Uint8ClampedArray): void {
    for (let i = 0; i < this.pixels; i++) {
      const a = rgba[i * 4 + 3]! / 255;
      const [r, g, b] = [0, 1, 2].map((k) => LINEAR[Math.round(rgba[i * 4 + k]! * a)]!) as [
        number,
        number,
        number,
      ];
      this.luminance[i] = 0.2126 * r + 0.7152 * g + 0.0722 * b;
      const sum = r + g + b;
      this.redness[i] = sum > 0 && r / sum >= SATURATED ? Math.max(0, r - g - b) : 0;
    }
    this.general.add(this.luminance, this.frame);
    this.red.add(this.redness, this.frame);
    this.frame++;
  }

  /** Seconds from which on there are more flashes within one second than may be; those of one second are told once. */
  harmful(): number[] {
    const all = [this.general, this.red].flatMap(({ flashes }) =>
      flashes.flatMap((from, i) => {
        const inSecond = flashes.slice(i).filter((f) => f - from < this.rate).length;
        return inSecond > MOST ? [from / this.rate] : [];
      }),
    );
    let last = Number.NEGATIVE_INFINITY;
    return all
      .sort((a, b) => a - b)
      .filter((second) => {
        if (second - last < 1) return false;
        last = second;
        return true;
      });
  }
}

/** Pixels in which flashes are looked for: as few as show a quarter of the picture. */
const FLASH_PIXELS = 2000;

/** The size at which the frames of a reel are looked at for flashes. */
export function flashSize({ width, height }: Size): Size {
  const scale = Math.sqrt(FLASH_PIXELS / (width * height));
  return { width: Math.round(width * scale), height: Math.round(height * scale) };
}
