import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { Press } from './Press';
import { CORNER, colour } from './theme';

interface Props {
  readonly open: boolean;
  readonly onTurn: () => void;
  /** What stands in its first line, which opens and closes it. */
  readonly head: ReactNode;
  /** Beside that, at the right. */
  readonly side?: ReactNode;
  readonly children: ReactNode;
  readonly testID?: string;
  /** Of the line that opens it. */
  readonly openID: string;
}

/** A card that opens to all there is of one thing. */
export function Fold({ open, onTurn, head, side, children, testID, openID }: Props) {
  return (
    <View style={styles.card} testID={testID}>
      <View style={styles.line}>
        <Press role="button" aria-expanded={open} onPress={onTurn} style={styles.head} testID={openID}>
          {head}
        </Press>
        {side}
      </View>
      {open && <View style={styles.inside}>{children}</View>}
    </View>
  );
}

const styles = StyleSheet.create({
  card: { borderWidth: 1, borderColor: colour.hairline, borderRadius: CORNER, backgroundColor: colour.card },
  line: { flexDirection: 'row', alignItems: 'center' },
  head: {
    flex: 1,
    minHeight: 48,
    flexDirection: 'row',
    alignItems: 'center',
    gap: 8,
    paddingHorizontal: 10,
    borderRadius: 8,
  },
  inside: { padding: 12, gap: 12, borderTopWidth: 1, borderColor: colour.hairline },
});
