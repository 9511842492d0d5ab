import { renameReel } from '@fresh-reel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useReelEditor } from '../editing/session/useReelEditor';
import { EditedHeader } from '../editor/EditedHeader';
import { Button } from '../ui/Button';
import { KeepMadeSheet } from './KeepMadeSheet';
import { useMade } from './work/useWork';

/** Above a template on the bench: its name is the bench's, too. */
export function WorkHeader() {
  const { edit } = useReelEditor();
  const { template, make } = useMade();
  const [keeping, setKeeping] = useState(false);
  return (
    <EditedHeader
      back={{ label: 'Back to the workshop', path: '/workshop' }}
      name={template.name}
      what="template"
      longest={80}
      onRename={(name) => {
        make((t) => ({ ...t, name: name.slice(0, 80) }), 'name');
        edit((r) => renameReel(r, name), 'name');
      }}
      testID="made-name"
    >
      <View style={styles.keep}>
        <Button
          title="Keep"
          kind="next"
          onPress={() => setKeeping(true)}
          testID="keep-made"
          label="Keep it among your templates"
        />
      </View>
      {keeping && <KeepMadeSheet onClose={() => setKeeping(false)} />}
    </EditedHeader>
  );
}

const styles = StyleSheet.create({ keep: { marginRight: 6 } });
