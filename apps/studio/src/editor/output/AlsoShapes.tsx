import { type FrameShape, frameShape } from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { Toggle } from '../../ui/Toggle';
import { useReelEditor } from '../session/useReelEditor';

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
  return (
    <View style={styles.shapes}>
      {SHAPES.filter((s) => s.id !== frameShape(reel.frame)).map(({ id, name }) => (
        <Toggle
          key={id}
          label={name}
          value={shapes.includes(id)}
          onChange={(on) => onShapes(on ? [...shapes, id] : shapes.filter((s) => s !== id))}
          testID={`${testID}-${id}`}
        />
      ))}
    </View>
  );
}

const styles = StyleSheet.create({ shapes: { flexDirection: 'row', flexWrap: 'wrap', gap: 16 } });
