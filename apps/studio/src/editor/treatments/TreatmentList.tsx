import {
  addTreatment,
  effectsOnSlot,
  moveTreatment,
  removeTreatment,
  switchTemplateEffect,
  switchTreatment,
  TREATMENTS,
  type Treated,
  type Treatment,
  type TreatmentKind,
  treatmentsOf,
} from '@fresh-reel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useAttempt } from '../../editing/session/useAttempt';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { Button, IconButton } from '../../ui/Button';
import { Sheet } from '../../ui/Sheet';
import { Toggle } from '../../ui/Toggle';
import { Txt } from '../../ui/Txt';
import { colour } from '../../ui/theme';
import { TreatmentValue } from './TreatmentValue';

const KINDS = Object.keys(TREATMENTS) as TreatmentKind[];

/** Effects of templates that are no treatments, by name. */
const OTHERS: Readonly<Record<string, string>> = {
  shadow: 'Shadow',
  frost: 'Frosted glass',
  tear: 'Torn bands',
};
const effectName = (effect: string) => TREATMENTS[effect as TreatmentKind]?.name ?? OTHERS[effect] ?? effect;

/**
 * What is done to how an item or the content of a slot looks: a list, from the first to the last, each off and on.
 * @param inside whether it keeps its edge when it is blurred
 */
export function TreatmentList({ of, inside }: { of: Treated; inside: boolean }) {
  const { reel, mayEdit } = useReelEditor();
  const attempt = useAttempt();
  const [choosing, setChoosing] = useState(false);
  const list = treatmentsOf(reel, of);
  return (
    <View style={styles.all} testID="treatments">
      <View style={styles.head}>
        <Txt kind="strong" style={styles.name}>
          Treatments
        </Txt>
        <Button
          title="Add one"
          label="Add one: a treatment"
          icon="plus"
          small
          disabled={!mayEdit}
          onPress={() => setChoosing(true)}
          testID="add-treatment"
        />
      </View>
      {of.kind === 'slot' && <FromTemplate of={of} />}
      {list.map((treatment, i) => (
        <TreatmentRow
          key={treatment.id}
          of={of}
          treatment={treatment}
          first={i === 0}
          last={i === list.length - 1}
        />
      ))}
      {choosing && (
        <Sheet title="Add a treatment" onClose={() => setChoosing(false)} testID="treatment-sheet">
          <View style={styles.kinds}>
            {KINDS.map((kind) => (
              <Button
                key={kind}
                title={TREATMENTS[kind].name}
                onPress={() => {
                  setChoosing(false);
                  attempt((r) => addTreatment(r, of, kind, inside));
                }}
                testID={`treatment-kind-${kind}`}
              />
            ))}
          </View>
        </Sheet>
      )}
    </View>
  );
}

/** What the template has put on the slot: each can be switched off. */
function FromTemplate({ of }: { of: Treated & { kind: 'slot' } }) {
  const { work } = useReelEditor();
  const attempt = useAttempt();
  const effects = work ? effectsOnSlot(work.graphic.template, of.slot) : [];
  const plain = of.shown.plain ?? [];
  return effects.map(({ key, layer, effect }) => (
    <View key={key} style={styles.row}>
      <Toggle
        label={`${effectName(effect)} of the template, on “${layer}”`}
        value={!plain.includes(key)}
        onChange={(on) => attempt((r) => switchTemplateEffect(r, of, key, on))}
        testID={`template-effect-${key.replace('/', '-')}`}
      />
    </View>
  ));
}

interface RowProps {
  readonly of: Treated;
  readonly treatment: Treatment;
  readonly first: boolean;
  readonly last: boolean;
}

function TreatmentRow({ of, treatment, first, last }: RowProps) {
  const { mayEdit } = useReelEditor();
  const attempt = useAttempt();
  const { id, effect, off } = treatment;
  const { name, fields } = TREATMENTS[effect];
  return (
    <View style={styles.row} testID={`treatment-${id}`}>
      <View style={styles.head}>
        <View style={styles.name}>
          <Toggle
            label={name}
            value={!off}
            onChange={(on) => attempt((r) => switchTreatment(r, of, id, on))}
            testID={`treatment-on-${id}`}
          />
        </View>
        <IconButton
          icon="arrow-up"
          label={`${name}: one earlier`}
          disabled={!mayEdit || first}
          onPress={() => attempt((r) => moveTreatment(r, of, id, -1))}
          testID={`treatment-earlier-${id}`}
        />
        <IconButton
          icon="arrow-down"
          label={`${name}: one later`}
          disabled={!mayEdit || last}
          onPress={() => attempt((r) => moveTreatment(r, of, id, 1))}
          testID={`treatment-later-${id}`}
        />
        <IconButton
          icon="trash"
          label={`Take ${name} away`}
          disabled={!mayEdit}
          onPress={() => attempt((r) => removeTreatment(r, of, id))}
          testID={`treatment-remove-${id}`}
        />
      </View>
      {!off &&
        fields.map((field) => <TreatmentValue key={field.key} of={of} treatment={treatment} field={field} />)}
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: 8 },
  head: { flexDirection: 'row', alignItems: 'center', gap: 4 },
  name: { flex: 1 },
  row: { gap: 6, borderTopWidth: 1, borderTopColor: colour.hairline, paddingTop: 6 },
  kinds: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
});
