import { type ReactNode, useState } from 'react';
import { Pressable, type PressableProps, type StyleProp, StyleSheet, type ViewStyle } from 'react-native';
import { colour } from './theme';

interface Props extends Omit<PressableProps, 'style' | 'children'> {
  readonly style?: StyleProp<ViewStyle>;
  readonly pressedStyle?: StyleProp<ViewStyle>;
  readonly children?: ReactNode;
}

/** Anything that can be pressed: shows focus from the keyboard, and that it is pressed. */
export function Press({ style, pressedStyle, children, onFocus, onBlur, ...rest }: Props) {
  const [focused, setFocused] = useState(false);
  return (
    <Pressable
      {...rest}
      onFocus={(event) => {
        const element = event.target as unknown as { matches?: (s: string) => boolean };
        setFocused(element.matches?.(':focus-visible') ?? true);
        onFocus?.(event);
      }}
      onBlur={(event) => {
        setFocused(false);
        onBlur?.(event);
      }}
      style={({ pressed }) => [style, pressed && (pressedStyle ?? styles.pressed), focused && styles.focused]}
    >
      {children}
    </Pressable>
  );
}

const styles = StyleSheet.create({
  pressed: { opacity: 0.72 },
  focused: { outlineWidth: 3, outlineColor: colour.blue, outlineStyle: 'solid', outlineOffset: 2 },
});
