import { adjustPicture, type Region } from '@fresh-reel/core';
import { draggedFocus } from './placing';
import { useReelEditor } from './useReelEditor';

/** Moves a picture inside its slot of the graphic that is worked on, by parts of the picture. */
export function useDragPicture(): (region: Region, dx: number, dy: number) => void {
  const { work, edit } = useReelEditor();
  return ({ slot, box, picture }, dx, dy) => {
    const held = work?.scene.slots.pictureFill(slot);
    if (!work || !held || !picture) return;
    const focus = draggedFocus(picture, box, held.scale, held.focus, held.flip ? -dx : dx, dy);
    edit((r) => adjustPicture(r, work.graphic.id, slot, held, { focus }), `drag-${slot}`);
  };
}
