import { changeText, graphicOf, type Slot, setSlot } from '@fresh-reel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { useDesk } from '../session/desk';
import { layersOf } from '../session/textLayers';
import { useGraphicEditor } from '../session/useReelEditor';
import { SignSheet } from './SignSheet';
import { TextSheet, type TextTab } from './TextSheet';

interface Props {
  readonly slot: Slot;
  /** Puts a sign where the words are being typed; without it the button is not there. */
  readonly onSign?: ((sign: string) => void) | undefined;
}

const TABS: readonly { id: TextTab; title: string }[] = [
  { id: 'letters', title: 'Letters' },
  { id: 'place', title: 'Place' },
  { id: 'motion', title: 'Motion' },
];

/** What can be done with the words of a slot besides typing them: letters, place, motion, signs. */
export function TextTools({ slot, onSign }: Props) {
  const { scene, graphic, edit, settle } = useGraphicEditor();
  const { text, chooseText } = useDesk();
  const [tab, setTab] = useState<TextTab>();
  const [signs, setSigns] = useState(false);
  const layers = layersOf(scene, slot.id);
  const layer = layers.find((l) => l.id === text) ?? layers[0];
  if (!layer) return null;
  const changed = graphic.fill.texts?.[layer.id] !== undefined;
  return (
    <View style={styles.all}>
      {layers.length > 1 && (
        <Choice
          label="Which of its places"
          value={layer.id}
          options={layers.map((l, i) => ({ id: l.id, name: l.name ?? `Place ${i + 1}` }))}
          onChange={(id) => chooseText(id)}
          testID={`layers-${slot.id}`}
        />
      )}
      <View style={styles.row}>
        {TABS.map(({ id, title }) => (
          <Button
            key={id}
            title={title}
            label={`${title}: ${slot.name}`}
            small
            onPress={() => {
              chooseText(layer.id);
              setTab(id);
            }}
            testID={`text-${id}-${slot.id}`}
          />
        ))}
        {onSign && <Button title="Emoji" small onPress={() => setSigns(true)} testID={`signs-${slot.id}`} />}
        {changed && (
          <Button
            title="Undo all of these"
            label={`Undo all changes of letters, place and motion: ${slot.name}`}
            kind="plain"
            onPress={() => {
              edit((r) => {
                const held = graphicOf(r, graphic.id).fill.texts?.[layer.id] ?? {};
                const none = Object.fromEntries(Object.keys(held).map((key) => [key, undefined]));
                return changeText(r, graphic.id, layer.id, none);
              });
              settle();
            }}
            testID={`reset-text-${slot.id}`}
          />
        )}
      </View>
      {tab && <TextSheet layer={layer.id} tab={tab} onTab={setTab} onClose={() => setTab(undefined)} />}
      {signs && onSign && <SignSheet onChoose={onSign} onClose={() => setSigns(false)} />}
    </View>
  );
}

/** Puts words into a slot. */
export function usePutWords(slot: string) {
  const { graphic, edit } = useGraphicEditor();
  return (words: Parameters<typeof setSlot>[3], gesture = 'words') =>
    edit((r) => setSlot(r, graphic.id, slot, words), `${gesture}-${slot}`);
}

const styles = StyleSheet.create({
  all: { gap: 8, paddingTop: 2 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
});
