import { StyleSheet } from 'react-native';
import { Radio, RadioGroup } from './RadioGroup';
import { Txt } from './Txt';
import { CORNER, colour, TOUCH } from './theme';

interface Props<T extends string> {
  readonly label: string;
  readonly options: readonly { readonly id: T; readonly name: string }[];
  readonly value: T | undefined;
  readonly onChange: (value: T) => void;
  readonly testID?: string;
  /** They never break into a second row: what holds them scrolls. */
  readonly oneRow?: boolean;
}

/** One of a few, all in view. */
export function Choice<T extends string>({ label, options, value, onChange, testID, oneRow }: Props<T>) {
  return (
    <RadioGroup
      label={label}
      ids={options.map((o) => o.id)}
      value={value}
      onChange={(id) => onChange(id as T)}
      style={[styles.row, oneRow && styles.oneRow]}
      testID={testID}
    >
      {options.map(({ id, name }) => {
        const chosen = id === value;
        return (
          <Radio
            key={id}
            id={id}
            label={name}
            testID={testID ? `${testID}-${id}` : undefined}
            style={[styles.option, chosen && styles.chosen]}
          >
            <Txt kind="strong" tone={chosen ? 'white' : 'ink'} numberOfLines={1}>
              {name}
            </Txt>
          </Radio>
        );
      })}
    </RadioGroup>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
  oneRow: { flexWrap: 'nowrap' },
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
