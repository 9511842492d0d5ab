import { useRouter } from 'expo-router';
import { type ReactNode, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useReelEditor } from '../editing/session/useReelEditor';
import { IconButton } from '../ui/Button';
import { Field } from '../ui/Field';
import { Press } from '../ui/Press';
import { Txt } from '../ui/Txt';
import { colour } from '../ui/theme';
import { webProps } from '../ui/web';

const SAVE_WORDS = { saved: 'saved', saving: 'saving', fault: 'not saved' } as const;

interface Props {
  readonly back: { readonly label: string; readonly path: '/reels' | '/workshop' };
  readonly name: string;
  /** What the name is of, and how long it may be. */
  readonly what: string;
  readonly longest: number;
  readonly onRename: (name: string) => void;
  /** What the test IDs of the name and its field begin with. */
  readonly testID: string;
  /** At the right. */
  readonly children?: ReactNode;
}

/** Above what is edited: the way back, its name (tap to rename), whether it is saved, undo and redo. */
export function EditedHeader({ back, name, what, longest, onRename, testID, children }: Props) {
  const { undo, redo, canUndo, canRedo, save, mayEdit, elsewhere, settle } = useReelEditor();
  const router = useRouter();
  const [naming, setNaming] = useState<string>();
  const done = () => {
    const next = naming?.trim();
    setNaming(undefined);
    if (next && next !== name) onRename(next);
    settle();
  };
  return (
    <View style={styles.header} role="banner">
      <IconButton
        icon="arrow-left"
        label={back.label}
        onPress={() => router.replace(back.path)}
        testID="back"
      />
      <View style={styles.grow}>
        {naming === undefined ? (
          <Press
            role="button"
            {...webProps({ 'aria-description': 'Rename' })}
            disabled={!mayEdit}
            onPress={() => setNaming(name)}
            style={styles.name}
            testID={testID}
          >
            <Txt kind="lead" level={1} numberOfLines={1}>
              {name}
            </Txt>
            <Txt kind="small" tone={save.kind === 'fault' ? 'red' : 'quiet'} testID="save-state">
              {elsewhere ? 'open in another tab' : SAVE_WORDS[save.kind]}
            </Txt>
          </Press>
        ) : (
          <Field
            label={`Name of the ${what}`}
            hideLabel
            autoFocus
            value={naming}
            onChangeText={setNaming}
            onBlur={done}
            onSubmitEditing={done}
            testID={`${testID}-field`}
            maxLength={longest}
          />
        )}
      </View>
      <IconButton icon="undo-2" label="Undo" disabled={!canUndo} onPress={undo} testID="undo" />
      <IconButton icon="redo-2" label="Redo" disabled={!canRedo} onPress={redo} testID="redo" />
      {children}
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
