import '../../workers/alive';
import {
  Follower,
  FRAME_SLACK,
  followScale,
  footingOf,
  type Grey,
  messageOf,
  type Pose,
  resizedPose,
  type Sighting,
  takePatch,
  type WaySample,
} from '@fresh-reel/core';
import type { ClipSource } from '../../decode/clip';
import { openClip } from '../../decode/clipSource';
import { GreyReader } from '../../decode/grey';
import type { FromFollow, Patch, ToFollow } from './messages';

const tell = (message: FromFollow) => postMessage(message);

/** Seconds that are decoded at once on the way back. */
const STRETCH = 1;
/** Frames between two words of what was found. */
const ROW = 8;

/** A clip's frames as shades of grey, at the size in which things are followed. */
class GreyClip {
  readonly scale: number;
  private readonly reader: GreyReader;

  private constructor(private readonly source: ClipSource) {
    const { width, height } = source.facts;
    this.scale = followScale(width, height);
    this.reader = new GreyReader(Math.round(width * this.scale), Math.round(height * this.scale));
  }

  static async open(media: string): Promise<GreyClip> {
    const source = await openClip(media);
    if (!source) throw new Error('The clip is not here any more. Add its file again.');
    return new GreyClip(source);
  }

  get duration(): number {
    return this.source.facts.duration;
  }

  /** Frames from the one that shows at a second, up to another second. */
  async *frames(from: number, to: number): AsyncGenerator<{ at: number; grey: Grey }> {
    for await (const sample of this.source.samples(Math.max(0, from))) {
      const { timestamp } = sample;
      if (timestamp >= to) {
        sample.close();
        return;
      }
      yield { at: timestamp, grey: this.reader.read(sample) };
    }
  }

  /** The frame that shows at a second. */
  async first(at: number): Promise<{ at: number; grey: Grey }> {
    // Files round the times of their frames: the one that begins at a second may say it begins a hair later.
    for await (const frame of this.frames(at + FRAME_SLACK, Number.POSITIVE_INFINITY)) return frame;
    throw new Error('The clip has no picture there. Take the playhead to one.');
  }
}

async function look({ media, at, pose, half }: Patch): Promise<void> {
  const clip = await GreyClip.open(media);
  const { grey } = await clip.first(at);
  const patch = takePatch([grey], resizedPose(pose, clip.scale), half * clip.scale);
  tell({ type: 'footing', verdict: footingOf(patch).verdict });
}

async function follow({ media, at, pose, half }: Patch, back?: number, on?: number): Promise<void> {
  const clip = await GreyClip.open(media);
  const k = clip.scale;
  const chosen = await clip.first(at);
  const start = resizedPose(pose, k);
  const [first, last] = [Math.max(0, back ?? chosen.at), Math.min(clip.duration, on ?? chosen.at)];
  const whole = Math.max(0.001, last - first);
  // What was shown by hand is as it was shown.
  let found: WaySample[] = [[at, pose.x, pose.y, pose.a, pose.b, 1]];
  let done = 0;
  const sampleOf = (seen: Sighting, second: number): WaySample => {
    const { x, y, a, b }: Pose = resizedPose(seen, 1 / k);
    return [second, rounded(x), rounded(y), rounded(a), rounded(b), rounded(seen.sure)];
  };
  const say = (force = false) => {
    if (found.length < ROW && !force) return;
    tell({ type: 'found', samples: found.sort((p, q) => p[0] - q[0]), part: Math.min(1, done / whole) });
    found = [];
  };
  if (back !== undefined) {
    const follower = new Follower(chosen.grey, start, half * k);
    for (let to = chosen.at; to > first + 1e-6; to -= STRETCH) {
      const stretch: { at: number; grey: Grey }[] = [];
      // The frame that shows at the beginning of a stretch began before it.
      for await (const frame of clip.frames(Math.max(first, to - STRETCH), to - 1e-6))
        if (to - STRETCH <= first || frame.at >= to - STRETCH) stretch.push(frame);
      for (const frame of stretch.reverse()) {
        found.push(sampleOf(follower.next(frame.grey), frame.at));
        done = chosen.at - frame.at;
        say();
      }
    }
    say(true);
  }
  if (on !== undefined) {
    const follower = new Follower(chosen.grey, start, half * k);
    for await (const frame of clip.frames(chosen.at, last)) {
      if (frame.at <= chosen.at + 1e-6) continue;
      found.push(sampleOf(follower.next(frame.grey), frame.at));
      done = chosen.at - first + (frame.at - chosen.at);
      say();
    }
    say(true);
  }
}

const rounded = (value: number) => Math.round(value * 1000) / 1000;

self.onmessage = ({ data }: MessageEvent<ToFollow>) => {
  const work = data.type === 'look' ? look(data.patch) : follow(data.patch, data.back, data.on);
  work.then(
    () => data.type === 'follow' && tell({ type: 'done' }),
    (error: unknown) => tell({ type: 'fault', message: messageOf(error) }),
  );
};
