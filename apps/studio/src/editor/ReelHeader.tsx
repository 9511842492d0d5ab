import { renameReel } from '@fresh-reel/core';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { IconButton } from '../ui/Button';
import { Field } from '../ui/Field';
import { Press } from '../ui/Press';
import { Txt } from '../ui/Txt';
import { colour } from '../ui/theme';
import { webProps } from '../ui/web';
import { useReelEditor } from './session/useReelEditor';

const SAVE_WORDS = { saved: 'saved', saving: 'saving', fault: 'not saved' } as const;

/** The way back, the reel's name (tap to rename), whether it is saved, undo and redo. */
export function ReelHeader() {
  const { reel, edit, settle, undo, redo, canUndo, canRedo, save, mayEdit, elsewhere } = useReelEditor();
  const router = useRouter();
  const [naming, setNaming] = useState<string>();
  const saveText = elsewhere ? 'open in another tab' : SAVE_WORDS[save.kind];
  const done = () => {
    if (naming !== undefined) edit((r) => renameReel(r, naming));
    settle();
    setNaming(undefined);
  };
  return (
    <View style={styles.header} role="banner">
      <IconButton
        icon="arrow-left"
        label="Back to reels"
        onPress={() => router.replace('/reels')}
        testID="back"
      />
      <View style={styles.grow}>
        {naming === undefined ? (
          <Press
            role="button"
            {...webProps({ 'aria-description': 'Rename' })}
            disabled={!mayEdit}
            onPress={() => setNaming(reel.name)}
            style={styles.name}
            testID="reel-name"
          >
            <Txt kind="lead" level={1} numberOfLines={1}>
              {reel.name}
            </Txt>
            <Txt kind="small" tone={save.kind === 'fault' ? 'red' : 'quiet'} testID="save-state">
              {saveText}
            </Txt>
          </Press>
        ) : (
          <Field
            label="Name of the reel"
            hideLabel
            autoFocus
            value={naming}
            onChangeText={setNaming}
            onBlur={done}
            onSubmitEditing={done}
            testID="reel-name-field"
            maxLength={120}
          />
        )}
      </View>
      <IconButton icon="undo-2" label="Undo" disabled={!canUndo} onPress={undo} testID="undo" />
      <IconButton icon="redo-2" label="Redo" disabled={!canRedo} onPress={redo} testID="redo" />
    </View>
  );
}

const styles = StyleSheet.create({
  header: {
    flexDirection: 'row',
    alignItems: 'center',
    minHeight: 56,
    paddingHorizontal: 4,
    borderBottomWidth: 1,
    borderColor: colour.hairline,
    backgroundColor: colour.paper,
  },
  name: { minHeight: 48, justifyContent: 'center', borderRadius: 8, paddingHorizontal: 4 },
  grow: { flex: 1 },
});
