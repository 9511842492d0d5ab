import type { Graphic, GraphicScene, GraphicTime, Reel } from '@fresh-reel/core';
import { createContext, useContext } from 'react';
import type { SaveState } from './autosave';

/** What the parts of the editor share of the reel that is open. It is another one only when something changed. */
export interface ReelEditor {
  readonly reel: Reel;
  /** The graphic that is worked on. */
  readonly graphic: Graphic;
  chooseGraphic(id: string): void;
  /** Controls and clock of the graphic as it stands; it does not set or paint anything on the page. */
  readonly scene: GraphicScene;
  /** Times of the graphic in frames of the reel, and back. */
  readonly time: GraphicTime;
  /** Changes the reel. Changes with one gesture name make one step of undo. */
  edit(change: (reel: Reel) => Reel, gesture?: string): void;
  /** Ends a gesture. */
  settle(): void;
  /** Takes back what the gesture that is going on has changed. */
  cancel(): void;
  undo(): void;
  redo(): void;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
  readonly save: SaveState;
  /** Tries again to save after a fault. */
  retrySave(): void;
  /** This tab holds the reel, so that changes are taken. */
  readonly mayEdit: boolean;
  /** Another tab edits this reel; here it can only be looked at. */
  readonly elsewhere: boolean;
  takeOver(): void;
}

const EditorContext = createContext<ReelEditor | undefined>(undefined);
export const ReelEditorProvider = EditorContext.Provider;

export function useReelEditor(): ReelEditor {
  const editor = useContext(EditorContext);
  if (!editor) throw new Error('No reel is open here.');
  return editor;
}
