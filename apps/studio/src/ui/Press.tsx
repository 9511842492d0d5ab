import { type ReactNode, useState } from 'react';
import {
  type GestureResponderEvent,
  Pressable,
  type PressableProps,
  type StyleProp,
  StyleSheet,
  type ViewStyle,
} from 'react-native';
import { colour } from './theme';
import { onKeys, webProps } from './web';

interface Props extends Omit<PressableProps, 'style' | 'children'> {
  readonly style?: StyleProp<ViewStyle>;
  readonly pressedStyle?: StyleProp<ViewStyle>;
  readonly children?: ReactNode;
}

/** Anything that can be pressed: shows focus from the keyboard, and that it is pressed. */
export function Press({ style, pressedStyle, children, onFocus, onBlur, role, ...rest }: Props) {
  const [focused, setFocused] = useState(false);
  // Buttons take the space bar by themselves, links never do; it must not scroll the page.
  const keys = onKeys((key) => key === ' ' && SPACED.has(role ?? '') && press(rest));
  return (
    <Pressable
      {...rest}
      {...(SPACED.has(role ?? '') ? webProps(keys) : {})}
      {...(role ? { role } : {})}
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

/** Roles that the space bar chooses or switches. */
const SPACED: ReadonlySet<string> = new Set(['radio', 'switch', 'checkbox', 'tab']);

function press({ onPress, disabled }: Pick<PressableProps, 'onPress' | 'disabled'>): true {
  if (!disabled) onPress?.({} as GestureResponderEvent);
  return true;
}

const styles = StyleSheet.create({
  pressed: { opacity: 0.72 },
  focused: { outlineWidth: 3, outlineColor: colour.blue, outlineStyle: 'solid', outlineOffset: 2 },
});
