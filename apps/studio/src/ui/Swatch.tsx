import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { ColourField } from './ColourField';
import { Press } from './Press';
import { Sheet } from './Sheet';
import { Txt } from './Txt';
import { CORNER, colour, TOUCH } from './theme';

interface Props {
  readonly name: string;
  readonly value: string;
  readonly swatches: readonly string[];
  readonly onChange: (value: string) => void;
  readonly onSettle: () => void;
  readonly testID?: string;
}

/** A colour: a touch opens a sheet to choose it. */
export function Swatch({ name, value, swatches, onChange, onSettle, testID }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Press
        role="button"
        aria-label={`${name}, ${value}. Change`}
        onPress={() => setOpen(true)}
        style={styles.colour}
        testID={testID}
      >
        <View style={[styles.swatch, { backgroundColor: value }]} />
        <Txt style={styles.figures}>{value.toUpperCase()}</Txt>
      </Press>
      {open && (
        <Sheet
          title={name}
          onClose={() => {
            onSettle();
            setOpen(false);
          }}
          testID="colour-sheet"
        >
          <ColourField
            label={name}
            value={value}
            onChange={onChange}
            onSettle={onSettle}
            swatches={[...swatches]}
          />
        </Sheet>
      )}
    </>
  );
}

const styles = StyleSheet.create({
  colour: { flexDirection: 'row', alignItems: 'center', gap: 12, minHeight: TOUCH, borderRadius: CORNER },
  swatch: { width: 64, height: 36, borderRadius: 8, borderWidth: 1, borderColor: colour.edge },
  figures: { fontVariant: ['tabular-nums'] },
});
