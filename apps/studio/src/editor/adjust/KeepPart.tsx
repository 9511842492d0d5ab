import {
  frameShape,
  freeName,
  itemOf,
  keptTemplate,
  layoutFrame,
  localTime,
  markAt,
  messageOf,
  type Template,
} from '@fresh-reel/core';
import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useDesk, useRestingFrame } from '../../editing/session/desk';
import { useGraphicEditor } from '../../editing/session/useReelEditor';
import { TemplatePreview } from '../../preview/TemplatePreview';
import { newId } from '../../storage/ids';
import { usePreferences, useSetPreferences } from '../../storage/queries';
import { type KeptKind, useStoreTemplate, useTemplates } from '../../storage/useTemplates';
import { LONGEST_NAME, NameAndSet } from '../../templates/NameAndSet';
import { Banner } from '../../ui/Banner';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Field } from '../../ui/Field';
import { Part } from '../../ui/Part';
import { Sheet } from '../../ui/Sheet';
import { useToast } from '../../ui/Toast';
import { Toggle } from '../../ui/Toggle';
import { Txt } from '../../ui/Txt';
import { CORNER, colour } from '../../ui/theme';

/** Longest name of a mood, and most of those. */
const LONGEST_MOOD = 20;
const MOST_MOODS = 6;

/** Keeps what was made as a template, so that it need not be made again. */
export function KeepPart() {
  const [keeping, setKeeping] = useState(false);
  return (
    <Part title="For the next time">
      <Txt tone="quiet">
        Kept as a template of your own, its words, pictures, colours and times are what the next one begins
        with.
      </Txt>
      <View style={styles.row}>
        <Button
          title="Keep as a template"
          icon="layout-grid"
          onPress={() => setKeeping(true)}
          testID="keep-template"
        />
      </View>
      {keeping && <KeepSheet onClose={() => setKeeping(false)} />}
    </Part>
  );
}

function KeepSheet({ onClose }: { onClose: () => void }) {
  const { reel, graphic, scene, time } = useGraphicEditor();
  const { template, fill } = graphic;
  const { templates, own } = useTemplates();
  const frame = useRestingFrame(useDesk().surface);
  const isOwn = own.has(template.id);
  const [as, setAs] = useState<KeptKind>('another');
  const isEdition = isOwn && as === 'edition';
  const label = itemOf(reel, graphic.id)?.item.label ?? `My ${template.name}`;
  const [name, setName] = useState(() => {
    const taken = new Set(templates.map((t) => t.name));
    return freeName(label.slice(0, LONGEST_NAME - 4), (n) => taken.has(n), ' ');
  });
  const [set, setSet] = useState((isOwn && template.set) || '');
  const [moods, setMoods] = useState(template.moods.join(', '));
  const [shown, setShown] = useState(false);
  const [front, setFront] = useState(false);
  const [id] = useState(newId);
  const kept = useMemo(() => {
    const still = shown
      ? { still: markAt(scene.clock, localTime(scene.clock, time.actualAt(frame))) }
      : undefined;
    const called = isEdition
      ? { id: template.id, name: template.name, set: template.set }
      : { id, name: name.trim() || label, set: set.trim() || undefined, moods: moodsIn(moods) };
    return keptTemplate(template, fill, layoutFrame(reel.frame), { ...called, ...still });
  }, [template, fill, reel.frame, isEdition, id, name, label, set, moods, shown, scene, time, frame]);
  const { keep, fault } = useKeeping(onClose);
  const nameless = !isEdition && name.trim() === '';
  return (
    <Sheet title="Keep as a template" onClose={onClose} testID="keep-sheet">
      <View style={styles.picture}>
        <TemplatePreview template={kept} shape={frameShape(reel.frame)} moving={!shown} />
      </View>
      {isOwn && (
        <Choice
          label="What it is kept as"
          testID="keep-as"
          value={as}
          options={[
            { id: 'another', name: 'Another template' },
            { id: 'edition', name: `A new edition of “${template.name}”` },
          ]}
          onChange={setAs}
        />
      )}
      {isEdition ? (
        <Txt tone="quiet">
          The edition before stays with it. Reels keep theirs until the new one is taken there.
        </Txt>
      ) : (
        <>
          <NameAndSet name={name} onName={setName} set={set} onSet={setSet} testID="keep" />
          <Field
            label="Moods, with commas between"
            value={moods}
            onChangeText={setMoods}
            maxLength={160}
            testID="keep-moods"
          />
        </>
      )}
      <Toggle
        label="Its picture is the frame shown now"
        value={shown}
        onChange={setShown}
        testID="keep-still"
      />
      {!isEdition && (
        <Toggle
          label="At the front, with the favourites"
          value={front}
          onChange={setFront}
          testID="keep-front"
        />
      )}
      {fault && <Banner kind="fault">{fault}</Banner>}
      <View style={styles.row}>
        <Button
          title="Keep it"
          kind="next"
          disabled={nameless}
          onPress={() => void keep(kept, isEdition ? 'edition' : 'another', front)}
          testID="keep-do"
        />
      </View>
    </Sheet>
  );
}

/** Keeps a template, and says where it is. */
function useKeeping(onKept: () => void) {
  const store = useStoreTemplate();
  const { favourites } = usePreferences();
  const setPreferences = useSetPreferences();
  const router = useRouter();
  const toast = useToast();
  const [fault, setFault] = useState<string>();
  const keep = async (template: Template, as: KeptKind, front: boolean) => {
    try {
      const { id, name } = await store(template, as);
      if (front) setPreferences({ favourites: [id, ...favourites] });
      onKept();
      toast({
        text: as === 'edition' ? `“${name}” has a new edition.` : `“${name}” stands in Templates now.`,
        action: { title: 'See it', run: () => router.push(`/templates/${id}`) },
      });
    } catch (error) {
      setFault(messageOf(error));
    }
  };
  return { keep, fault };
}

const moodsIn = (text: string): string[] => {
  const each = text.split(',').map((mood) => mood.trim().toLowerCase().slice(0, LONGEST_MOOD));
  return [...new Set(each)].filter(Boolean).slice(0, MOST_MOODS);
};

const styles = StyleSheet.create({
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
  picture: { borderRadius: CORNER, overflow: 'hidden', backgroundColor: colour.surround },
});
