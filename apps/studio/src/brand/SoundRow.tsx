import type { Brand, SoundRole } from '@fresh-reel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { pickFiles, SOUND_FILES } from '../disk/pickFile';
import { TakingIn } from '../media/import/TakingIn';
import { useImport } from '../media/import/useImport';
import { ShelfSheet } from '../shelf/ShelfSheet';
import { isHeard, type MediaRecord, mediaFile } from '../storage/media';
import { Button } from '../ui/Button';
import { NumberRow } from '../ui/NumberRow';
import { Txt } from '../ui/Txt';

type Sound = Brand['sounds'][SoundRole];

interface Props {
  readonly role: { readonly id: SoundRole; readonly name: string; readonly about: string };
  readonly sound: Sound;
  /** Changes it; those of one gesture are one step. */
  readonly onChange: (sound: Sound, gesture?: string) => void;
  readonly onSettle: () => void;
  readonly onFault: (message: string | undefined) => void;
}

/** One of a brand's sounds: chosen from the shelf or from a file, and how loud it is. */
export function SoundRow({ role, sound, onChange, onSettle, onFault }: Props) {
  const [shelf, setShelf] = useState(false);
  const taking = useImport();
  const take = (record: MediaRecord) => {
    setShelf(false);
    if (!isHeard(record))
      return onFault(`“${record.name}” has no sound in it. It is on the shelf; choose a sound here.`);
    const { media, name } = mediaFile(record);
    onFault(undefined);
    onChange({ ...sound, sound: media, name });
    onSettle();
  };
  const add = async () => {
    const [came] = await taking.take((await pickFiles(SOUND_FILES)).slice(0, 1));
    if (came?.kind === 'media') take(came.record);
  };
  return (
    <View style={styles.row} testID={`brand-sound-${role.id}`}>
      <Txt kind="strong">{role.name}</Txt>
      <Txt kind="small" tone="quiet">
        {sound ? (sound.name ?? 'A sound of the app') : `None yet: ${role.about}`}
      </Txt>
      <TakingIn taking={taking} />
      <View style={styles.buttons}>
        <Button
          title={sound ? 'Change' : 'Choose'}
          label={`${sound ? 'Change' : 'Choose'}: ${role.name}`}
          icon="music"
          small
          onPress={() => setShelf(true)}
          testID={`brand-sound-${role.id}-choose`}
        />
        {sound && (
          <Button
            title="Take it off"
            label={`Take it off: ${role.name}`}
            kind="plain"
            onPress={() => {
              onChange(null);
              onSettle();
            }}
            testID={`brand-sound-${role.id}-off`}
          />
        )}
      </View>
      {sound && (
        <NumberRow
          name="Level"
          value={sound.level ?? 0}
          min={-60}
          max={12}
          step={0.5}
          unit="dB"
          rest={0}
          onChange={(level) => onChange({ ...sound, level }, `sound-${role.id}`)}
          onSettle={onSettle}
          resets
          testID={`brand-sound-${role.id}-level`}
        />
      )}
      {shelf && (
        <ShelfSheet
          title={role.name}
          kinds={['sound', 'clip']}
          onChoose={take}
          onClose={() => setShelf(false)}
        >
          <View style={styles.buttons}>
            <Button
              title="From a file"
              icon="upload"
              small
              onPress={() => void add()}
              testID={`brand-sound-${role.id}-file`}
            />
          </View>
        </ShelfSheet>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { gap: 4 },
  buttons: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
});
