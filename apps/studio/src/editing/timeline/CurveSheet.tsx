import type { Easing } from '@fresh-reel/core';
import { CurveField } from '../../ui/CurveField';
import { Sheet } from '../../ui/Sheet';

/** The curve between two keyframes. */
export function CurveSheet({
  ease,
  onChange,
  onSettle,
  onClose,
}: {
  ease: Easing;
  onChange: (ease: Easing) => void;
  /** A handle is let go, or a curve chosen. */
  onSettle: () => void;
  onClose: () => void;
}) {
  return (
    <Sheet title="Curve to the next keyframe" onClose={onClose} testID="curve-sheet">
      <CurveField ease={ease} onChange={onChange} onSettle={onSettle} />
    </Sheet>
  );
}
