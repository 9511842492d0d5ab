import type { Rate, ReelScene } from '@fresh-reel/core';
import type { NodeStudio } from '@fresh-reel/node-host';

/** The frames of a reel that are rendered. */
export interface Stretch {
  readonly scene: ReelScene;
  readonly studio: NodeStudio;
  readonly rate: Rate;
  readonly from: number;
  readonly count: number;
}
