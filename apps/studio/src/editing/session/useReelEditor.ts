import type { Graphic, GraphicScene, GraphicTime, Reel } from '@fresh-reel/core';
import { createContext, useContext, useMemo } from 'react';
import type { SaveState } from './autosave';

/** The graphic of a reel that is filled and adjusted. */
export interface GraphicWork {
  readonly graphic: Graphic;
  /** Controls and clock of the graphic as it stands; it does not set or paint anything on the page. */
  readonly scene: GraphicScene;
  /** Times of the graphic in frames of the reel, and back. */
  readonly time: GraphicTime;
}

/** What the parts of the editor share of the reel that is open. It is another one only when something changed. */
export interface ReelEditor {
  readonly reel: Reel;
  /** The graphic that is worked on; a reel may have none. */
  readonly work: GraphicWork | undefined;
  chooseGraphic(id: string): void;
  /**
   * Changes the reel. Changes with one gesture name make one step of undo. What cannot be done, or could not be opened
   * again, is told in words.
   * @returns whether it was done
   */
  edit(change: (reel: Reel) => Reel, gesture?: string): boolean;
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

/** The reel that is open, and the graphic that is worked on. */
export type GraphicEditor = ReelEditor & GraphicWork;

/** For parts that are there only while there is a graphic to work on. */
export function useGraphicEditor(): GraphicEditor {
  const editor = useReelEditor();
  const all = useMemo(() => editor.work && { ...editor, ...editor.work }, [editor]);
  if (!all) throw new Error('No graphic is worked on here.');
  return all;
}
