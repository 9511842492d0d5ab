import { useEffect, useState } from 'react';
import { HexColorPicker } from 'react-colorful';
import { StyleSheet, View } from 'react-native';
import { Field } from './Field';
import { Press } from './Press';
import { colour, TOUCH } from './theme';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly onSettle: () => void;
  readonly swatches: readonly string[];
}

/** A colour: picked on a field, typed as #RRGGBB, or taken from swatches at hand. */
export function ColourField({ label, value, onChange, onSettle, swatches }: Props) {
  const [typed, setTyped] = useState(value);
  useEffect(() => setTyped(value.toUpperCase()), [value]);
  const valid = /^#?[0-9a-fA-F]{6}$/.test(typed.trim());
  return (
    <View style={styles.all}>
      {/* A press begins a step; the last change of one may come after the finger is up. */}
      <View {...{ onPointerDownCapture: onSettle }}>
        <HexColorPicker
          color={value}
          onChange={(next) => onChange(next.toUpperCase())}
          style={{ width: '100%', height: 168 }}
          aria-label={label}
        />
      </View>
      <View style={styles.swatches}>
        {swatches.map((s) => (
          <Press
            key={s}
            role="button"
            aria-label={`Use ${s}`}
            onPress={() => {
              onChange(s);
              onSettle();
            }}
            style={[styles.swatch, { backgroundColor: s }, s === value && styles.chosen]}
          />
        ))}
      </View>
      <Field
        label="Colour code"
        value={typed}
        autoCapitalize="characters"
        maxLength={7}
        testID="colour-code"
        fault={valid ? undefined : 'Write six digits or letters A to F, such as #C8431C.'}
        onChangeText={(text) => {
          setTyped(text);
          const clean = text.trim().replace(/^#?/, '#').toUpperCase();
          if (/^#[0-9A-F]{6}$/.test(clean)) onChange(clean);
        }}
        onBlur={() => {
          onSettle();
          setTyped(value.toUpperCase());
        }}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: 12 },
  swatches: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
  swatch: { width: TOUCH, height: TOUCH, borderRadius: 8, borderWidth: 1, borderColor: colour.edge },
  chosen: { borderWidth: 3, borderColor: colour.ink },
});
