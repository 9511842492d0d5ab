import { messageOf } from '@fresh-reel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { listBrands } from '../storage/brand';
import { listFonts } from '../storage/fonts';
import { listMedia, mediaId } from '../storage/media';
import { readPreferences } from '../storage/preferences';
import { usePreferences, useSetPreferences } from '../storage/queries';
import { listReels, readReel } from '../storage/reels';
import { listAllEditions } from '../storage/templates';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Part } from '../ui/Part';
import { useToast } from '../ui/Toast';
import { Txt } from '../ui/Txt';
import { saveThingsFile, type Things } from './savePackage';
import { useOpenFile } from './useOpenFile';

/** All that is the user's. */
async function everything(): Promise<Things> {
  const listed = await listReels();
  const reels = await Promise.all(listed.map(({ id }) => readReel(id)));
  return {
    reels: reels.flatMap((r) => (r?.kind === 'reel' ? [r.reel] : [])),
    templates: await listAllEditions(),
    brands: await listBrands(),
    media: (await listMedia()).map(mediaId),
    families: (await listFonts()).map(({ family }) => family),
    choices: await readPreferences(),
  };
}

/** All of the user's things as one file, to be kept elsewhere; and back from it. */
export function EverythingPart() {
  const toast = useToast();
  const { signature } = usePreferences();
  const setPreferences = useSetPreferences();
  const [saving, setSaving] = useState(false);
  const { open, fault, sheet } = useOpenFile();
  const save = async () => {
    setSaving(true);
    try {
      const day = new Date().toISOString().slice(0, 10);
      const left = await saveThingsFile({
        name: `Fresh Reel, everything, ${day}`,
        things: await everything(),
      });
      toast({
        text:
          left.length === 0
            ? 'Everything is in one file: reels, templates, brands, files and fonts.'
            : `Everything is in one file, but for ${left.length} files that are not here whole.`,
      });
    } catch (error) {
      toast({ text: messageOf(error) });
    } finally {
      setSaving(false);
    }
  };
  return (
    <Part title="Everything in one file">
      <Txt tone="quiet">
        All of your reels, templates, brands, files and fonts, with your favourites, groups and settings: to
        keep elsewhere, or for another browser. What is opened from such a file comes beside what is here.
      </Txt>
      <View style={styles.row}>
        <Button
          title={saving ? 'Writing…' : 'Save everything'}
          icon="save"
          disabled={saving}
          onPress={() => void save()}
          testID="save-everything"
        />
        <Button title="Open such a file" icon="folder" onPress={() => void open()} testID="open-everything" />
      </View>
      {fault && <Txt tone="red">{fault}</Txt>}
      <Field
        label="Files that you hand on say they are from"
        placeholder="Nobody"
        value={signature}
        onChangeText={(text) => setPreferences({ signature: text })}
        maxLength={120}
        testID="signature"
      />
      {sheet}
    </Part>
  );
}

const styles = StyleSheet.create({ row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 } });
