import { StyleSheet, View } from 'react-native';
import { Press } from './Press';
import { Txt } from './Txt';
import { CORNER, colour, TOUCH } from './theme';

interface Props<T extends string> {
  readonly label: string;
  readonly options: readonly { readonly id: T; readonly name: string }[];
  readonly value: T | undefined;
  readonly onChange: (value: T) => void;
  readonly testID?: string;
}

/** One of a few, all in view. */
export function Choice<T extends string>({ label, options, value, onChange, testID }: Props<T>) {
  return (
    <View role="radiogroup" aria-label={label} style={styles.row} testID={testID}>
      {options.map(({ id, name }) => {
        const chosen = id === value;
        return (
          <Press
            key={id}
            role="radio"
            aria-checked={chosen}
            aria-label={name}
            onPress={() => onChange(id)}
            testID={testID ? `${testID}-${id}` : undefined}
            style={[styles.option, chosen && styles.chosen]}
          >
            <Txt kind="strong" tone={chosen ? 'white' : 'ink'} numberOfLines={1}>
              {name}
            </Txt>
          </Press>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
  option: {
    minHeight: TOUCH,
    minWidth: TOUCH,
    paddingHorizontal: 14,
    alignItems: 'center',
    justifyContent: 'center',
    borderRadius: CORNER,
    borderWidth: 1,
    borderColor: colour.edge,
    backgroundColor: colour.card,
  },
  chosen: { backgroundColor: colour.ink, borderColor: colour.ink },
});
