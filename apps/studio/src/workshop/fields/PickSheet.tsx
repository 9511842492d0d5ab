import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from '../../ui/Button';
import { Field } from '../../ui/Field';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';

/** As many stand beside each other; more are looked for in a sheet. */
export const MOST_CHIPS = 5;
const MOST_WITHOUT_SEARCH = 12;

interface Props {
  readonly title: string;
  readonly options: readonly { readonly id: string; readonly name: string; readonly about?: string }[];
  readonly value?: string;
  readonly onChoose: (id: string) => void;
  readonly onClose: () => void;
}

/** One of many: typed words leave those that have them. */
export function PickSheet({ title, options, value, onChoose, onClose }: Props) {
  const [sought, setSought] = useState('');
  const shown = options.filter((o) => o.name.toLowerCase().includes(sought.trim().toLowerCase()));
  return (
    <Sheet title={title} onClose={onClose} testID="pick-sheet">
      {options.length > MOST_WITHOUT_SEARCH && (
        <Field label="Find" value={sought} onChangeText={setSought} testID="pick-find" />
      )}
      {shown.length === 0 && <Txt tone="quiet">There is nothing to choose here yet.</Txt>}
      <View style={styles.list}>
        {shown.map(({ id, name, about }) => (
          <View key={id} style={styles.row}>
            <Button
              title={name}
              kind={id === value ? 'next' : 'quiet'}
              onPress={() => onChoose(id)}
              testID={`pick-${id}`}
            />
            {about !== undefined && (
              <Txt kind="small" tone="quiet" style={styles.about}>
                {about}
              </Txt>
            )}
          </View>
        ))}
      </View>
    </Sheet>
  );
}

const styles = StyleSheet.create({
  list: { gap: 8 },
  row: { flexDirection: 'row', alignItems: 'center', gap: 10 },
  about: { flex: 1 },
});
