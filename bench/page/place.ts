/** What a long reel costs, and following: in a worker, with the core alone. */
import {
  addColour,
  addTitle,
  Follower,
  type Grey,
  moveItems,
  openDocument,
  putItem,
  type Reel,
  ReelScene,
  reelKind,
  reelOfFiles,
  spanOf,
} from '@fresh-reel/core';
import { allTemplates } from '@fresh-reel/templates';
import type { BrowserStudio } from '../../apps/studio/src/engine/browserStudio';
import { at } from './figures';

const MADE = {
  id: 'long',
  name: 'Long',
  now: '',
  frame: { width: 1920, height: 1080 },
  rate: { num: 25, den: 1 },
};
const SECONDS = 600;

/** Ten minutes: 30 clips on one track, light over some cuts on another, 50 titles of three templates on two more. */
function longReel(clips = 30, titles = 50): Reel {
  const files = Array.from({ length: clips }, (_, i) => ({
    ...{ kind: 'clip', media: `sha256:${String(i).padStart(64, '0')}`, name: `${i}.mp4` },
    duration: SECONDS / clips,
  })) as Parameters<typeof reelOfFiles>[0];
  let reel = reelOfFiles(files, MADE);
  for (let i = 1; i < clips; i += 3)
    ({ reel } = addColour(reel, '#FFEECC', Math.round((i * SECONDS * 25) / clips)));
  const used = allTemplates()
    .filter((t) => t.transparent === true)
    .slice(0, 3);
  for (let i = 0; i < titles; i++) {
    const start = Math.round((i * SECONDS * 25) / titles);
    ({ reel } = addTitle(reel, used[i % used.length]!, start));
  }
  return reel;
}

const median = (times: number[]) =>
  at(
    times.sort((a, b) => a - b),
    0.5,
  );

function timed(work: () => void, rounds = 15): number {
  const times: number[] = [];
  for (let i = 0; i < rounds; i++) {
    const began = performance.now();
    work();
    times.push(performance.now() - began);
  }
  return median(times);
}

/** Milliseconds to open a long reel, for a step of a drag in it, and for a frame's evaluation in it and in a short one. */
export async function longReelFigures(
  studio: BrowserStudio,
): Promise<{ open: number; step: number; long: number; short: number }> {
  const reel = longReel();
  const text = JSON.stringify(reel);
  const open = timed(() => new ReelScene(openDocument(reelKind, JSON.parse(text)), studio), 5);
  const title = reel.tracks.at(-1)!.items[20]!;
  let by = 0;
  const step = timed(() => {
    by = (by + 7) % 200;
    const moved = moveItems(reel, [title.id], by);
    // What the line asks of each step: where everything stands.
    for (const track of moved.tracks) for (const item of track.items) spanOf(moved, item);
    new ReelScene(moved, studio);
  });
  const scene = new ReelScene(reel, studio);
  await studio.loadFonts(scene);
  // The same titles, in a reel that ends soon after them.
  const near = putItem({ ...reel, tracks: [] }, { ...title, start: 0 });
  const few = new ReelScene({ ...near, templates: reel.templates }, studio);
  const frames = Array.from({ length: 40 }, (_, i) => 30 + i);
  const each = (of: ReelScene, first: number) =>
    timed(() => {
      for (const frame of frames) of.frameAt(first + frame, reel.rate);
    }) / frames.length;
  return { open, step, long: each(scene, title.start), short: each(few, 0) };
}

/** Frames a second that following reaches at 640 × 360, on pictures that are there already. */
export function followFigures(): number {
  const [width, height, count] = [640, 360, 60];
  const ground = Float32Array.from({ length: (width + 200) * height }, (_, i) => {
    const [x, y] = [i % (width + 200), Math.floor(i / (width + 200))];
    return (
      128 +
      50 * Math.sin(x / 7) * Math.cos(y / 9) +
      40 * Math.sin((x + y) / 23) +
      20 * Math.cos(x / 3 - y / 5)
    );
  });
  const picture = (shift: number): Grey => {
    const data = new Float32Array(width * height);
    for (let y = 0; y < height; y++)
      data.set(ground.subarray(y * (width + 200) + shift, y * (width + 200) + shift + width), y * width);
    return { width, height, data };
  };
  const pictures = Array.from({ length: count }, (_, i) => picture(Math.round(i * 2)));
  const follower = new Follower(pictures[0]!, { x: 400, y: 180, a: 1, b: 0 }, 20);
  const began = performance.now();
  for (const next of pictures.slice(1)) follower.next(next);
  return ((count - 1) * 1000) / (performance.now() - began);
}
