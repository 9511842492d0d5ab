import {
  faultOfControlName,
  keyOf,
  makeAdjustable,
  type Place,
  partName,
  partsToAdjust,
  proposedName,
  subjectOf,
  type WhichPart,
} from '@fresh-reel/core/make';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Field } from '../../ui/Field';
import { Sheet } from '../../ui/Sheet';
import { useToast } from '../../ui/Toast';
import { Txt } from '../../ui/Txt';
import { useMade } from '../work/useWork';

/** Makes a value adjustable: which part of it, under which name, in which group. */
export function AdjustableSheet({ place, onClose }: { place: Place; onClose: () => void }) {
  const { template, make, makePart } = useMade();
  const toast = useToast();
  const parts = partsToAdjust(template, place);
  const [which, setWhich] = useState<WhichPart | undefined>(parts[0]);
  const subject = subjectOf(template, place, which);
  const [typed, setTyped] = useState<string>();
  const name = typed ?? '';
  const groups = [...new Set(template.controls.map((c) => c.group))];
  const [group, setGroup] = useState(groups[0] ?? 'Settings');
  const [asked, setAsked] = useState(false);
  const fault = faultOfControlName(template, name, subject);
  const proposal = proposedName(template, subject);
  const keep = () => {
    setAsked(true);
    if (fault) return;
    const by = (t: typeof template) =>
      makeAdjustable(t, place, { name, group, ...(which === undefined ? {} : { which }) }).template;
    const done = place.of === 'template' ? make(by) : makePart(place.of.layer, by);
    if (!done) return;
    onClose();
    toast({ text: `“${name.trim()}” is a control now. Its range and default are under Controls.` });
  };
  return (
    <Sheet title="Make it adjustable" onClose={onClose} testID="adjustable-sheet">
      {parts.length > 0 && (
        <Choice
          label="Which part of it"
          value={String(which)}
          options={parts.map((p) => ({ id: String(p), name: nameOfWhich(p, place) }))}
          onChange={(id) => setWhich(parts.find((p) => String(p) === id))}
          testID="adjustable-which"
        />
      )}
      <Field
        label="Name that its user reads"
        value={name}
        placeholder={proposal}
        onChangeText={setTyped}
        onSubmitEditing={keep}
        fault={asked || (fault && name !== '' && name.length > 3) ? fault?.text : undefined}
        testID="adjustable-name"
      />
      {name.trim() !== proposal && (
        <View style={styles.row}>
          <Button
            title={`Call it “${proposal}”`}
            small
            onPress={() => setTyped(proposal)}
            testID="adjustable-proposal"
          />
        </View>
      )}
      <Field
        label="Group it stands in"
        value={group}
        onChangeText={setGroup}
        maxLength={80}
        testID="adjustable-group"
      />
      {groups.length > 1 && (
        <View style={styles.row}>
          {groups.map((g) => (
            <Button key={g} title={g} small onPress={() => setGroup(g)} />
          ))}
        </View>
      )}
      <Txt kind="small" tone="quiet">
        It begins with the value that is there now, so nothing changes until somebody sets it.
      </Txt>
      <View style={styles.row}>
        <Button title="Make it a control" kind="next" onPress={keep} testID="adjustable-do" />
      </View>
    </Sheet>
  );
}

function nameOfWhich(which: WhichPart, place: Place): string {
  if (which === 'point') return 'As a point on the picture';
  if (which === 'all') return 'All alike';
  const word = partName(keyOf(place), which);
  return word.charAt(0).toUpperCase() + word.slice(1);
}

const styles = StyleSheet.create({ row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 } });
