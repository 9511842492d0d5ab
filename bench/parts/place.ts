import type { Part } from '../harness/bench';

/** A reel of ten minutes with 30 clips and 50 titles, and following. */
export const place: Part = async ({ report, measure }) => {
  const { open, step, long, short } = await measure('long-reel');
  report.row('open-long-reel', open, 'ms', 1500);
  report.row('step-of-a-drag', step, 'ms', 16);
  report.say(`a frame in a long reel ${long.toFixed(2)} ms, in a short one ${short.toFixed(2)} ms`);
  report.row('evaluation-long-reel', long / short, 'times', 1.5);
  const frames = await measure('follow');
  report.row('follow-640x360', frames, 'fps', 60);
};
