import { useRef } from 'react';

/** A pointer's place, in page pixels. */
export interface DragPoint {
  readonly x: number;
  readonly y: number;
}

interface Handlers {
  readonly onStart?: (at: DragPoint) => void;
  readonly onMove: (at: DragPoint, from: DragPoint) => void;
  /** `moved` tells a drag from a tap. */
  readonly onEnd?: (moved: boolean, at: DragPoint) => void;
}

const TAP_SLOP = 4;

interface PointerLike {
  readonly clientX: number;
  readonly clientY: number;
  readonly pointerId: number;
  readonly button: number;
  readonly currentTarget: { setPointerCapture?(id: number): void };
  stopPropagation(): void;
}

/**
 * Pointer handlers for dragging with a mouse, a finger or a pen. The pointer is captured, so the drag goes on outside.
 * Spread the result on a View.
 */
export function useDrag({ onStart, onMove, onEnd }: Handlers): object {
  const drag = useRef<{ id: number; from: DragPoint; moved: boolean } | undefined>(undefined);
  const place = (e: PointerLike): DragPoint => ({ x: e.clientX, y: e.clientY });
  const finish = (e: PointerLike) => {
    const held = drag.current;
    if (held?.id !== e.pointerId) return;
    drag.current = undefined;
    onEnd?.(held.moved, place(e));
  };
  return {
    onPointerDown: (e: PointerLike) => {
      if (e.button !== 0 || drag.current) return;
      e.stopPropagation();
      e.currentTarget.setPointerCapture?.(e.pointerId);
      drag.current = { id: e.pointerId, from: place(e), moved: false };
      onStart?.(place(e));
    },
    onPointerMove: (e: PointerLike) => {
      const held = drag.current;
      if (held?.id !== e.pointerId) return;
      const at = place(e);
      if (!held.moved && Math.hypot(at.x - held.from.x, at.y - held.from.y) < TAP_SLOP) return;
      held.moved = true;
      onMove(at, held.from);
    },
    onPointerUp: finish,
    onPointerCancel: finish,
  };
}
