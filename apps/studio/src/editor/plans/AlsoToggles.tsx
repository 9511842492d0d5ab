import { StyleSheet, View } from 'react-native';
import { Toggle } from '../../ui/Toggle';

interface Props<T extends string> {
  readonly options: readonly { readonly id: T; readonly name: string }[];
  readonly chosen: readonly T[];
  readonly onChosen: (chosen: readonly T[]) => void;
  /** What the test IDs of its switches begin with. */
  readonly testID: string;
}

/** What something is also rendered in, besides as it is. */
export function AlsoToggles<T extends string>({ options, chosen, onChosen, testID }: Props<T>) {
  return (
    <View style={styles.all}>
      {options.map(({ id, name }) => (
        <Toggle
          key={id}
          label={name}
          value={chosen.includes(id)}
          onChange={(on) => onChosen(on ? [...chosen, id] : chosen.filter((held) => held !== id))}
          testID={`${testID}-${id}`}
        />
      ))}
    </View>
  );
}

const styles = StyleSheet.create({ all: { flexDirection: 'row', flexWrap: 'wrap', gap: 16 } });
