import { extendPath, isSmooth, removePoint, smoothPoint } from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { Button } from '../../ui/Button';
import { Txt } from '../../ui/Txt';
import { type PathTarget, useDesk } from '../session/desk';
import { usePathPoint } from '../session/pathPoint';
import { type DrawnPath, usePath } from '../session/usePath';
import { useReelEditor } from '../session/useReelEditor';

interface Props {
  readonly target: PathTarget;
  readonly drawn: DrawnPath | undefined;
  readonly testID: string;
}

/** A path of a graphic, drawn on the picture. */
export function PathField({ target, testID }: Omit<Props, 'drawn'>) {
  return <DrawnPathField target={target} drawn={usePath(target)} testID={testID} />;
}

/** A path drawn on the picture: turns its handles on, and changes the point that is chosen there. */
export function DrawnPathField({ target, drawn: held, testID }: Props) {
  const { path: shown, choosePath } = useDesk();
  const { settle } = useReelEditor();
  const { point, choosePoint, apart, setApart } = usePathPoint();
  const on = JSON.stringify(shown) === JSON.stringify(target);
  if (!held) return null;
  const { path, put } = held;
  const chosen = on && point !== undefined ? path.points[point] : undefined;
  const change = (next: typeof path, index?: number) => {
    put(next);
    settle();
    if (index !== undefined) choosePoint(index);
  };
  return (
    <View style={styles.all} testID={testID}>
      <View style={styles.row}>
        <Button
          title={on ? 'Done drawing' : 'Draw on the picture'}
          icon={on ? 'check' : 'pen-line'}
          small
          onPress={() => {
            choosePath(on ? undefined : target);
            choosePoint(on ? undefined : 0);
          }}
          testID={`${testID}-draw`}
        />
        {on && (
          <Button
            title="Add at the end"
            icon="plus"
            small
            onPress={() => {
              const { path: longer, index } = extendPath(path);
              change(longer, index);
            }}
            testID={`${testID}-add`}
          />
        )}
      </View>
      {on && (
        <Txt kind="small" tone="quiet">
          Drag points and their handles. Touch the line between two points to add one there.
        </Txt>
      )}
      {chosen && point !== undefined && (
        <View style={styles.row}>
          <Button
            title={isSmooth(chosen) ? 'Make a corner' : 'Make smooth'}
            small
            onPress={() => change(smoothPoint(path, point, !isSmooth(chosen)))}
            testID={`${testID}-smooth`}
          />
          <Button
            title={apart ? 'Handles move together' : 'Handles move apart'}
            small
            onPress={() => setApart(!apart)}
            testID={`${testID}-apart`}
          />
          <Button
            title="Remove the point"
            icon="trash"
            small
            disabled={path.points.length <= 1}
            onPress={() => change(removePoint(path, point), Math.max(0, point - 1))}
            testID={`${testID}-remove`}
          />
        </View>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: 8 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
});
