import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { regrouped, renamedGroup } from '../storage/preferences';
import { usePreferences, useSetPreferences } from '../storage/queries';
import { Button, IconButton } from '../ui/Button';
import { Field } from '../ui/Field';
import { Toggle } from '../ui/Toggle';
import { Txt } from '../ui/Txt';

/** The user's groups of templates: which of them one is in, and a new one. A group that is left empty is gone. */
export function GroupsPart({ template }: { template: string }) {
  const { groups } = usePreferences();
  const setPreferences = useSetPreferences();
  const [name, setName] = useState('');
  const [renaming, setRenaming] = useState<string>();
  const put = (group: string, isIn: boolean) =>
    setPreferences({ groups: regrouped(groups, group, template, isIn) });
  const wanted = name.trim();
  const add = () => {
    if (wanted === '') return;
    put(wanted, true);
    setName('');
  };
  return (
    <View style={styles.all} testID="template-groups">
      <Txt kind="lead" level={2}>
        Your groups
      </Txt>
      {groups.length === 0 && (
        <Txt tone="quiet">
          Put templates that you use together in a group of their own: it is one touch away in Templates.
        </Txt>
      )}
      <View style={styles.groups}>
        {groups.map((group) =>
          renaming === group.name ? (
            <Renaming
              key={group.name}
              name={group.name}
              onDone={(to) => {
                setRenaming(undefined);
                setPreferences({ groups: renamedGroup(groups, group.name, to) });
              }}
            />
          ) : (
            <View key={group.name} style={styles.group}>
              <Toggle
                label={group.name}
                value={group.templates.includes(template)}
                onChange={(on) => put(group.name, on)}
                testID={`in-group-${group.name}`}
              />
              <IconButton
                icon="pen-line"
                label={`Rename ${group.name}`}
                onPress={() => setRenaming(group.name)}
                testID={`rename-group-${group.name}`}
              />
            </View>
          ),
        )}
      </View>
      <View style={styles.row}>
        <View style={styles.grow}>
          <Field
            label="Name of a new group"
            hideLabel
            placeholder="A new group"
            value={name}
            onChangeText={setName}
            onSubmitEditing={add}
            maxLength={40}
            testID="new-group"
          />
        </View>
        <Button
          title="Put it in"
          icon="plus"
          disabled={wanted === '' || groups.length >= 100}
          onPress={add}
          testID="new-group-add"
        />
      </View>
    </View>
  );
}

/** A group's name while it is changed; one that is left without any keeps its own. */
function Renaming({ name, onDone }: { name: string; onDone: (name: string) => void }) {
  const [typed, setTyped] = useState(name);
  const done = () => onDone(typed.trim() || name);
  return (
    <View style={styles.renaming}>
      <Field
        label={`Name of the group ${name}`}
        hideLabel
        value={typed}
        onChangeText={setTyped}
        onSubmitEditing={done}
        onBlur={done}
        maxLength={40}
        autoFocus
        testID="group-name"
      />
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: 10 },
  groups: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 20 },
  group: { flexDirection: 'row', alignItems: 'center', gap: 4 },
  renaming: { width: 220 },
  row: { flexDirection: 'row', alignItems: 'center', gap: 10 },
  grow: { flex: 1 },
});
