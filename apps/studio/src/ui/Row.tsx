import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { Icon } from './Icon';
import { Press } from './Press';
import { Txt } from './Txt';
import { colour } from './theme';

interface Props {
  readonly name: string;
  /** The value it rests at, in words; shown with the way back to it once it is changed. */
  readonly rest?: string | undefined;
  readonly onReset?: (() => void) | undefined;
  readonly resetID?: string | undefined;
  /** Beside the name, at the right. */
  readonly side?: ReactNode;
  readonly children: ReactNode;
}

/** One thing that can be set: its name, the way back to its default, and its input. */
export function Row({ name, rest, onReset, resetID, side, children }: Props) {
  return (
    <View style={styles.row}>
      <View style={styles.head}>
        <Txt kind="strong" style={styles.name}>
          {name}
        </Txt>
        {onReset && (
          <Press
            role="button"
            aria-label={`Put ${name} back${rest ? ` to ${rest}` : ''}`}
            onPress={onReset}
            testID={resetID}
            style={styles.reset}
          >
            {rest && (
              <Txt kind="small" tone="quiet" numberOfLines={1}>
                {rest}
              </Txt>
            )}
            <Icon name="rotate-ccw" size={17} tint={colour.ink} />
          </Press>
        )}
        {side}
      </View>
      {children}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { gap: 2 },
  head: { flexDirection: 'row', alignItems: 'center', minHeight: 32, gap: 4 },
  name: { flex: 1 },
  reset: {
    minHeight: 44,
    minWidth: 44,
    paddingHorizontal: 10,
    marginVertical: -6,
    flexDirection: 'row',
    alignItems: 'center',
    justifyContent: 'flex-end',
    gap: 6,
    borderRadius: 8,
  },
});
