import { keptTemplate, layoutFrame } from '@fresh-reel/core';
import { keepLook, removeLook } from '@fresh-reel/core/make';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useGraphicEditor } from '../editing/session/useReelEditor';
import { USE_NAMES } from '../preview/templateFacts';
import { StepPicture, wordsOfStep } from '../templates/Guide';
import { Button, IconButton } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Part } from '../ui/Part';
import { Toggle } from '../ui/Toggle';
import { Txt } from '../ui/Txt';
import { CORNER, colour } from '../ui/theme';
import { TypedField } from './ControlsTab';
import { useMarkNow } from './work/useMarkNow';
import { useMade } from './work/useWork';

/** What its user reads and chooses first: what it is, its looks, and its guide. */
export function FinishTab() {
  const { template, make } = useMade();
  const set = (part: Partial<typeof template>) => make((t) => ({ ...t, ...part }));
  return (
    <View style={styles.all} testID="finish-list">
      <Part title="What it is">
        <TypedField
          label="In one sentence: what it looks like and what it is for"
          value={template.about}
          onDone={(about) => about.trim() && set({ about: about.trim() })}
          multiline
          testID="made-about"
        />
        <Choice
          label="What it is for"
          value={template.use}
          options={Object.entries(USE_NAMES).map(([id, name]) => ({ id, name }))}
          onChange={(use) => set({ use: use as typeof template.use })}
          testID="made-use"
        />
        {typeof template.transparent === 'boolean' && (
          <Toggle
            label="Lies over footage: most of its frame is see-through"
            value={template.transparent}
            onChange={(transparent) => set({ transparent })}
            testID="made-transparent"
          />
        )}
      </Part>
      <Looks />
      <GuidePart />
      <Samples />
    </View>
  );
}

/** Looks, kept from what the controls hold under Try it. */
function Looks() {
  const { template, make } = useMade();
  const { scene } = useGraphicEditor();
  const [name, setName] = useState('');
  const keep = () => {
    const held = Object.fromEntries(
      template.controls.map((c) => [c.id, scene.controlAt(c.id, scene.timeOf(template.still))]),
    );
    if (make((t) => keepLook(t, name, held))) setName('');
  };
  const rename = (id: string, to: string) =>
    to.trim() &&
    make((t) => ({ ...t, looks: t.looks.map((l) => (l.id === id ? { ...l, name: to.trim() } : l)) }));
  return (
    <Part title="Looks">
      <Txt kind="small" tone="quiet">
        Set the controls under Try it until it looks right, then keep that as a look.
      </Txt>
      {template.looks.map((look) => (
        <View key={look.id} style={styles.line}>
          <View style={styles.grow}>
            <TypedField
              label="Look"
              value={look.name}
              onDone={(to) => rename(look.id, to)}
              maxLength={80}
              testID={`made-look-${look.id}`}
            />
          </View>
          <IconButton
            icon="trash"
            label={`Take the look ${look.name} out`}
            onPress={() => make((t) => removeLook(t, look.id))}
            testID={`remove-look-${look.id}`}
          />
        </View>
      ))}
      <Field
        label="Name of the look"
        value={name}
        onChangeText={setName}
        onSubmitEditing={keep}
        maxLength={80}
        testID="look-name"
      />
      <View style={styles.row}>
        <Button title="Keep what is set now as a look" icon="plus" onPress={keep} testID="look-keep" />
      </View>
    </Part>
  );
}

const MOST_STEPS = 12;

/** The guide in numbered steps, each with a picture of the template if that helps. */
function GuidePart() {
  const { template, make } = useMade();
  const now = useMarkNow();
  const { guide } = template;
  const put = (next: typeof guide) => make((t) => ({ ...t, guide: next }));
  const at = (i: number, step: (typeof guide)[number]) =>
    put(guide.map((held, j) => (j === i ? step : held)));
  return (
    <Part title="Guide">
      {guide.map((step, i) => (
        <View key={i} style={styles.step} testID={`guide-${i}`}>
          <TypedField
            label={`Step ${i + 1}`}
            value={wordsOfStep(step)}
            onDone={(text) =>
              text.trim() && at(i, typeof step === 'string' ? text.trim() : { ...step, text: text.trim() })
            }
            multiline
            maxLength={400}
            testID={`guide-text-${i}`}
          />
          {typeof step === 'object' && <StepPicture template={template} shows={step.shows} />}
          <View style={styles.row}>
            <Button
              title={typeof step === 'string' ? 'Show this moment' : 'Show this moment instead'}
              icon="image"
              small
              onPress={() => at(i, { text: wordsOfStep(step), shows: now() })}
              testID={`guide-picture-${i}`}
            />
            {typeof step === 'object' && <Button title="No picture" small onPress={() => at(i, step.text)} />}
            {guide.length > 1 && (
              <IconButton
                icon="trash"
                label={`Take step ${i + 1} out`}
                onPress={() => put(guide.filter((_, j) => j !== i))}
              />
            )}
          </View>
        </View>
      ))}
      {guide.length < MOST_STEPS && (
        <View style={styles.row}>
          <Button
            title="Add a step"
            icon="plus"
            onPress={() => put([...guide, 'Then …'])}
            testID="guide-add"
          />
        </View>
      )}
    </Part>
  );
}

/** Makes what was filled while trying what the template begins with. */
function Samples() {
  const { make, template } = useMade();
  const { graphic, reel } = useGraphicEditor();
  const { fill } = graphic;
  const nothing = Object.keys(fill.slots).length + Object.keys(fill.controls).length === 0;
  const take = () =>
    make((t) => {
      const { from: _, ...own } = keptTemplate(t, { ...fill, hidden: [] }, layoutFrame(reel.frame), {
        ...{ id: t.id, name: t.name, set: t.set },
      });
      return {
        ...own,
        looks: t.looks,
        ...(t.from ? { from: t.from } : {}),
        assets: { ...t.assets, ...own.assets },
      };
    });
  return (
    <Part title="Samples and defaults">
      <Txt kind="small" tone="quiet">
        What is filled and set under Try it can be what everybody begins with.
      </Txt>
      <View style={styles.row}>
        <Button
          title="Begin with what is there now"
          icon="check"
          disabled={nothing}
          onPress={take}
          label={`Begin ${template.name} with what is filled and set now`}
          testID="take-samples"
        />
      </View>
    </Part>
  );
}

const styles = StyleSheet.create({
  all: { gap: 24 },
  line: { flexDirection: 'row', alignItems: 'flex-end', gap: 4 },
  grow: { flex: 1 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
  step: {
    gap: 8,
    padding: 10,
    borderWidth: 1,
    borderColor: colour.hairline,
    borderRadius: CORNER,
    backgroundColor: colour.card,
  },
});
