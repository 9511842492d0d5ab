import { renameReel } from '@fresh-reel/core';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useReelEditor } from '../editor/session/useReelEditor';
import { Button, IconButton } from '../ui/Button';
import { Field } from '../ui/Field';
import { Press } from '../ui/Press';
import { Txt } from '../ui/Txt';
import { colour } from '../ui/theme';
import { webProps } from '../ui/web';
import { KeepMadeSheet } from './KeepMadeSheet';
import { useWork } from './useWork';

const SAVE_WORDS = { saved: 'saved', saving: 'saving', fault: 'not saved' } as const;

/** The way back, the template's name, undo and redo, and keeping it. */
export function WorkHeader() {
  const { edit, settle, undo, redo, canUndo, canRedo, save, mayEdit, elsewhere } = useReelEditor();
  const { template, make } = useWork();
  const router = useRouter();
  const [naming, setNaming] = useState<string>();
  const [keeping, setKeeping] = useState(false);
  const done = () => {
    const name = naming?.trim();
    setNaming(undefined);
    if (!name || name === template.name) return;
    make((t) => ({ ...t, name: name.slice(0, 80) }), 'name');
    edit((r) => renameReel(r, name), 'name');
    settle();
  };
  return (
    <View style={styles.header} role="banner">
      <IconButton
        icon="arrow-left"
        label="Back to the workshop"
        onPress={() => router.replace('/workshop')}
        testID="back"
      />
      <View style={styles.grow}>
        {naming === undefined ? (
          <Press
            role="button"
            {...webProps({ 'aria-description': 'Rename' })}
            disabled={!mayEdit}
            onPress={() => setNaming(template.name)}
            style={styles.name}
            testID="made-name"
          >
            <Txt kind="lead" level={1} numberOfLines={1}>
              {template.name}
            </Txt>
            <Txt
              kind="small"
              tone={save.kind === 'fault' ? 'red' : 'quiet'}
              numberOfLines={1}
              testID="save-state"
            >
              {elsewhere ? 'open in another tab' : SAVE_WORDS[save.kind]}
            </Txt>
          </Press>
        ) : (
          <Field
            label="Name of the template"
            hideLabel
            autoFocus
            value={naming}
            onChangeText={setNaming}
            onBlur={done}
            onSubmitEditing={done}
            maxLength={80}
            testID="made-name-field"
          />
        )}
      </View>
      <IconButton icon="undo-2" label="Undo" disabled={!canUndo} onPress={undo} testID="undo" />
      <IconButton icon="redo-2" label="Redo" disabled={!canRedo} onPress={redo} testID="redo" />
      <Button
        title="Keep"
        kind="next"
        onPress={() => setKeeping(true)}
        testID="keep-made"
        label="Keep it among your templates"
      />
      {keeping && <KeepMadeSheet onClose={() => setKeeping(false)} />}
    </View>
  );
}

const styles = StyleSheet.create({
  header: {
    flexDirection: 'row',
    alignItems: 'center',
    minHeight: 56,
    paddingLeft: 4,
    paddingRight: 10,
    borderBottomWidth: 1,
    borderColor: colour.hairline,
    backgroundColor: colour.paper,
  },
  name: { minHeight: 48, justifyContent: 'center', borderRadius: 8, paddingHorizontal: 4 },
  grow: { flex: 1 },
});
