import type { EditedPath, LaidPart } from '@fresh-reel/core';
import {
  changePart,
  drawnOutline,
  fromPicture,
  onPicture,
  outlineThrough,
  partOf,
  pointsOfOutline,
} from '@fresh-reel/core/make';
import type { DrawnPath } from '../../editing/session/usePath';
import { useMade } from './useWork';

/** The outline of a part, in parts of its box, and how to change it; nothing of one that is not drawn by hand. */
export function useOutline(part: string | undefined): DrawnPath | undefined {
  const { template, makePart } = useMade();
  const outline = part === undefined ? undefined : drawnOutline(partOf(template, part));
  if (part === undefined || !outline) return undefined;
  return {
    path: pointsOfOutline(outline),
    put: (next) =>
      makePart(
        part,
        (t) =>
          changePart(t, part, (layer) => {
            const now = drawnOutline(layer);
            return now && layer.kind === 'shape' ? { ...layer, outline: outlineThrough(now, next) } : layer;
          }),
        `outline-${part}`,
      ),
  };
}

/** The same, where it lies on the picture. */
export function laidOutline(
  { path, put }: DrawnPath,
  { quad }: LaidPart,
  frame: { readonly width: number; readonly height: number },
): DrawnPath {
  return {
    path: onPicture(path, quad, frame),
    put: (next: EditedPath) => {
      const back = fromPicture(next, quad, frame);
      if (back) put(back);
    },
  };
}
