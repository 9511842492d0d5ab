import type { Part } from '../harness/bench';
import { besideDrawtext, byTable, memoryOfLongFilm, serverToFirstFrame } from '../node/films';

/** Films by ffmpeg: beside ffmpeg alone, by a table, and on a server that has just begun. */
export const films: Part = async ({ root, report }) => {
  const font = `${root}apps/studio/public/fonts/Figtree_700Bold.ttf`;
  const { ours, theirs, encoder } = await besideDrawtext(font);
  report.say(
    `title over footage: ${ours.toFixed(1)} s; ffmpeg with drawtext ${theirs.toFixed(1)} s, without any title ${encoder.toFixed(1)} s`,
  );
  report.row('film-over-drawtext', ours / theirs, 'times', 1);
  for (const whole of [false, true]) {
    const memory = await memoryOfLongFilm(whole);
    const tenths = memory.map((m) => m.toFixed(0)).join(' ');
    report.say(
      `ten minutes of 1080p, ${whole ? 'painted whole' : 'over footage'}: memory in MB by tenths ${tenths}`,
    );
    // After the first three tenths everything that is kept is there.
    const growth = memory.at(-1)! / memory[3]!;
    report.row(`memory-ten-minutes${whole ? '-painted' : ''}`, growth, 'times', 1.1);
  }
  const { table, single } = await byTable(20);
  report.say(`20 rows by a table ${table.toFixed(1)} s, one by one ${single.toFixed(1)} s`);
  report.row('table-over-single', table / single, 'times', 1.1);
  const { listens, first } = await serverToFirstFrame(root);
  report.say(`a server listens after ${listens.toFixed(2)} s`);
  report.row('server-to-first-frame', first, 's', 2);
};
