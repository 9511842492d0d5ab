import { type Brand, keyOfUse, type Reel, type ReelUse, reelUses } from '@fresh-reel/core';
import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from '../../ui/Button';
import { Press } from '../../ui/Press';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';
import { CORNER, colour } from '../../ui/theme';
import type { ReadTable } from './useTable';

interface Props {
  readonly reel: Reel;
  /** Those that rows may wear. */
  readonly brands: readonly Brand[];
  readonly read: ReadTable;
  readonly onChoose: (column: number, use: ReelUse | undefined) => void;
}

/** What each column fills, found by its name and put right by hand. */
export function ColumnRows({ reel, brands, read, onChoose }: Props) {
  const [asked, setAsked] = useState<number>();
  const offered = useMemo(() => reelUses(reel, brands), [reel, brands]);
  const nameOf = (use: ReelUse | undefined) =>
    use ? (offered.find((o) => keyOfUse(o.use) === keyOfUse(use))?.name ?? '') : 'nothing';
  const taken = new Set(read.uses.flatMap((use) => (use ? [keyOfUse(use)] : [])));
  const choose = (use: ReelUse | undefined) => {
    onChoose(asked!, use);
    setAsked(undefined);
  };
  return (
    <View style={styles.all}>
      {read.table.columns.map((column, i) =>
        column === '' ? null : (
          <View key={column} style={styles.row}>
            <Txt kind="small" style={styles.name} numberOfLines={1}>
              {column}
            </Txt>
            <Button
              title={`fills ${nameOf(read.uses[i])}`}
              small
              kind={read.uses[i] ? 'quiet' : 'plain'}
              onPress={() => setAsked(i)}
              testID={`column-${i + 1}`}
            />
          </View>
        ),
      )}
      {asked !== undefined && (
        <Sheet
          title={`What does “${read.table.columns[asked]}” fill?`}
          onClose={() => setAsked(undefined)}
          testID="column-sheet"
        >
          <View style={styles.uses}>
            <Use name="Nothing" onPress={() => choose(undefined)} testID="use-nothing" />
            {offered
              .filter(({ use }) => !taken.has(keyOfUse(use)))
              .map(({ use, name }) => (
                <Use
                  key={keyOfUse(use)}
                  name={name}
                  onPress={() => choose(use)}
                  testID={`use-${keyOfUse(use)}`}
                />
              ))}
          </View>
        </Sheet>
      )}
    </View>
  );
}

const Use = ({ name, ...rest }: { name: string; onPress: () => void; testID: string }) => (
  <Press role="button" aria-label={name} style={styles.use} {...rest}>
    <Txt>{name}</Txt>
  </Press>
);

const styles = StyleSheet.create({
  all: { gap: 6 },
  row: { flexDirection: 'row', alignItems: 'center', gap: 10 },
  name: { width: 120 },
  uses: { gap: 6, paddingBottom: 16 },
  use: {
    padding: 10,
    borderWidth: 1,
    borderColor: colour.hairline,
    borderRadius: CORNER,
    backgroundColor: colour.card,
  },
});
