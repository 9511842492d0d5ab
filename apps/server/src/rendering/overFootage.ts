import { type AsItIs, type Beneath, type FilmCodec, filmParts, type Size } from '@fresh-reel/core';
import { type NodeStudio, takesFootage, type Underlay } from '@fresh-reel/node-host';
import type { Stretch } from './stretch';

/** Which clips are as large as a film, and can go into it as they are. */
export const asItIs =
  (studio: NodeStudio, { width, height }: Size): AsItIs =>
  (media) => {
    const facts = studio.asItIs(media) === undefined ? undefined : studio.mediaFacts(media);
    return facts?.width === width && facts.height === height ? facts : undefined;
  };

/** Frames in a row of a film, and the footage that ffmpeg lays below them itself. */
export interface Part {
  readonly frames: number;
  /** Absent where they are painted whole. */
  readonly underlay: Underlay | undefined;
}

/**
 * A film in parts: those of an opaque film of 4:2:0 that are laid over footage as it is, or over black, and those that
 * are painted whole. Any other film is one part.
 */
export function partsOf(
  { scene, studio, rate, from, count }: Stretch,
  { codec, alpha, size }: { readonly codec: FilmCodec; readonly alpha: string; readonly size: Size },
): readonly Part[] {
  const clips = asItIs(studio, size);
  if (!takesFootage(codec) || alpha !== 'none') return [{ frames: count, underlay: undefined }];
  const footage = scene.media().some(clips);
  const momentsOf = (index: number) => scene.subFrames(from + index, rate).map((f) => f.ops);
  const read = ({ passages, area }: Beneath): Underlay => ({
    passages: passages.map(({ media, ...passage }) => ({
      ...passage,
      path: media === undefined ? undefined : studio.asItIs(media),
    })),
    area,
  });
  return filmParts(momentsOf, count, scene.frame, size, clips, footage).map(({ frames, beneath }) => ({
    frames,
    underlay: beneath && read(beneath),
  }));
}
