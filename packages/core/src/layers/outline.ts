import { type Homography, inverse, project } from '../geometry/matrix';
import {
  ellipsePath,
  type Path,
  parseSvgPath,
  polygonPath,
  roundedPath,
  transformPath,
} from '../geometry/path';
import type { Point } from '../geometry/plane';
import { bubblePath, leaderPath } from '../geometry/pointing';
import type { Rect } from '../geometry/rect';
import type { Property } from '../values/property';
import type { OutlineDocument } from './common';
import type { LayerContext } from './kind';

/** What an outline's values come from, and the plane its box lies in. */
type OutlineTools = Pick<LayerContext, 'value' | 'memo' | 'moment'> & { readonly plane: Homography };

/** The path of an outline in a box. Equal boxes give the same object, so that painters can keep what they make of it. */
export function outlinePath(outline: OutlineDocument, box: Rect, tools: OutlineTools): Path {
  const { value, memo } = tools;
  const at = `${box.x}/${box.y}/${box.width}/${box.height}`;
  const kept = (key: string, make: () => Path) => memo.of(`outline/${key}/${at}`, make, outline);
  switch (outline.kind) {
    case 'rectangle': {
      const corner = value(outline.corner);
      return kept(`${corner}`, () => roundedPath(box, corner));
    }
    case 'ellipse':
      return kept('', () => ellipsePath(box));
    case 'polygon':
      return kept('', () => polygonPath(box, outline.points, outline.inner));
    case 'path': {
      const data = value(outline.data);
      const [w, h] = outline.size;
      return kept(data, () =>
        transformPath(
          memo.of(`path/${data}`, () => parseSvgPath(data)),
          [box.width / w, 0, 0, box.height / h, box.x, box.y],
        ),
      );
    }
    case 'bubble': {
      const to = inBox(outline.to, tools) ?? [box.x + box.width / 2, box.y + box.height / 2];
      const [corner, width, reach, bow] = [outline.corner, outline.width, outline.reach, outline.bow].map(
        (p) => value(p),
      ) as [number, number, number, number];
      return kept([...to, corner, width, reach, bow].join(), () =>
        bubblePath(box, corner, { to, width, reach, bow }),
      );
    }
    case 'leader': {
      const to = inBox(outline.to, tools) ?? [box.x, box.y + box.height];
      const gap = value(outline.gap);
      return kept([...to, gap].join(), () => leaderPath(box, to, gap));
    }
  }
}

/** A point of the frame, in parts of it, in the coordinates of a layer; nothing of one that is seen edge on. */
function inBox(
  point: Property<readonly [number, number]>,
  { value, moment, plane }: OutlineTools,
): Point | undefined {
  const back = inverse(plane);
  if (!back) return undefined;
  const [px, py] = value(point) as Point;
  const { width, height } = moment.frame;
  const [x, y] = project(back, px * width, py * height);
  return Number.isFinite(x) && Number.isFinite(y) ? [x, y] : undefined;
}
