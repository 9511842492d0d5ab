import type { Part } from '../harness/bench';

/** Letters on their way, every kind of motion, and motion blur. */
export const text: Part = async ({ report, measure }) => {
  const [lines] = await measure('four-lines');
  report.row('four-lines-per-letter', 1000 / lines!.p95, 'fps', 30);

  for (const f of await measure('kinds')) report.row(`motion-${f.id}`, f.p95, 'ms', 33);
  const blur = await measure('motion-blur');
  report.say(
    `a frame sharp ${blur.sharp.toFixed(1)} ms, as the mean of 8 moments ${blur.blurred.toFixed(1)} ms`,
  );
  // Eight moments may cost eight frames, and half as much again to add them up.
  report.row('motion-blur-8-samples', blur.blurred / blur.sharp, 'frames', 12);
};
