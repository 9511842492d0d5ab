import { hideSlot, resetSlot, type Slot } from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { useGraphicEditor } from '../../editing/session/useReelEditor';
import { SLOT_KIND, slotTag } from '../../templates/slots';
import { IconButton } from '../../ui/Button';
import { Icon } from '../../ui/Icon';
import { Press } from '../../ui/Press';
import { Txt } from '../../ui/Txt';
import { colour } from '../../ui/theme';

const SAMPLE: Readonly<Record<Slot['kind'], string>> = {
  text: 'the sample words',
  list: 'the sample list',
  picture: 'the sample',
  logo: 'the sample',
  sound: 'the sample',
};

/** Number tag, name and kind of a slot: the same tag stands on the picture. */
export function SlotHead({
  slot,
  selected,
  onSelect,
  changed,
  onReset,
}: {
  slot: Slot;
  selected: boolean;
  onSelect: () => void;
  /** It holds something of the user's, and can go back to its sample. */
  changed: boolean;
  onReset?: () => void;
}) {
  const { graphic, edit, settle } = useGraphicEditor();
  const hidden = graphic.fill.hidden?.includes(slot.id) ?? false;
  const kind = SLOT_KIND[slot.kind];
  return (
    <View style={styles.row}>
      <Press
        role="button"
        testID={`show-${slot.id}`}
        aria-pressed={selected}
        onPress={onSelect}
        style={styles.head}
      >
        <View style={[styles.tag, selected && styles.tagOn]}>
          <Txt kind="label" tone={selected ? 'white' : 'ink'}>
            {slotTag(graphic.template, slot.id)}
          </Txt>
        </View>
        <Txt kind="strong" style={styles.name}>
          {slot.name}
        </Txt>
        <Icon name={kind.icon} size={15} />
        <Txt kind="small" tone="quiet">
          {kind.word}
          {hidden ? ', hidden' : slot.optional ? ', optional' : ''}
        </Txt>
      </Press>
      <IconButton
        icon={hidden ? 'eye-off' : 'eye'}
        label={`${hidden ? 'Show' : 'Hide'} ${slot.name}`}
        on={hidden}
        onPress={() => {
          edit((r) => hideSlot(r, graphic.id, slot.id, !hidden));
          settle();
        }}
        testID={`hide-${slot.id}`}
      />
      {changed && (
        <IconButton
          icon="rotate-ccw"
          label={`Put ${SAMPLE[slot.kind]} back in ${slot.name}`}
          onPress={() => {
            edit((r) => resetSlot(r, graphic.id, slot.id));
            settle();
            onReset?.();
          }}
          testID={`reset-slot-${slot.id}`}
        />
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between' },
  head: { flex: 1, flexDirection: 'row', alignItems: 'center', gap: 8, minHeight: 44, borderRadius: 8 },
  tag: {
    minWidth: 24,
    height: 24,
    paddingHorizontal: 4,
    borderRadius: 12,
    borderWidth: 1.5,
    borderColor: colour.ink,
    alignItems: 'center',
    justifyContent: 'center',
    backgroundColor: colour.card,
  },
  tagOn: { backgroundColor: colour.accent, borderColor: colour.accent },
  name: { flexShrink: 1 },
});
