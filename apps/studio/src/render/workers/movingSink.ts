import {
  delayOf,
  GIF_END,
  GifFrames,
  gifDelayed,
  gifHead,
  type MovingPicture,
  PngFrames,
  type RenderPlan,
  secondsAt,
  webpFrame,
  webpHead,
  webpLead,
} from '@fresh-reel/core';
import type { WrittenFrame } from '../../storage/journal';
import type { GrowingFile } from '../../storage/storeFile';
import type { GroupMaker, GroupSink } from './groupSink';
import type { PaintedFrame } from './paintMessages';

/** Writes the parts of a moving picture's file. */
interface Container {
  readonly head: Uint8Array;
  /** A frame's bytes, which is shown from one second to another. */
  frame(data: Uint8Array, from: number, until: number): readonly Uint8Array[];
  readonly end: Uint8Array;
  /** What is written over the beginning when all is there. @param total bytes of the file */
  lead(total: number): Uint8Array;
}

const NOTHING = new Uint8Array();
const milliseconds = (from: number, until: number) => delayOf(from, until, 1000);

function containerOf(kind: MovingPicture, plan: RenderPlan, transparent: boolean): Container {
  if (kind === 'gif')
    return {
      head: gifHead(plan),
      frame: (data, from, until) => [gifDelayed(data, delayOf(from, until, 100))],
      end: GIF_END,
      lead: () => NOTHING,
    };
  if (kind === 'webp')
    return {
      head: webpHead(plan, transparent),
      frame: (data, from, until) => [webpFrame(data, plan, milliseconds(from, until))],
      end: NOTHING,
      lead: webpLead,
    };
  const frames = new PngFrames();
  return {
    head: frames.head(),
    frame: (data, from, until) => frames.frame(data, milliseconds(from, until)),
    end: frames.end(),
    lead: () => frames.head(),
  };
}

/** A moving picture: each of its frames as a picture, and how long it is shown. It has no sound. */
export function movingSink(
  kind: MovingPicture,
  plan: RenderPlan,
  file: GrowingFile,
  transparent: boolean,
): GroupSink {
  const container = containerOf(kind, plan, transparent);
  let position = 0;
  const write = (data: Uint8Array) => {
    file.write(data, position);
    position += data.byteLength;
  };
  write(container.head);
  return {
    make: () =>
      kind === 'gif'
        ? movingGroup(plan, gifMaker(plan, transparent), Math.ceil(plan.rate.num / plan.rate.den / GIF_MOST))
        : movingGroup(plan, fileBytes),
    put: async ({ frames }) => {
      for (const { data, timestamp, duration } of frames)
        for (const part of container.frame(data, timestamp, timestamp + duration)) write(part);
    },
    hear: async () => undefined,
    finish: async () => {
      write(container.end);
      file.write(container.lead(position), 0);
    },
    abandon: async () => undefined,
  };
}

/** Frames a second of a GIF: it counts in hundredths, and players show one of them ten times as long. */
const GIF_MOST = 50;

/** Compresses a frame; nothing when it looks as the one before it. */
type Compress = (frame: NonNullable<PaintedFrame>) => Promise<Uint8Array | undefined>;

const fileBytes: Compress = async (file) => new Uint8Array(await (file as Blob).arrayBuffer());

function gifMaker(plan: RenderPlan, transparent: boolean): Compress {
  const frames = new GifFrames(plan, transparent);
  return async (pixels) => frames.add(new Uint8ClampedArray(pixels as ArrayBuffer));
}

/**
 * A group of frames, where one that is the one before it once more makes that one last longer.
 * @param step takes one frame of so many, and shows it for all of them
 */
function movingGroup({ rate }: RenderPlan, compress: Compress, step = 1): GroupMaker {
  const frames: WrittenFrame[] = [];
  let before: PaintedFrame;
  return {
    add: async (index, frame) => {
      const last = frames.at(-1);
      const passed = last !== undefined && (frame === before || index % step !== 0);
      const data = passed ? undefined : await compress(frame);
      if (!passed) before = frame;
      if (data) {
        frames.push({ data, key: true, timestamp: secondsAt(index, rate), duration: secondsAt(1, rate) });
      } else if (last) {
        const duration = secondsAt(index + 1, rate) - last.timestamp;
        frames[frames.length - 1] = { ...last, duration };
      }
    },
    end: async () => ({ frames }),
    abandon: async () => undefined,
  };
}
