import {
  ellipsePath,
  type Path,
  parseSvgPath,
  polygonPath,
  roundedPath,
  transformPath,
} from '../geometry/path';
import type { Rect } from '../geometry/rect';
import type { Memo } from '../memo';
import type { OutlineDocument } from './common';
import type { LayerContext } from './kind';

/** The path of an outline in a box. Equal boxes give the same object, so that painters can keep what they make of it. */
export function outlinePath(
  outline: OutlineDocument,
  box: Rect,
  { value, memo }: Pick<LayerContext, 'value' | 'memo'>,
): Path {
  const corner = outline.kind === 'rectangle' ? value(outline.corner) : 0;
  const data = outline.kind === 'path' ? value(outline.data) : '';
  const key = `outline/${data}/${corner}/${box.x}/${box.y}/${box.width}/${box.height}`;
  return memo.of(key, () => build(outline, data, corner, box, memo), outline);
}

function build(outline: OutlineDocument, data: string, corner: number, box: Rect, memo: Memo): Path {
  switch (outline.kind) {
    case 'rectangle':
      return roundedPath(box, corner);
    case 'ellipse':
      return ellipsePath(box);
    case 'polygon':
      return polygonPath(box, outline.points, outline.inner);
    case 'path': {
      const drawn = memo.of(`path/${data}`, () => parseSvgPath(data));
      const [w, h] = outline.size;
      return transformPath(drawn, [box.width / w, 0, 0, box.height / h, box.x, box.y]);
    }
  }
}
