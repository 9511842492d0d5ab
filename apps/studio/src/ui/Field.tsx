import { useState } from 'react';
import { StyleSheet, TextInput, type TextInputProps, View } from 'react-native';
import { Txt } from './Txt';
import { CORNER, colour, family, size, TOUCH } from './theme';

interface Props extends TextInputProps {
  readonly label: string;
  /** Shown to assistive technology only. */
  readonly hideLabel?: boolean;
  readonly fault?: string | undefined;
}

/** A field for words. */
export function Field({ label, hideLabel, fault, style, onFocus, onBlur, ...rest }: Props) {
  const [focused, setFocused] = useState(false);
  return (
    <View style={styles.field}>
      {!hideLabel && (
        <Txt kind="label" tone="quiet">
          {label}
        </Txt>
      )}
      <TextInput
        aria-label={label}
        {...(fault ? { 'aria-invalid': true } : {})}
        placeholderTextColor={colour.quiet}
        {...rest}
        onFocus={(e) => {
          setFocused(true);
          onFocus?.(e);
        }}
        onBlur={(e) => {
          setFocused(false);
          onBlur?.(e);
        }}
        style={[styles.input, focused && styles.focused, fault ? styles.faulty : null, style]}
      />
      {fault && (
        <Txt kind="small" tone="red">
          {fault}
        </Txt>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  field: { gap: 4 },
  input: {
    minHeight: TOUCH,
    borderWidth: 1,
    borderColor: colour.edge,
    borderRadius: CORNER,
    backgroundColor: colour.card,
    paddingHorizontal: 12,
    paddingVertical: 10,
    fontFamily: family.text,
    fontSize: size.body,
    lineHeight: 22,
    color: colour.ink,
  },
  focused: { outlineWidth: 2, outlineColor: colour.blue, outlineStyle: 'solid', borderColor: colour.blue },
  faulty: { borderColor: colour.red },
});
