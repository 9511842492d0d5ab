import {
  changeText,
  everyLayer,
  type Property,
  type TextChange,
  type TextLayer,
  type Value,
} from '@fresh-reel/core';
import { useDesk } from '../session/desk';
import { useGraphicEditor } from '../session/useReelEditor';

/** A text layer to work on: as it is now, as the template has it, and how to change it. */
export interface WorkedText {
  readonly id: string;
  readonly layer: TextLayer;
  /** As the template has it. */
  readonly original: TextLayer;
  readonly change: TextChange;
  /** A property's value at the playhead. */
  value<T extends Value>(property: Property<T>): T;
  put(part: Partial<TextChange>, gesture?: string): void;
  /** Puts and ends the gesture. */
  set(part: Partial<TextChange>): void;
  settle(): void;
}

export function useText(id: string): WorkedText | undefined {
  const { scene, graphic, time, edit, settle } = useGraphicEditor();
  const { surface } = useDesk();
  const layer = scene.textLayer(id);
  const original = [...everyLayer(graphic.template.layers)].find((l) => l.id === id);
  if (!layer || original?.kind !== 'text') return undefined;
  const put = (part: Partial<TextChange>, gesture = Object.keys(part).join()) =>
    edit((r) => changeText(r, graphic.id, id, part), `text-${id}-${gesture}`);
  return {
    id,
    layer,
    original,
    change: graphic.fill.texts?.[id] ?? {},
    value: (property) => scene.valueAt(property, time.actualAt(surface.position)),
    put,
    set: (part) => {
      put(part);
      settle();
    },
    settle,
  };
}

/** What puts a part of a text back to the template's: nothing while it is the template's. */
export function resetOf(text: WorkedText, ...parts: (keyof TextChange)[]): (() => void) | undefined {
  if (!parts.some((p) => p in text.change)) return undefined;
  return () => text.set(Object.fromEntries(parts.map((p) => [p, undefined])) as Partial<TextChange>);
}
