import { changeText, type EditedPath, readPoints, setControl, writePoints } from '@fresh-reel/core';
import type { PathTarget } from './desk';
import { useGraphicEditor } from './useReelEditor';

/** A path that is drawn, and how to change it. */
export interface DrawnPath {
  readonly path: EditedPath;
  readonly put: (next: EditedPath) => void;
}

/** The path a target draws in a graphic. Nothing when it has none. */
export function usePath(target: PathTarget | undefined): DrawnPath | undefined {
  const { scene, graphic, edit } = useGraphicEditor();
  if (!target || target.kind === 'outline') return undefined;
  if (target.kind === 'control') {
    const data = scene.controlAt(target.id, 0);
    return {
      path: readPoints(String(data)),
      put: (next) =>
        edit((r) => setControl(r, graphic.id, target.id, writePoints(next)), `path-${target.id}`),
    };
  }
  const along = scene.textLayer(target.layer)?.along;
  if (!along || !('path' in along)) return undefined;
  return {
    path: readPoints(scene.valueAt(along.path, 0)),
    put: (next) =>
      edit(
        (r) => changeText(r, graphic.id, target.layer, { along: { ...along, path: writePoints(next) } }),
        `path-${target.layer}`,
      ),
  };
}
