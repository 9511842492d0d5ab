import { frameOfTimecode, messageOf, type Rate, timecodeAt } from '@fresh-reel/core';
import { useLayoutEffect, useState } from 'react';
import { StyleSheet, TextInput, View } from 'react-native';
import { Txt } from '../../ui/Txt';
import { CORNER, colour, family, size, TOUCH } from '../../ui/theme';
import { webStyle } from '../../ui/web';

interface Props {
  readonly label: string;
  readonly frame: number;
  readonly rate: Rate;
  readonly onChange: (frame: number) => void;
  readonly disabled?: boolean;
  readonly testID: string;
}

/** A time as timecode, typed; Enter or leaving it takes it. */
export function TimeField({ label, frame, rate, onChange, disabled = false, testID }: Props) {
  const shown = timecodeAt(frame, rate);
  const [typed, setTyped] = useState(shown);
  const [fault, setFault] = useState<string>();
  // Before anything else can happen to the field: leaving it must not take what it held before.
  useLayoutEffect(() => {
    setTyped(shown);
    setFault(undefined);
  }, [shown]);
  const take = () => {
    if (typed.trim() === shown) return;
    try {
      onChange(frameOfTimecode(typed, rate));
      setFault(undefined);
      setTyped(shown);
    } catch (error) {
      setFault(messageOf(error));
    }
  };
  return (
    <View style={styles.all}>
      <Txt kind="small" tone="quiet">
        {label}
      </Txt>
      <TextInput
        aria-label={label}
        value={typed}
        onChangeText={setTyped}
        onBlur={take}
        onSubmitEditing={take}
        editable={!disabled}
        testID={testID}
        style={styles.input}
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
  all: { gap: 2, flexGrow: 1, flexBasis: 130, maxWidth: 190 },
  input: webStyle({
    height: TOUCH,
    paddingHorizontal: 10,
    borderWidth: 1,
    borderColor: colour.edge,
    borderRadius: CORNER,
    backgroundColor: colour.card,
    fontFamily: family.text,
    fontSize: size.body,
    color: colour.ink,
    fontVariant: ['tabular-nums'],
  }),
});
