import type { Template } from '@fresh-reel/core';
import {
  ADDITIONS,
  type AdditionId,
  addPart,
  duplicatePart,
  groupParts,
  nameOfPart,
  partOf,
  removeParts,
  stepPart,
  ungroup,
} from '@fresh-reel/core/make';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button, IconButton } from '../ui/Button';
import { useToast } from '../ui/Toast';
import { Toggle } from '../ui/Toggle';
import { Txt } from '../ui/Txt';
import { ChooseBetweenSheet } from './ChooseBetweenSheet';
import { CopySheet } from './CopySheet';
import { PickSheet } from './fields/PickSheet';
import { ChosenPart } from './PartPage';
import { PartTree } from './PartTree';
import { useWork } from './work/useWork';

/** The parts of the template: what is done with those that are chosen, the list, and all that the chosen one is made of. */
export function PartsTab() {
  const work = useWork();
  const { chosen, choose, several, setSeveral, template, make } = work;
  const toast = useToast();
  const [adding, setAdding] = useState(false);
  const [copying, setCopying] = useState(false);
  const [between, setBetween] = useState(false);
  const last = chosen.at(-1);
  /** Does something that makes a part, and chooses that. */
  const made = (by: (t: Template) => { template: Template; id: string }) => {
    let id: string | undefined;
    const done = make((t) => {
      const next = by(t);
      ({ id } = next);
      return next.template;
    });
    if (done && id !== undefined) choose([id]);
  };
  const remove = () => {
    const names = chosen.map((id) => nameOfPart(partOf(template, id)));
    if (!make((t) => removeParts(t, chosen))) return;
    choose([]);
    toast({
      text: names.length === 1 ? `“${names[0]}” is taken out.` : `${names.length} parts are taken out.`,
    });
  };
  const onlyGroup = chosen.length === 1 && partOf(template, last!).kind === 'group';
  return (
    <View style={styles.all}>
      <View style={styles.tools}>
        <Button
          title="Add a part"
          icon="plus"
          kind="next"
          onPress={() => setAdding(true)}
          testID="add-part"
        />
        <Button title="From a template" icon="copy" onPress={() => setCopying(true)} testID="copy-from" />
      </View>
      <PartTree />
      <Toggle label="Choose several" value={several} onChange={setSeveral} testID="choose-several" />
      {chosen.length > 0 && (
        <View style={styles.tools} testID="part-tools">
          <IconButton
            icon="arrow-up"
            label="Bring forward"
            onPress={() => make((t) => stepPart(t, last!, 1))}
            testID="part-forward"
          />
          <IconButton
            icon="arrow-down"
            label="Put further back"
            onPress={() => make((t) => stepPart(t, last!, -1))}
            testID="part-back"
          />
          <IconButton
            icon="copy"
            label="Duplicate"
            onPress={() => made((t) => duplicatePart(t, last!))}
            testID="part-duplicate"
          />
          <IconButton icon="trash" label="Take out" onPress={remove} testID="part-remove" />
          {onlyGroup ? (
            <Button
              title="Dissolve the group"
              icon="folder"
              small
              onPress={() => make((t) => ungroup(t, last!)) && choose([])}
              testID="part-ungroup"
            />
          ) : (
            <Button
              title="Group"
              icon="folder"
              small
              onPress={() => made((t) => groupParts(t, chosen))}
              testID="part-group"
            />
          )}
          {chosen.length > 1 && (
            <Button
              title="A choice shows one of them"
              icon="layers"
              small
              onPress={() => setBetween(true)}
              testID="part-between"
            />
          )}
        </View>
      )}
      {chosen.length === 0 && (
        <Txt tone="quiet">
          Touch a part on the picture or in the list. Touch again for what lies below it.
        </Txt>
      )}
      {chosen.length === 1 && last !== undefined && <ChosenPart id={last} />}
      {adding && (
        <PickSheet
          title="What comes in?"
          options={ADDITIONS}
          onChoose={(id) => {
            setAdding(false);
            made((t) => addPart(t, id as AdditionId, id === 'plate' ? chosen : chosen.slice(-1)));
          }}
          onClose={() => setAdding(false)}
        />
      )}
      {copying && <CopySheet onCopy={made} onClose={() => setCopying(false)} />}
      {between && <ChooseBetweenSheet onClose={() => setBetween(false)} />}
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: 14 },
  tools: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8 },
});
