import type { Slot } from '@fresh-reel/core';
import {
  addSoundSlot,
  fieldsOfTemplate,
  partsWithSlot,
  removeSlot,
  shownBy,
  TRIES,
} from '@fresh-reel/core/make';
import { StyleSheet, View } from 'react-native';
import { useDesk } from '../editing/session/desk';
import { useGraphicEditor } from '../editing/session/useReelEditor';
import { SLOT_KIND } from '../templates/slots';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Fold } from '../ui/Fold';
import { Icon } from '../ui/Icon';
import { Part } from '../ui/Part';
import { Txt } from '../ui/Txt';
import { FieldRow, fieldsNamed } from './fields/FieldRows';
import { useMade, useWork } from './work/useWork';

/** What the user puts in: each slot with its rules, tried at once; and the lines that show where things should sit. */
export function SlotsTab({
  shown,
  onShow,
}: {
  shown: string | undefined;
  onShow: (id: string | undefined) => void;
}) {
  const { template, make } = useMade();
  const addSound = () => {
    let added: string | undefined;
    const done = make((t) => {
      const next = addSoundSlot(t, 'Sound');
      added = next.slot;
      return next.template;
    });
    if (done) onShow(added);
  };
  return (
    <View style={styles.all} testID="slots-list">
      {template.slots.length === 0 && (
        <Txt tone="quiet">
          There is nothing to fill yet. Add a picture, or choose words and touch “Make it a slot”.
        </Txt>
      )}
      {template.slots.map((slot, i) => (
        <SlotCard
          key={slot.id}
          slot={slot}
          index={i}
          open={shown === slot.id}
          onOpen={() => onShow(shown === slot.id ? undefined : slot.id)}
        />
      ))}
      <View style={styles.row}>
        <Button title="Add a sound" icon="music" small onPress={addSound} testID="add-sound" />
      </View>
      <Part title="Maker’s guides">
        <Txt kind="small" tone="quiet">
          Lines and boxes that show while one fills how large and where something should sit. They are never
          rendered.
        </Txt>
        {fieldsNamed(fieldsOfTemplate(), ['guidelines']).map((field) => (
          <FieldRow
            key={field.key}
            place={{ of: 'template', path: [field.key] }}
            field={field}
            name="Lines and boxes"
          />
        ))}
      </Part>
    </View>
  );
}

interface CardProps {
  readonly slot: Slot;
  readonly index: number;
  readonly open: boolean;
  readonly onOpen: () => void;
}

function SlotCard({ slot, index, open, onOpen }: CardProps) {
  const { template, make, trying, tryWith, choose } = useWork();
  const { scene, time } = useGraphicEditor();
  const { seek } = useDesk();
  const by = shownBy(template, slot.id);
  const [form] = fieldsNamed(fieldsOfTemplate(), ['slots']);
  const isWords = slot.kind === 'text' || slot.kind === 'list';
  const here = () => {
    onOpen();
    if (!open) seek(time.frameOf(scene.timeOf(slot.moment)));
  };
  return (
    <Fold
      open={open}
      onTurn={here}
      testID={`made-slot-${slot.id}`}
      openID={`open-slot-${slot.id}`}
      head={
        <>
          <Icon name={SLOT_KIND[slot.kind].icon} size={16} />
          <Txt kind="strong" style={styles.grow} numberOfLines={1}>
            {slot.name}
          </Txt>
          <Txt
            kind="small"
            tone={by.length === 0 && slot.kind !== 'sound' ? 'red' : 'quiet'}
            numberOfLines={1}
          >
            {slot.kind === 'sound' ? 'heard' : by.length === 0 ? 'shows nowhere' : by.join(', ')}
          </Txt>
        </>
      }
    >
      {isWords && (
        <Choice
          label={`Try ${slot.name} with`}
          value={trying?.slot === slot.id ? trying.with : 'as-is'}
          options={TRIES}
          onChange={(words) => {
            tryWith(slot.id, words);
            seek(time.frameOf(scene.timeOf(slot.moment)));
          }}
          testID={`try-${slot.id}`}
        />
      )}
      {form?.kind === 'list' && <SlotFields item={form.item} index={index} />}
      <View style={styles.row}>
        {by.length > 0 && (
          <Button
            title="Its part"
            small
            icon="eye"
            onPress={() => choose(partsWithSlot(template, slot.id))}
            testID={`slot-part-${slot.id}`}
          />
        )}
        <Button
          title="Take the slot away"
          kind="danger"
          small
          onPress={() => make((t) => removeSlot(t, slot.id))}
          testID={`remove-slot-${slot.id}`}
        />
      </View>
    </Fold>
  );
}

/** The fields of a slot of its kind. */
function SlotFields({ item, index }: { item: Parameters<typeof FieldRow>[0]['field']; index: number }) {
  const { template } = useMade();
  const kind = template.slots[index]!.kind;
  const forms = item.kind === 'forms' ? item.forms : [];
  const form = forms.find(
    (f) =>
      f.kind === 'part' &&
      f.fields.some((x) => x.key === 'kind' && x.kind === 'value' && x.options[0] === kind),
  );
  if (form?.kind !== 'part') return null;
  return (
    <>
      {form.fields
        .filter((f) => f.key !== 'kind' && f.key !== 'id')
        .map((f) => (
          <FieldRow key={f.key} place={{ of: 'template', path: ['slots', index, f.key] }} field={f} />
        ))}
    </>
  );
}

const styles = StyleSheet.create({
  all: { gap: 12 },
  grow: { flex: 1 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
});
