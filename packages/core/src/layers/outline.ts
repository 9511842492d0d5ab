import {
  ellipsePath,
  type Path,
  parseSvgPath,
  polygonPath,
  roundedPath,
  transformPath,
} from '../geometry/path';
import type { Rect } from '../geometry/rect';
import type { OutlineDocument, ValueOf } from './common';

const made = new Map<string, Path>();
const parsed = new Map<string, Path>();
const MOST_KEPT = 400;

/** The path of an outline in a box. Equal boxes give the same object, so that painters can keep what they make of it. */
export function outlinePath(outline: OutlineDocument, box: Rect, value: ValueOf): Path {
  const corner = outline.kind === 'rectangle' ? value(outline.corner) : 0;
  const data = outline.kind === 'path' ? value(outline.data) : '';
  const key = JSON.stringify([outline, data, corner, box.x, box.y, box.width, box.height]);
  let path = made.get(key);
  if (!path) {
    path = build(outline, data, corner, box);
    if (made.size >= MOST_KEPT) made.delete(made.keys().next().value!);
    made.set(key, path);
  }
  return path;
}

function build(outline: OutlineDocument, data: string, corner: number, box: Rect): Path {
  switch (outline.kind) {
    case 'rectangle':
      return roundedPath(box, corner);
    case 'ellipse':
      return ellipsePath(box);
    case 'polygon':
      return polygonPath(box, outline.points, outline.inner);
    case 'path': {
      let drawn = parsed.get(data);
      if (!drawn) {
        drawn = parseSvgPath(data);
        if (parsed.size >= MOST_KEPT) parsed.delete(parsed.keys().next().value!);
        parsed.set(data, drawn);
      }
      const [w, h] = outline.size;
      return transformPath(drawn, [box.width / w, 0, 0, box.height / h, box.x, box.y]);
    }
  }
}
