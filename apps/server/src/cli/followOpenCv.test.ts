import { join } from 'node:path';
import { Follower } from '@fresh-reel/core';
import { type GreyBytes, greyFrames, greyFrom } from '@fresh-reel/node-host';
import cv from '@techstark/opencv-js';

// Against OpenCV (opencv.org), a general library: pyramidal Lucas-Kanade, as calcOpticalFlowPyrLK does it.
// It follows one point from frame to frame; where it does not come back to where it was, it is not sure itself.

const SHARED = join(__dirname, '../../../../packages/templates/src/shared');

beforeAll(async () => {
  // It says that it is ready by a call; awaiting what it is itself would never end.
  if (!cv.Mat)
    await new Promise<void>((ready) => {
      cv.onRuntimeInitialized = ready;
    });
});

/** The corner that OpenCV would follow, within some pixels of a place. */
function corner({ width, height, bytes }: GreyBytes, x: number, y: number, reach: number): [number, number] {
  const [mat, mask, found] = [
    new cv.Mat(height, width, cv.CV_8UC1),
    cv.Mat.zeros(height, width, cv.CV_8UC1),
    new cv.Mat(),
  ];
  mat.data.set(bytes);
  for (let row = y - reach; row <= y + reach; row++)
    mask.data.fill(255, row * width + x - reach, row * width + x + reach);
  cv.goodFeaturesToTrack(mat, found, 1, 0.01, 5, mask, 7);
  const [cx, cy] = found.data32F;
  for (const m of [mat, mask, found]) m.delete();
  return [cx!, cy!];
}

const distance = (a: readonly number[], b: readonly number[]) => Math.hypot(a[0]! - b[0]!, a[1]! - b[1]!);

/** Where OpenCV finds a point in each frame, as long as it is sure. */
function byOpenCv(frames: readonly GreyBytes[], x: number, y: number): [number, number][] {
  const mats = frames.map(({ width, height, bytes }) => {
    const mat = new cv.Mat(height, width, cv.CV_8UC1);
    mat.data.set(bytes);
    return mat;
  });
  const flow = (a: number, b: number, from: readonly number[], guess: readonly number[], side = 21) => {
    const points = cv.matFromArray(1, 1, cv.CV_32FC2, [...from]);
    const to = cv.matFromArray(1, 1, cv.CV_32FC2, [...guess]);
    const [status, error] = [new cv.Mat(), new cv.Mat()];
    const until = new cv.TermCriteria(3, 30, 0.01);
    const initial = cv.OPTFLOW_USE_INITIAL_FLOW;
    cv.calcOpticalFlowPyrLK(
      mats[a]!,
      mats[b]!,
      points,
      to,
      status,
      error,
      new cv.Size(side, side),
      2,
      until,
      initial,
    );
    const found = [to.data32F[0]!, to.data32F[1]!] as [number, number];
    for (const mat of [points, to, status, error]) mat.delete();
    return found;
  };
  const seen: [number, number][] = [[x, y]];
  for (let i = 1; i < mats.length; i++) {
    const last = seen.at(-1)!;
    // From frame to frame its small errors add up; against the first picture they do not.
    const near = flow(i - 1, i, last, last);
    const next = flow(0, i, [x, y], near);
    const back = flow(i, 0, next, [x, y]);
    // It is sure where it comes back to where it was, and where more of the surroundings say the same: it knows no
    // turning, so of a thing that turns different parts go different ways.
    const more = flow(0, i, [x, y], near, 41);
    if (distance(back, [x, y]) > 0.2 || distance(next, near) > 1 || distance(next, more) > 0.75) break;
    seen.push(next);
  }
  for (const mat of mats) mat.delete();
  return seen;
}

it.each([
  ['kites-crossing.mp4', 308, 203, 40, 30],
  ['kite-near.mp4', 540, 200, 0, 60],
  ['crowd-on-the-hill.mp4', 668, 95, 0, 60],
  ['hand-and-line.mp4', 826, 85, 0, 60],
])('%s is followed as OpenCV does, within 1.5 pixels', async (name, aboutX, aboutY, from, count) => {
  const frames: GreyBytes[] = [];
  for await (const frame of greyFrames(join(SHARED, name), 960, 540)) {
    frames.push(frame);
    if (frames.length === from + count) break;
  }
  const [x, y] = corner(frames[from]!, aboutX, aboutY, 30);
  const theirs = byOpenCv(frames.slice(from), x, y);
  expect(theirs.length).toBeGreaterThan(20);
  const follower = new Follower(greyFrom(frames[from]!), { x, y, a: 1, b: 0 }, 30);
  const apart = theirs.slice(1).map((their, i) => {
    const ours = follower.next(greyFrom(frames[from + i + 1]!));
    return distance([ours.x, ours.y], their);
  });
  expect(Math.max(...apart)).toBeLessThan(1.5);
});
