import { StyleSheet, View } from 'react-native';
import { useRemoved, useRemovedChange } from '../storage/queries';
import { DAYS_KEPT, purge, putBack, type Removed } from '../storage/removed';
import { Button } from '../ui/Button';
import { Txt } from '../ui/Txt';
import { CORNER, colour } from '../ui/theme';

interface Props {
  readonly kind: Removed['kind'];
  readonly title: string;
  readonly onFault: (message: string) => void;
}

/** What was deleted and is still here: put back, or deleted for good. Nothing, when there is none. */
export function RemovedList({ kind, title, onFault }: Props) {
  const { data = [] } = useRemoved();
  const back = useRemovedChange(putBack);
  const forGood = useRemovedChange((removed: Removed) => purge([removed]));
  const all = data.filter((r) => r.kind === kind);
  if (all.length === 0) return null;
  const told = { onError: (error: Error) => onFault(error.message) };
  return (
    <View style={styles.all} testID={`removed-${kind}`}>
      <Txt kind="lead" level={2}>
        {title}
      </Txt>
      <Txt kind="small" tone="quiet">
        {`They stay here for ${DAYS_KEPT} days, or until their room is needed.`}
      </Txt>
      {all.map((removed) => (
        <View key={removed.id} style={styles.row} testID={`removed-${removed.id}`}>
          <View style={styles.words}>
            <Txt numberOfLines={1}>{removed.name}</Txt>
            <Txt kind="small" tone="quiet">
              {`Deleted on ${new Date(removed.removed).toLocaleDateString()}`}
            </Txt>
          </View>
          <View style={styles.ways}>
            <Button
              title="Put back"
              label={`Put back ${removed.name}`}
              small
              onPress={() => back.mutate(removed, told)}
              testID={`put-back-${removed.id}`}
            />
            <Button
              title="Delete for good"
              label={`Delete for good: ${removed.name}`}
              small
              kind="danger"
              onPress={() => forGood.mutate(removed, told)}
              testID={`purge-${removed.id}`}
            />
          </View>
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  // What is said below for a while covers nothing of it.
  all: { gap: 8, paddingTop: 32, paddingBottom: 96 },
  row: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    alignItems: 'center',
    gap: 8,
    padding: 10,
    borderRadius: CORNER,
    borderWidth: 1,
    borderColor: colour.hairline,
  },
  words: { flexGrow: 1, flexBasis: 220, flexShrink: 1 },
  ways: { flexDirection: 'row', gap: 8 },
});
