import type { Grey } from '../follow/grey';
import { SHOT_PICTURE, ShotFinder } from './shots';

const { width, height } = SHOT_PICTURE;
/** A picture made of waves, which a shot's number decides on, moved a little with each frame. */
const picture = (shot: number, frame: number): Grey => ({
  width,
  height,
  data: Float32Array.from({ length: width * height }, (_, i) => {
    const [x, y] = [(i % width) + frame * 0.4, Math.floor(i / width)];
    return 128 + 60 * Math.sin((x * (1 + shot)) / 9 + shot * 2) + 50 * Math.cos((y * (3 - shot)) / 7 + shot);
  }),
});

it('another shot is told from the same one that moves, grows lighter or flashes', () => {
  const finder = new ShotFinder();
  const cuts = Array.from({ length: 90 }, (_, f) => {
    const shown = picture(Math.floor(f / 30), f);
    const lighter = { ...shown, data: shown.data.map((v) => Math.min(255, v * (1 + f / 200))) };
    return finder.next(lighter, f / 25) ? f : -1;
  }).filter((f) => f >= 0);
  expect(cuts).toEqual([30, 60]);
});

it('one frame of something else is one change, not two', () => {
  const finder = new ShotFinder();
  const cuts = Array.from({ length: 40 }, (_, f) =>
    finder.next(picture(f === 20 ? 2 : 0, f), f / 25) ? f : -1,
  );
  expect(cuts.filter((f) => f >= 0)).toEqual([20]);
});
