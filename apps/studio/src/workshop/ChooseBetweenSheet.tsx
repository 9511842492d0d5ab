import { chooseBetween, nameOfPart, partOf } from '@fresh-reel/core/make';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import { useWork } from './work/useWork';

/** A choice that shows one of the chosen parts and hides the others. */
export function ChooseBetweenSheet({ onClose }: { onClose: () => void }) {
  const { template, chosen, make } = useWork();
  const [name, setName] = useState('');
  const sets = chosen.map((id) => ({ name: nameOfPart(partOf(template, id)), parts: [id] }));
  const keep = () => {
    if (make((t) => chooseBetween(t, name, sets).template)) onClose();
  };
  return (
    <Sheet title="A choice shows one of them" onClose={onClose} testID="between-sheet">
      <Txt tone="quiet">{`One of these shows, the others do not: ${sets.map((s) => s.name).join(', ')}. The first is the default.`}</Txt>
      <Field
        label="Name of the choice"
        placeholder="Which badge shows"
        value={name}
        onChangeText={setName}
        onSubmitEditing={keep}
        maxLength={80}
        testID="between-name"
      />
      <View style={styles.row}>
        <Button title="Make the choice" kind="next" onPress={keep} testID="between-do" />
      </View>
    </Sheet>
  );
}

const styles = StyleSheet.create({ row: { flexDirection: 'row' } });
