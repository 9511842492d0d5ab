import { type Brand, harmonies } from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { Press } from '../ui/Press';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import { CORNER, colour, TOUCH } from '../ui/theme';

interface Props {
  readonly main: string;
  readonly onChoose: (colours: Brand['colours']) => void;
  readonly onClose: () => void;
}

/** Palettes around the main colour, one of which is taken. */
export function HarmonySheet({ main, onChoose, onClose }: Props) {
  return (
    <Sheet title="Colours that go with Main" onClose={onClose} testID="harmony-sheet">
      <Txt tone="quiet">Main stays as it is. Dark words on Light can be read in all of them.</Txt>
      {harmonies(main).map(({ name, colours }) => (
        <Press
          key={name}
          role="button"
          aria-label={`${name}: take it`}
          onPress={() => onChoose(colours)}
          style={styles.one}
          testID={`harmony-${name.toLowerCase().replaceAll(' ', '-')}`}
        >
          <View style={styles.chips}>
            {Object.values(colours).map((c, i) => (
              <View key={i} style={[styles.chip, { backgroundColor: c }]} />
            ))}
          </View>
          <Txt>{name}</Txt>
        </Press>
      ))}
    </Sheet>
  );
}

const styles = StyleSheet.create({
  one: { flexDirection: 'row', alignItems: 'center', gap: 14, minHeight: TOUCH, borderRadius: CORNER },
  chips: {
    flexDirection: 'row',
    width: 180,
    height: 40,
    borderRadius: 8,
    borderWidth: 1,
    borderColor: colour.edge,
    overflow: 'hidden',
  },
  chip: { flex: 1 },
});
