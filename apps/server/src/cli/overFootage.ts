import { type AsItIs, beneath, type FilmCodec, type Size } from '@fresh-reel/core';
import { type NodeStudio, takesFootage, type Underlay } from '@fresh-reel/node-host';
import type { Stretch } from './stretch';

/** Which clips are as large as a film, and can go into it as they are. */
export const asItIs =
  (studio: NodeStudio, { width, height }: Size): AsItIs =>
  (media) => {
    const facts = studio.asItIs(media) === undefined ? undefined : studio.mediaFacts(media);
    return facts?.width === width && facts.height === height ? facts : undefined;
  };

/** The footage that a film is laid over, where that can be: an opaque film of 4:2:0, much of which is clips as they are. */
export function underlayOf(
  { scene, studio, rate, from, count }: Stretch,
  { codec, alpha, size }: { readonly codec: FilmCodec; readonly alpha: string; readonly size: Size },
): Underlay | undefined {
  if (!takesFootage(codec) || alpha !== 'none' || !studio.planes) return undefined;
  const momentsOf = (index: number) => scene.subFrames(from + index, rate).map((f) => f.ops);
  const found = beneath(momentsOf, count, scene.frame, size, asItIs(studio, size));
  const withPath = ({ media, ...passage }: NonNullable<typeof found>['passages'][number]) => ({
    ...passage,
    path: media === undefined ? undefined : studio.asItIs(media),
  });
  return found && { passages: found.passages.map(withPath), area: found.area };
}
