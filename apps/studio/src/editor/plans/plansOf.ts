import {
  type Brand,
  draftSize,
  type Extent,
  excerptsOf,
  FRAMES,
  type FrameShape,
  offeredSize,
  outputName,
  type Reel,
  type RenderFormat,
  type RenderPlan,
  reelWearing,
  withoutBlur,
} from '@fresh-reel/core';

interface Chosen {
  readonly format: RenderFormat;
  /** Short side in pixels. */
  readonly side: number;
  readonly extent: Extent;
  readonly range: readonly [number, number] | undefined;
  /** Frame shapes besides the reel's own. */
  readonly shapes: readonly FrameShape[];
  /** Brands that it is also made in, besides as it is. */
  readonly brands?: readonly Brand[];
  /** To be looked over: half of the size, without motion blur, painted quickly. */
  readonly draft: boolean;
}

/** The files that a choice makes, each a reel and how it is rendered. */
export function plansOf(
  reel: Reel,
  { format, side, extent, range, shapes, brands = [], draft }: Chosen,
): { reel: Reel; plan: RenderPlan }[] {
  const taken = new Set<string>();
  const own = reel.frame.width / reel.frame.height;
  const others = shapes.map((s) => FRAMES[s]).filter((f) => Math.abs(f.width / f.height - own) > 0.01);
  const worn = brands.map((brand) => ({ ...reelWearing(reel, brand), name: `${reel.name} ${brand.name}` }));
  const each = [reel, ...worn].flatMap((as) => [reel.frame, ...others].map((frame) => ({ ...as, frame })));
  return each.flatMap((as) =>
    excerptsOf(as, extent, range).map(({ reel: part, from, count, name }) => {
      const size = draft ? draftSize(as.frame, side) : offeredSize(as.frame, side);
      const { rate } = reel;
      const named = outputName({ ...part, name }, format, size, rate);
      const fileName = freeOf(draft ? `draft-${named}` : named, taken);
      const plan = { format, ...size, rate, from, count, fileName };
      if (!draft) return { reel: part, plan };
      return { reel: withoutBlur(part), plan: { ...plan, draft: true } };
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
