import { StyleSheet } from 'react-native';
import { Icon, type IconName } from './Icon';
import { Press } from './Press';
import { Txt } from './Txt';
import { CORNER, colour, TOUCH } from './theme';

interface ButtonProps {
  readonly title: string;
  readonly onPress: () => void;
  readonly icon?: IconName;
  /** `next` is the one next thing to do; `quiet` has an edge; `plain` is words alone; `danger` destroys. */
  readonly kind?: 'next' | 'quiet' | 'plain' | 'danger';
  readonly disabled?: boolean;
  readonly testID?: string;
  readonly small?: boolean;
  readonly label?: string;
}

/** A button that says what happens. */
export function Button({
  title,
  onPress,
  icon,
  kind = 'quiet',
  disabled = false,
  testID,
  small,
  label,
}: ButtonProps) {
  const tone = kind === 'next' ? 'white' : kind === 'danger' ? 'red' : kind === 'plain' ? 'accent' : 'ink';
  return (
    <Press
      role="button"
      aria-label={label ?? title}
      aria-disabled={disabled}
      disabled={disabled}
      onPress={onPress}
      testID={testID}
      style={[styles.button, small && styles.small, styles[kind], disabled && styles.disabled]}
    >
      {icon && <Icon name={icon} tint={tone === 'white' ? colour.card : colour[tone]} />}
      <Txt kind="strong" tone={tone} numberOfLines={1}>
        {title}
      </Txt>
    </Press>
  );
}

interface IconButtonProps {
  readonly icon: IconName;
  /** What it does, for assistive technology and as a tip. */
  readonly label: string;
  readonly onPress: () => void;
  readonly disabled?: boolean;
  readonly on?: boolean;
  readonly testID?: string;
  readonly colour?: string;
  /** A word below the picture, where the picture alone is not plain. */
  readonly caption?: string;
}

/** A button with a picture alone, where room is short and the picture is plain. */
export function IconButton({
  icon,
  label,
  onPress,
  disabled = false,
  on,
  testID,
  colour: tint = colour.ink,
  caption,
}: IconButtonProps) {
  return (
    <Press
      role="button"
      aria-label={label}
      aria-disabled={disabled}
      {...(on === undefined ? {} : { 'aria-pressed': on })}
      disabled={disabled}
      onPress={onPress}
      testID={testID}
      style={[
        styles.icon,
        caption !== undefined && styles.captioned,
        on && styles.iconOn,
        disabled && styles.disabled,
      ]}
    >
      <Icon name={icon} size={21} tint={on ? colour.accent : tint} />
      {caption !== undefined && (
        <Txt kind="label" style={styles.caption} numberOfLines={1}>
          {caption}
        </Txt>
      )}
    </Press>
  );
}

const styles = StyleSheet.create({
  button: {
    minHeight: TOUCH,
    paddingHorizontal: 18,
    borderRadius: CORNER,
    flexDirection: 'row',
    alignItems: 'center',
    justifyContent: 'center',
    gap: 8,
    borderWidth: 1,
    borderColor: 'transparent',
  },
  small: { paddingHorizontal: 12 },
  next: { backgroundColor: colour.accent },
  quiet: { backgroundColor: colour.card, borderColor: colour.edge },
  plain: { paddingHorizontal: 8 },
  danger: { backgroundColor: colour.card, borderColor: colour.red },
  disabled: { opacity: 0.38 },
  icon: { width: TOUCH, height: TOUCH, borderRadius: CORNER, alignItems: 'center', justifyContent: 'center' },
  captioned: { width: 58, height: 48 },
  caption: { fontSize: 11, lineHeight: 14 },
  iconOn: { backgroundColor: colour.accentTint },
});
