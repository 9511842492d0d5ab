import { createContext, useContext, useRef } from 'react';
import type { PreviewSurface } from '../../preview/previewClient';
import { usePreviewState } from '../../preview/usePreview';
import type { KeyTarget } from './keyTargets';
import { useGraphicEditor } from './useReelEditor';

/** What of the picture is being drawn on: a path control, the path of a text layer, or the outline of a part that is made. */
export type PathTarget =
  | { readonly kind: 'control'; readonly id: string }
  | { readonly kind: 'text'; readonly layer: string }
  | { readonly kind: 'outline'; readonly layer: string };

/** What the parts of a reel's screen share: the preview, where it is, and what is being worked on in it. */
export interface Desk {
  readonly surface: PreviewSurface;
  readonly seek: (frame: number) => void;
  /** The value whose line and keyframes show under the preview. */
  readonly keyed: KeyTarget | undefined;
  readonly chooseKeyed: (target: KeyTarget | undefined) => void;
  readonly path: PathTarget | undefined;
  readonly choosePath: (target: PathTarget | undefined) => void;
  /** Items of the reel that are chosen, in the order in which they were. */
  readonly chosen: readonly string[];
  /** The one that is worked on: the last that was chosen. */
  readonly item: string | undefined;
  /** Chooses an item alone, or nothing; where several are chosen, adds it to them or takes it from them. */
  readonly chooseItem: (item: string | undefined) => void;
  readonly chooseItems: (items: readonly string[]) => void;
  /** A drag on the line moves what is inside a clip or a sound, not the item. */
  readonly slipping: boolean;
  readonly setSlipping: (on: boolean) => void;
  /** A touch adds to what is chosen. */
  readonly several: boolean;
  readonly setSeveral: (on: boolean) => void;
  /** The text layer that is worked on, and whether its words are being typed on the picture. */
  readonly text: string | undefined;
  readonly typing: boolean;
  readonly chooseText: (layer: string | undefined, typing?: boolean) => void;
  /** Whether the ways of the letters that are worked on show on the picture. */
  readonly ways: boolean;
  readonly showWays: (on: boolean) => void;
}

const DeskContext = createContext<Desk | undefined>(undefined);
export const DeskProvider = DeskContext.Provider;

export function useDesk(): Desk {
  const desk = useContext(DeskContext);
  if (!desk) throw new Error('There is no preview here.');
  return desk;
}

/**
 * The frame under the playhead. While it plays, it stays the one from which it began: what shows values does not
 * change many times a second.
 */
export function useRestingFrame(surface: PreviewSurface): number {
  const held = useRef(0);
  return usePreviewState(surface, ({ playing, frame }) => {
    if (!playing) held.current = frame?.number ?? 0;
    return held.current;
  });
}

/** The playhead in the graphic's own frames, as its keyframes count; while it plays, where it began. */
export function useLocalTime(): number {
  const { surface } = useDesk();
  return useGraphicEditor().time.localAt(useRestingFrame(surface));
}
