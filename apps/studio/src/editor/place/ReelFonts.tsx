import { familiesOf, itemOf, swapFamily } from '@fresh-reel/core';
import { useMemo } from 'react';
import { StyleSheet, View } from 'react-native';
import { useAttempt } from '../../editing/session/useAttempt';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { FontField } from '../../fonts/FontField';
import { useMissing } from '../../media/useMissing';
import { Txt } from '../../ui/Txt';
import { nameOf } from './itemWords';

/** Every font family of the reel, the missing ones first: where it shows, and another for it everywhere. */
export function ReelFonts() {
  const { reel } = useReelEditor();
  const attempt = useAttempt();
  const { families: missing } = useMissing(reel);
  const families = useMemo(() => [...familiesOf(reel)], [reel]);
  if (families.length === 0) return null;
  const isMissing = (family: string) => missing.includes(family);
  const ordered = [...families].sort(([a], [b]) => Number(isMissing(b)) - Number(isMissing(a)));
  return (
    <View style={styles.all} testID="reel-fonts">
      <Txt kind="lead" level={2}>
        Fonts of this reel
      </Txt>
      {ordered.map(([family, ids]) => (
        <View key={family} style={styles.one}>
          <FontField
            name={isMissing(family) ? `${family} is missing` : 'Set everywhere in'}
            value={family}
            onChange={(to) => to !== family && attempt((r) => swapFamily(r, family, to))}
            testID={`reel-font-${family}`}
          />
          <Txt kind="small" tone={isMissing(family) ? 'amber' : 'quiet'}>
            {`In ${ids
              .slice(0, 3)
              .map((id) => nameOf(reel, itemOf(reel, id)!.item))
              .join(', ')}${ids.length > 3 ? `, and ${ids.length - 3} more` : ''}`}
          </Txt>
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({ all: { gap: 10, marginTop: 8 }, one: { gap: 4 } });
