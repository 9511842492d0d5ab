import { createNodePath, createNodeSurface } from '@fresh-reel/node-host';
import type { PathSink } from '../canvas/surface';
import { Painter } from '../paint/painter';

/** A painter of its own that counts the paths it fills. */
export function countingPainter(): { readonly painter: Painter; readonly filled: () => number } {
  let fills = 0;
  const painter = new Painter({
    createSurface: (width, height) => {
      const surface = createNodeSurface(width, height);
      const { context } = surface;
      const fill = context.fill.bind(context);
      context.fill = (path?: PathSink) => {
        fills++;
        fill(path as PathSink);
      };
      return surface;
    },
    createPath: createNodePath,
    picture: () => undefined,
  });
  return { painter, filled: () => fills };
}
