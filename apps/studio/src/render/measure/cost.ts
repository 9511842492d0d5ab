import {
  type CostlyPart,
  costlyParts,
  type OutputFormat,
  type Reel,
  type RenderPlan,
} from '@fresh-reel/core';
import { measure } from './estimate';

/** Seconds that a render takes, and what of it they go to. */
export interface Cost {
  readonly seconds: number;
  /** The dearest first; what a part costs is what a render without it would save. */
  readonly parts: readonly { readonly part: CostlyPart; readonly seconds: number }[];
  /** Compressing and writing, while no painting is waited for. */
  readonly writing: number;
}

/** Frames in a row that are rendered for each part: fewer than for the whole, which is told more exactly. */
const ROW = 8;

/**
 * Measures what the time of a render goes to: once as it is, and once without each part.
 * @param told how many of so many measurements are done
 */
export async function costOf(
  reel: Reel,
  plan: RenderPlan<OutputFormat>,
  told: (done: number, of: number) => void,
  signal: AbortSignal,
): Promise<Cost> {
  const parts = costlyParts(reel);
  told(0, parts.length + 1);
  const whole = await measure(reel, plan, signal, ROW);
  const found: { part: CostlyPart; seconds: number }[] = [];
  for (const part of parts) {
    told(found.length + 1, parts.length + 1);
    const less = await measure(part.without(reel), plan, signal, ROW);
    found.push({ part, seconds: Math.max(0, whole.seconds - less.seconds) });
  }
  return {
    seconds: whole.seconds,
    parts: found.sort((a, b) => b.seconds - a.seconds),
    writing: whole.seconds * (1 - whole.painting),
  };
}
