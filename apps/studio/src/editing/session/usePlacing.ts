import { type ControlValue, isKeyed, type Property, putKey, type Region } from '@fresh-reel/core';
import { useDesk } from './desk';
import { keyedOf, propertyOf, type TextKey } from './keyTargets';
import { useGraphicEditor } from './useReelEditor';

/** Where the user put a text: reads it at the playhead, and writes it, into a keyframe where it has any. */
export function usePlacing(layer: string) {
  const editor = useGraphicEditor();
  const { surface } = useDesk();
  const { scene, edit, settle } = editor;
  const time = () => editor.time.localAt(surface.position);
  const read = <T extends ControlValue>(key: TextKey): T | undefined => {
    const found = scene.textLayer(layer);
    return found && scene.valueAt(propertyOf(found, key) as Property<T>, scene.actualOf(time()));
  };
  const write = (key: TextKey, value: ControlValue, gesture: string) => {
    const keyed = keyedOf({ kind: 'text', layer, key }, editor);
    if (!keyed) return;
    const next = isKeyed(keyed.held) ? putKey(keyed.held, scene.clock, time(), value) : value;
    edit((r) => keyed.write(r, next), `${gesture}-${layer}`);
  };
  return { read, write, settle };
}

/** A move on the picture, in frame units, as a move in the layer's parent. */
export function inParent([a, b, c, d]: Region['unit'], [x, y]: readonly [number, number]): [number, number] {
  const det = a * d - b * c;
  if (Math.abs(det) < 1e-6) return [x, y];
  return [(d * x - c * y) / det, (a * y - b * x) / det];
}
