import { StyleSheet, View } from 'react-native';
import { usePreferences, useSetPreferences } from '../../storage/queries';
import { Sheet } from '../../ui/Sheet';
import { Toggle } from '../../ui/Toggle';
import { Txt } from '../../ui/Txt';
import { colour } from '../../ui/theme';
import { keyText, type PlaceAction } from './actions';

/** Keys that are not of Place alone. */
const OTHERS = [
  ['Play and stop', 'Space'],
  ['Playhead by a frame, ten with Shift', '← →'],
  ['Playhead by a second', 'Page up, Page down'],
  ['Beginning and end, on the line', 'Home, End'],
  ['Larger and smaller, on the line', '+ and −'],
  ['All of the reel, on the line', '0'],
  ['Undo, redo', 'Ctrl + Z, Ctrl + Y'],
  ['Let go of snapping, while dragging', 'Ctrl'],
] as const;

/** Every key of Place. */
export function KeysSheet({ actions, onClose }: { actions: readonly PlaceAction[]; onClose: () => void }) {
  const { singleKeys } = usePreferences();
  const setPreferences = useSetPreferences();
  const rows = [...actions.map((a) => [a.label, a.keys.map(keyText).join(', ')] as const), ...OTHERS];
  return (
    <Sheet title="Keys" onClose={onClose} testID="keys-sheet">
      <Toggle
        label="Single letters and signs count"
        value={singleKeys}
        onChange={(on) => setPreferences({ singleKeys: on })}
        testID="single-keys"
      />
      <View role="list">
        {rows.map(([label, keys]) => (
          <View key={label} role="listitem" style={styles.row}>
            <Txt style={styles.label}>{label}</Txt>
            <Txt kind="strong">{keys}</Txt>
          </View>
        ))}
      </View>
    </Sheet>
  );
}

const styles = StyleSheet.create({
  row: {
    flexDirection: 'row',
    gap: 12,
    paddingVertical: 7,
    borderBottomWidth: 1,
    borderColor: colour.hairline,
  },
  label: { flex: 1 },
});
