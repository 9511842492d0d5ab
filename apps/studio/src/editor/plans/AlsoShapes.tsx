import { type FrameShape, frameShape } from '@fresh-reel/core';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { AlsoToggles } from './AlsoToggles';

const SHAPES: readonly { id: FrameShape; name: string }[] = [
  { id: 'wide', name: 'Also wide' },
  { id: 'tall', name: 'Also tall' },
  { id: 'square', name: 'Also square' },
];

interface Props {
  readonly shapes: readonly FrameShape[];
  readonly onShapes: (shapes: readonly FrameShape[]) => void;
  /** What the test IDs of its switches begin with. */
  readonly testID: string;
}

/** Frame shapes that are rendered besides the reel's own. */
export function AlsoShapes({ shapes, onShapes, testID }: Props) {
  const { reel } = useReelEditor();
  const own = frameShape(reel.frame);
  const others = SHAPES.filter((s) => s.id !== own);
  return <AlsoToggles options={others} chosen={shapes} onChosen={onShapes} testID={testID} />;
}
