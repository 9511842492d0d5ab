import { availableParallelism } from 'node:os';
import type { Part } from '../harness/bench';

/** Renders beside the encoder alone. */
export const render: Part = async ({ only, report, measure }) => {
  const { render, canvas, alone } = await measure('encode');
  report.say(
    `lower third in one worker: ${render.toFixed(1)} frames a second, from the canvas itself ${canvas.toFixed(1)}; encoder alone ${alone.toFixed(1)}`,
  );
  report.row('render-planes-over-canvas', render / canvas, 'ratio', 0.95);
  const painters = 1 + availableParallelism();
  // Titles over transparency, the first of them the two lines that ffmpeg burns in (`films`), and an opener with
  // pictures: against the encoder alone, which has all cores.
  const wanted: Record<string, number> = {
    'two-lines': 0.95,
    'quiet-strap': 0.95,
    'name-strap': 0.95,
    'drift-wall': 0.7,
  };
  for (const [id, budget] of only ? only.map((id) => [id, 0.95] as const) : Object.entries(wanted)) {
    const rounds: Awaited<ReturnType<typeof measure<'crew'>>>[] = [];
    for (let i = 0; i < 3; i++) rounds.push(await measure('crew', { of: [id], painters }));
    // The middle one: the pace of the machine changes between the two that are compared.
    const f = rounds.sort((p, q) => p.all / p.alone - q.all / q.alone)[1]!;
    // Painting and encoding share the cores: together they take as long as both alone.
    const most = 1 / (1 / f.painting + 1 / f.alone);
    report.say(
      `${id}: one painter ${f.one.toFixed(1)} frames a second, ${f.painters} painters ${f.all.toFixed(1)}; painting alone ${f.painting.toFixed(1)}, encoding alone ${f.alone.toFixed(1)}, so ${most.toFixed(1)} on the same cores`,
    );
    report.row(`render-${id}-1080p-h264`, f.all / f.alone, 'ratio', budget);
    report.row(`render-${id}-all-cores`, f.all / most, 'ratio', 0.9);
  }
};
