import type { PaintHost, Picture, Surface } from '../canvas/surface';

interface Sized {
  readonly width: number;
  readonly height: number;
}

/**
 * Halved copies of a picture. Drawing a large picture small with the canvas's best filter costs five times as much
 * as its plain one and has to be paid in every frame; drawing the copy that is nearest in size with the plain filter
 * looks the same and costs little.
 */
export class Mipmaps {
  /** By picture, not by image: a clip draws its next frame where one was that is over. */
  private readonly kept = new WeakMap<Picture, Surface[]>();

  constructor(private readonly host: Pick<PaintHost, 'createSurface'>) {}

  /**
   * The copy to draw where the picture shows at `scale` pixels per picture pixel: the smallest that is not enlarged.
   * @returns the image, and its pixels per pixel of the original
   */
  levelFor(picture: Picture, scale: number): { image: unknown; ratio: number } {
    const { image } = picture;
    const { width, height } = image as Sized;
    let level = 0;
    while (level < 6 && scale * 2 ** (level + 1) <= 1 && Math.min(width, height) >= 2 ** (level + 2)) level++;
    if (level === 0) return { image, ratio: 1 };
    let copies = this.kept.get(picture);
    if (!copies) {
      copies = [];
      this.kept.set(picture, copies);
    }
    while (copies.length < level) {
      const from: Sized = copies.at(-1)?.canvas ?? (image as Sized);
      const half = this.host.createSurface(
        Math.max(1, Math.round(from.width / 2)),
        Math.max(1, Math.round(from.height / 2)),
      );
      // At half the size the plain filter takes the mean of four pixels, as it should be.
      half.context.imageSmoothingQuality = 'low';
      half.context.drawImage(from, 0, 0, half.canvas.width, half.canvas.height);
      copies.push(half);
    }
    const { canvas } = copies[level - 1]!;
    return { image: canvas, ratio: canvas.width / width };
  }
}
