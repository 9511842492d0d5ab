import { access } from 'node:fs/promises';
import { Follower, followScale, messageOf, resizedPose, type Sighting, usualPatch } from '@fresh-reel/core';
import { type GreyBytes, greyFrames, greyFrom, NodeClip } from '@fresh-reel/node-host';
import { CommandError } from '../rendering/command';

export interface FollowCommand {
  readonly clip: string;
  /** Pixels of the clip as it is seen. */
  readonly at: readonly [x: number, y: number];
  /** Width of the patch, in the same. */
  readonly size: number | undefined;
  /** The frame in which the patch is there, counted from 0. */
  readonly frame: number;
  readonly json: boolean;
}

/** Where the patch is in one frame. */
export interface Sight {
  readonly frame: number;
  readonly x: number;
  readonly y: number;
  readonly sure: number;
}

/**
 * Follows a patch through all of a clip: forwards from the frame in which it was chosen, and backwards.
 * @throws {CommandError} when the clip cannot be read, or has no such frame or place
 */
export async function follow({ clip: path, at, size, frame }: FollowCommand): Promise<Sight[]> {
  await access(path).catch(() => {
    throw new CommandError(`The clip "${path}" cannot be read.`);
  });
  const clip = await NodeClip.open(path).catch((error: unknown) => {
    throw new CommandError(`"${path}" cannot be opened as a clip. ${messageOf(error)}`);
  });
  const { width, height } = clip.facts;
  if (at[0] >= width || at[1] >= height)
    throw new CommandError(
      `--at: ${at.join(',')} lies outside the clip, which is ${width} × ${height} pixels.`,
    );
  const k = followScale(width, height);
  const half = ((size ?? usualPatch(width, height)) * k) / 2;
  const start = resizedPose({ x: at[0], y: at[1], a: 1, b: 0 }, k);
  const sights: Sight[] = [];
  const tell = (number: number, seen: Sighting) => {
    const { x, y } = resizedPose(seen, 1 / k);
    sights[number] = { frame: number, x: rounded(x), y: rounded(y), sure: rounded(seen.sure) };
  };
  const before: GreyBytes[] = [];
  let follower: Follower | undefined;
  let chosen: GreyBytes | undefined;
  let number = 0;
  for await (const picture of greyFrames(path, Math.round(width * k), Math.round(height * k))) {
    if (number < frame) before.push(picture);
    else if (!follower) {
      chosen = picture;
      follower = new Follower(greyFrom(picture), start, half);
      tell(number, { ...start, sure: 1 });
    } else tell(number, follower.next(greyFrom(picture)));
    number++;
  }
  if (!chosen) throw new CommandError(`--frame: the clip has ${number} frames, counted from 0.`);
  const back = new Follower(greyFrom(chosen), start, half);
  for (let i = before.length - 1; i >= 0; i--) tell(i, back.next(greyFrom(before[i]!)));
  return sights;
}

const rounded = (value: number) => Math.round(value * 1000) / 1000;
