import { StyleSheet, View } from 'react-native';
import { Banner } from '../../ui/Banner';
import { Button } from '../../ui/Button';
import { Txt } from '../../ui/Txt';
import { colour } from '../../ui/theme';
import { CopyCard } from './CopyCard';
import { RunCard } from './RunCard';
import type { Taking } from './useImport';

/** A file on its way in with its progress, and what was wrong with those that did not come. */
export function TakingIn({ taking }: { taking: Taking }) {
  const { coming, question, copy, faults, said, cancel, clear } = taking;
  if (!coming && !question && !copy && faults.length + said.length === 0) return null;
  const percent = coming ? Math.round(coming.part * 100) : 0;
  return (
    <View style={styles.all}>
      {question && <RunCard key={question.run.stem} {...question} />}
      {copy && <CopyCard key={copy.file.name} {...copy} />}
      {coming && (
        <View style={styles.coming} testID="import-progress">
          <View style={styles.words}>
            <Txt kind="small" numberOfLines={1} style={styles.name}>
              {coming.count > 1 ? `${coming.number} of ${coming.count}: ` : ''}
              {coming.stage ? `${coming.stage}: ` : ''}
              {coming.name}
            </Txt>
            <Txt kind="small" tone="quiet">
              {percent}%
            </Txt>
            <Button title="Stop" kind="plain" onPress={cancel} testID="import-cancel" />
          </View>
          <View
            role="progressbar"
            aria-label={`Taking in ${coming.name}`}
            aria-valuenow={percent}
            aria-valuemin={0}
            aria-valuemax={100}
            style={styles.track}
          >
            <View style={[styles.bar, { width: `${percent}%` }]} />
          </View>
        </View>
      )}
      {faults.map((fault) => (
        <Banner key={fault} kind="fault" testID="import-fault">
          {fault}
        </Banner>
      ))}
      {said.map((note) => (
        <Banner key={note} kind="info" testID="import-said">
          {note}
        </Banner>
      ))}
      {faults.length + said.length > 0 && !coming && (
        <Button title="Understood" kind="plain" onPress={clear} />
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: 8 },
  coming: { gap: 4 },
  words: { flexDirection: 'row', alignItems: 'center', gap: 10 },
  name: { flex: 1 },
  track: { height: 6, borderRadius: 3, backgroundColor: colour.hairline, overflow: 'hidden' },
  bar: { height: 6, backgroundColor: colour.leaf },
});
