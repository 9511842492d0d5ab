import {
  type Extent,
  excerptsOf,
  FRAMES,
  type FrameShape,
  offeredSize,
  outputName,
  type Reel,
  type RenderFormat,
  type RenderPlan,
} from '@fresh-reel/core';

interface Chosen {
  readonly format: RenderFormat;
  /** Short side in pixels. */
  readonly side: number;
  readonly extent: Extent;
  readonly range: readonly [number, number] | undefined;
  /** Frame shapes besides the reel's own. */
  readonly shapes: readonly FrameShape[];
}

/** The files that a choice makes, each a reel and how it is rendered. */
export function plansOf(
  reel: Reel,
  { format, side, extent, range, shapes }: Chosen,
): { reel: Reel; plan: RenderPlan }[] {
  const taken = new Set<string>();
  const own = reel.frame.width / reel.frame.height;
  const others = shapes.map((s) => FRAMES[s]).filter((f) => Math.abs(f.width / f.height - own) > 0.01);
  return [reel.frame, ...others].flatMap((frame) =>
    excerptsOf({ ...reel, frame }, extent, range).map(({ reel: part, from, count, name }) => {
      const size = offeredSize(frame, side);
      const { rate } = reel;
      const fileName = freeOf(outputName({ ...part, name }, format, size, rate), taken);
      return { reel: part, plan: { format, ...size, rate, from, count, fileName } };
    }),
  );
}

/** A name that none of these has; it is one of them then. */
function freeOf(name: string, taken: Set<string>): string {
  const [, stem, ending] = /^(.*)(\.[^.]+)$/.exec(name)!;
  let free = name;
  for (let i = 2; taken.has(free); i++) free = `${stem}-${i}${ending}`;
  taken.add(free);
  return free;
}
