import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { Icon, type IconName } from './Icon';
import { Txt } from './Txt';
import { CORNER, colour } from './theme';

const LOOKS = {
  info: { tint: colour.blueTint, ink: colour.blue, icon: 'info' },
  done: { tint: colour.leafTint, ink: colour.leaf, icon: 'circle-check' },
  watch: { tint: colour.amberTint, ink: colour.amber, icon: 'triangle-alert' },
  fault: { tint: colour.redTint, ink: colour.red, icon: 'octagon-alert' },
} as const satisfies Record<string, { tint: string; ink: string; icon: IconName }>;

/** Something to know: what is wrong, what it means, what to do. */
export function Banner({
  kind,
  children,
  action,
  testID,
}: {
  kind: keyof typeof LOOKS;
  children: string;
  action?: ReactNode;
  testID?: string;
}) {
  const look = LOOKS[kind];
  return (
    <View
      role={kind === 'fault' ? 'alert' : 'status'}
      testID={testID}
      style={[styles.banner, { backgroundColor: look.tint }]}
    >
      <View style={styles.icon}>
        <Icon name={look.icon} tint={look.ink} />
      </View>
      <View style={styles.words}>
        <Txt>{children}</Txt>
        {action && <View style={styles.action}>{action}</View>}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  banner: { flexDirection: 'row', gap: 10, padding: 12, borderRadius: CORNER },
  icon: { paddingTop: 2 },
  words: { flex: 1, gap: 8 },
  action: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
});
