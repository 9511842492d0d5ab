import type { LayStrokes } from './strokes';

/**
 * The part of a 2D canvas that painting uses. OffscreenCanvas, HTMLCanvasElement and the Node canvas all have it; the
 * core asks for nothing else of its host.
 */
export interface Context2D {
  globalAlpha: number;
  globalCompositeOperation: string;
  filter: string;
  imageSmoothingEnabled: boolean;
  imageSmoothingQuality: string;
  // biome-ignore lint/suspicious/noExplicitAny: hosts type patterns and gradients each in their own way
  fillStyle: any;
  // biome-ignore lint/suspicious/noExplicitAny: as above
  strokeStyle: any;
  lineWidth: number;
  lineJoin: string;
  lineCap: string;
  font: string;
  textBaseline: string;
  save(): void;
  restore(): void;
  transform(a: number, b: number, c: number, d: number, e: number, f: number): void;
  setTransform(a: number, b: number, c: number, d: number, e: number, f: number): void;
  clearRect(x: number, y: number, width: number, height: number): void;
  fillRect(x: number, y: number, width: number, height: number): void;
  fill(path?: unknown): void;
  stroke(path: unknown): void;
  clip(path?: unknown): void;
  beginPath(): void;
  moveTo(x: number, y: number): void;
  lineTo(x: number, y: number): void;
  closePath(): void;
  rect(x: number, y: number, width: number, height: number): void;
  fillText(text: string, x: number, y: number): void;
  setLineDash(dash: number[]): void;
  drawImage(image: unknown, ...numbers: number[]): void;
  createLinearGradient(x0: number, y0: number, x1: number, y1: number): Gradient;
  createRadialGradient(x0: number, y0: number, r0: number, x1: number, y1: number, r1: number): Gradient;
  getImageData(
    x: number,
    y: number,
    width: number,
    height: number,
  ): { data: Uint8ClampedArray; width: number; height: number };
  createPattern(image: unknown, repetition: string): Pattern | null;
  putImageData(data: unknown, x: number, y: number): void;
  createImageData(width: number, height: number): { data: Uint8ClampedArray; width: number; height: number };
}

export interface Pattern {
  setTransform(map: { a: number; b: number; c: number; d: number; e: number; f: number }): void;
}

export interface Gradient {
  addColorStop(at: number, colour: string): void;
}

export interface Canvas {
  width: number;
  height: number;
}

/** A canvas with its context. */
export interface Surface {
  readonly canvas: Canvas;
  readonly context: Context2D;
}

/** Where a surface lies: pixels per frame unit, and the pixel of the frame's picture at its top left. */
export interface Place {
  readonly scale: number;
  readonly x: number;
  readonly y: number;
}

/** Where a surface lies that shows all of a frame, whose size is in frame units. */
export const wholly = ({ canvas }: Surface, frame: { readonly width: number }): Place => ({
  scale: canvas.width / frame.width,
  x: 0,
  y: 0,
});

/** Lays what is painted on a surface over black: for films that keep no transparency. */
export function layOnBlack({ canvas, context }: Surface): void {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'destination-over';
  context.fillStyle = '#000000';
  context.fillRect(0, 0, canvas.width, canvas.height);
  context.globalCompositeOperation = 'source-over';
}

/** What a painter needs from its host. */
export interface PaintHost {
  createSurface(width: number, height: number): Surface;
  /** A surface in 16-bit floats, clear; absent where the host has none. */
  createPreciseSurface?(width: number, height: number): Surface | undefined;
  /** Lays strokes by the thousand faster than the core does; absent where the host has no kernel for it. */
  readonly layStrokes?: LayStrokes | undefined;
  /** A path object the host's contexts can fill, empty. */
  createPath(): PathSink;
  /** A decoded picture by its id, or a clip's frame at a second of it; nothing while it is missing. */
  picture(id: string, at?: number): Picture | undefined;
}

export interface PathSink {
  moveTo(x: number, y: number): void;
  lineTo(x: number, y: number): void;
  bezierCurveTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void;
  closePath(): void;
}

/** A decoded picture and the size it counts as (a vector picture may be decoded larger). */
export interface Picture {
  readonly image: unknown;
  readonly width: number;
  readonly height: number;
}
