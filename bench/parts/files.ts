import type { Part } from '../harness/bench';
import { memoryOf } from '../harness/memory';

/** The user's own files: taken in, shown, rendered. */
export const files: Part = async ({ browser, files, report, measure }) => {
  const hd = files.hdClip('hd.mp4', []);
  const large = files.clipFile('large.mp4', ['-t', '160', '-c', 'copy'], hd);
  const added = await measure('adding', { path: large });
  report.say(
    `adding ${added.adding.toFixed(0)} MB/s, reading and hashing alone ${added.hashing.toFixed(0)} MB/s`,
  );
  report.row('add-file', added.adding / added.hashing, 'ratio', 0.6);
  const thumb = await measure('first-thumb', { path: hd });
  report.say(
    `small picture ${thumb.thumb.toFixed(0)} ms, its frame decoded alone ${thumb.decode.toFixed(0)} ms`,
  );
  report.row('first-thumb', thumb.thumb, 'ms', 1000);
  const one = await measure('one-clip', { path: hd });
  report.say(
    `one clip: 95% of frames within ${one.p95.toFixed(1)} ms, decoding alone ${one.decode.toFixed(0)} frames a second`,
  );
  report.row('preview-one-clip-1080p', 1000 / one.mean, 'fps', Math.min(30, one.decode));
  const three = await measure('three-clips', { path: hd });
  const reached = 1000 / three.mean;
  report.say(
    `three clips: ${reached.toFixed(1)} frames a second, one decoded and drawn alone ${three.drawn.toFixed(1)}`,
  );
  report.row('preview-three-clips-1080p', (3 * reached) / three.drawn, 'ratio', 0.8);
  const film = await measure('clip-render', { path: hd });
  report.say(
    `decode and encode alone ${film.alone.toFixed(1)} frames a second, render ${film.render.toFixed(1)}`,
  );
  report.row('render-clip-1080p-h264', film.render / film.alone, 'ratio', 0.8);
  const memory: number[] = [];
  const long = files.clipFile('long.mp4', ['-an', '-t', '150', '-c', 'copy']);
  const { frames } = await measure('long-clip', {
    path: long,
    onTenth: () => memory.push(memoryOf(browser)),
  });
  report.say(
    `${frames} frames of a clip, memory in MB by tenths: ${memory.map((m) => m.toFixed(0)).join(' ')}`,
  );
  // After the first three tenths everything that is kept is there.
  const growth = memory.at(-1)! / memory[3]!;
  report.row('memory-long-clip', growth, 'times', 1.1);
};
