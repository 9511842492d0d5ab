import type { Canvas } from '@napi-rs/canvas';
import type { Context } from './paint';

/** Frames a second of every clip. */
export const RATE = 25;

/** A clip: a still backdrop, painted once, and what moves before it. */
export interface Clip {
  readonly width: number;
  readonly height: number;
  readonly seconds: number;
  /** What stands still; wider than the frame where it drifts. */
  backdrop(c: Context, w: number, h: number): void;
  backdropWidth?: number;
  /** Paints a moment: `t` in seconds. */
  moment(c: Context, w: number, h: number, t: number, backdrop: Canvas): void;
}

/** A slow wander, never the same way twice: three sines that do not share a period. */
export const wander = (t: number, seed: number): number =>
  (Math.sin(t * 0.9 + seed) + 0.6 * Math.sin(t * 1.7 + seed * 2.3) + 0.3 * Math.sin(t * 2.9 + seed * 4.1)) /
  1.9;

/** Smoothstep of a part, 0..1. */
export const ease = (t: number): number => t * t * (3 - 2 * t);
