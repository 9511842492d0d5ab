import { useRef } from 'react';
import type { PointerHandlers, PointerPress } from './web';

type Pair = readonly [number, number];

/** Two fingers on the same view: how much farther apart, and turned by how many degrees, since they came. */
export function usePinch(on: {
  begin: () => void;
  change: (scale: number, turn: number) => void;
  end: () => void;
}) {
  const fingers = useRef(new Map<number, Pair>());
  const first = useRef<{ reach: number; angle: number } | undefined>(undefined);
  const used = useRef(false);
  const measure = () => {
    const [a, b] = [...fingers.current.values()] as [Pair, Pair];
    return {
      reach: Math.hypot(b[0] - a[0], b[1] - a[1]),
      angle: (Math.atan2(b[1] - a[1], b[0] - a[0]) * 180) / Math.PI,
    };
  };
  type Handler = (e: PointerPress) => void;
  return {
    active: () => first.current !== undefined,
    /** Whether two fingers were down since the first one came. */
    used: () => used.current,
    /** Wraps a drag's handlers, which see one finger only. */
    handlers: (one: PointerHandlers): PointerHandlers => {
      const gone: Handler = (e) => {
        fingers.current.delete(e.pointerId);
        if (first.current && fingers.current.size < 2) {
          first.current = undefined;
          on.end();
        }
      };
      return {
        onPointerDown: (e: PointerPress) => {
          fingers.current.set(e.pointerId, [e.clientX, e.clientY]);
          used.current = fingers.current.size > 1;
          if (fingers.current.size === 2) {
            on.begin();
            first.current = measure();
          }
          one.onPointerDown(e);
          // The second finger, which the drag leaves alone, is held here all the same.
          e.stopPropagation();
          e.currentTarget.setPointerCapture?.(e.pointerId);
        },
        onPointerMove: (e: PointerPress) => {
          if (fingers.current.has(e.pointerId)) fingers.current.set(e.pointerId, [e.clientX, e.clientY]);
          if (first.current && fingers.current.size === 2) {
            const now = measure();
            on.change(now.reach / Math.max(1, first.current.reach), now.angle - first.current.angle);
          } else one.onPointerMove(e);
        },
        onPointerUp: (e: PointerPress) => {
          gone(e);
          one.onPointerUp(e);
        },
        onPointerCancel: (e: PointerPress) => {
          gone(e);
          one.onPointerCancel(e);
        },
      };
    },
  };
}
