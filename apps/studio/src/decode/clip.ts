import type { MediaFacts } from '@fresh-reel/core';

/** A decoded frame of a clip. */
export interface ClipSample {
  /** Second of the file at which it begins to show. */
  readonly timestamp: number;
  draw(context: OffscreenCanvasRenderingContext2D, x: number, y: number, width: number, height: number): void;
  close(): void;
}

/** A clip that gives its frames in order, from anywhere on. */
export interface ClipSource {
  readonly facts: MediaFacts & { readonly duration: number };
  /** Frames from the one that shows at a second. */
  samples(from: number): AsyncGenerator<ClipSample, void, unknown>;
  dispose(): void;
}
