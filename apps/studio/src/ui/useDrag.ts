import { useRef } from 'react';
import { useGestures } from './gestures';
import type { PointerHandlers, PointerPress } from './web';

/** A pointer's place, in page pixels. */
export interface DragPoint {
  readonly x: number;
  readonly y: number;
  /** Ctrl, or Cmd on a Mac, is held: nothing snaps. */
  readonly free?: boolean;
}

interface Handlers {
  readonly onStart?: (at: DragPoint) => void;
  readonly onMove: (at: DragPoint, from: DragPoint) => void;
  /** `moved` tells a drag from a tap; `cancelled`, that the browser took the pointer away and nothing counts. */
  readonly onEnd?: (moved: boolean, at: DragPoint, cancelled: boolean) => void;
  /**
   * The direction a finger drags in, where the page scrolls in the other: a finger that goes that way scrolls, and
   * changes nothing. Give the view `touchAction: 'pan-y'`. Mice and pens drag at once, in any direction.
   */
  readonly along?: 'x' | undefined;
}

const TAP_SLOP = 4;

interface Held {
  readonly id: number;
  readonly from: DragPoint;
  moved: boolean;
  /** Whether it has been told as a drag; a finger waits until its direction is known. */
  begun: boolean;
}

/** Whether the page lets words be selected: a drag that runs over some must not. */
function selecting(on: boolean): void {
  document.body.style.userSelect = on ? '' : 'none';
}

/**
 * Pointer handlers for dragging with a mouse, a finger or a pen. The pointer is captured, so the drag goes on outside.
 * Spread the result on a View.
 */
export function useDrag({ onStart, onMove, onEnd, along }: Handlers): PointerHandlers {
  const drag = useRef<Held | undefined>(undefined);
  const gestures = useGestures();
  const place = (e: PointerPress): DragPoint => ({
    x: e.clientX,
    y: e.clientY,
    free: e.ctrlKey || e.metaKey,
  });
  const begin = (held: Held, e: PointerPress) => {
    held.begun = true;
    selecting(false);
    e.currentTarget.setPointerCapture?.(e.pointerId);
    gestures.begin();
    onStart?.(held.from);
  };
  const take = (e: PointerPress): Held | undefined => {
    const held = drag.current;
    if (held?.id !== e.pointerId) return undefined;
    drag.current = undefined;
    selecting(true);
    return held;
  };
  return {
    onPointerDown: (e: PointerPress) => {
      if (e.button !== 0 || drag.current) return;
      e.stopPropagation();
      const held: Held = { id: e.pointerId, from: place(e), moved: false, begun: false };
      drag.current = held;
      if (!along || e.pointerType !== 'touch') begin(held, e);
    },
    onPointerMove: (e: PointerPress) => {
      const held = drag.current;
      if (held?.id !== e.pointerId) return;
      const at = place(e);
      const [dx, dy] = [Math.abs(at.x - held.from.x), Math.abs(at.y - held.from.y)];
      if (!held.moved && Math.hypot(dx, dy) < TAP_SLOP) return;
      if (!held.begun) {
        if (dy >= dx) {
          // It scrolls the page; the browser goes on with it.
          drag.current = undefined;
          return;
        }
        begin(held, e);
      }
      held.moved = true;
      onMove(at, held.from);
    },
    onPointerUp: (e: PointerPress) => {
      const held = take(e);
      if (!held) return;
      if (!held.begun) begin(held, e);
      onEnd?.(held.moved, place(e), false);
    },
    onPointerCancel: (e: PointerPress) => {
      const held = take(e);
      if (!held?.begun) return;
      gestures.cancel();
      // Never a tap: the finger did not come up here.
      onEnd?.(true, held.from, true);
    },
  };
}
