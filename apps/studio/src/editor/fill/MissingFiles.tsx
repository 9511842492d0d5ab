import { replaceMedia } from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { hashOf, piecesOf } from '../../media/files/hash';
import { pickFiles, pickFolder, SHELF_FILES } from '../../media/files/pickFile';
import { findMissing } from '../../media/findMissing';
import { TakingIn } from '../../media/import/TakingIn';
import { useImport } from '../../media/import/useImport';
import { useMissing } from '../../media/useMissing';
import { mediaFile } from '../../storage/media';
import { Banner } from '../../ui/Banner';
import { Button } from '../../ui/Button';
import { useReelEditor } from '../session/useReelEditor';

/** What is missing of a reel, where it shows, and the way to find it. The rest works all the same. */
export function MissingFiles() {
  const { reel, edit, settle } = useReelEditor();
  const { files, families } = useMissing(reel);
  const taking = useImport();
  if (files.length === 0 && families.length === 0) return null;
  const find = async (picked: Promise<File[]>) => {
    const all = await picked;
    const fonts = all.filter((f) => /\.(ttf|otf|woff2?)$/i.test(f.name));
    if (families.length > 0 && fonts.length > 0) await taking.take(fonts);
    for (const { missing, file } of await findMissing(files, all, hashFile)) {
      const [came] = await taking.take([file]);
      if (came?.kind !== 'media') continue;
      const found = mediaFile(came.record);
      // The very same file is in its place again by itself; another of its name takes its place.
      if (found.media !== missing.media) edit((r) => replaceMedia(r, missing.media, found));
    }
    settle();
  };
  const lines = [
    ...files.map((f) => `${f.name ? `“${f.name}”` : 'A file'} for ${f.slots.join(' and ')}`),
    ...families.map((f) => `the font “${f}”, set in another meanwhile`),
  ];
  return (
    <View style={styles.all}>
      <Banner
        kind="watch"
        testID="missing-files"
        action={
          <>
            <Button
              title="Find files"
              icon="search"
              small
              onPress={() => void find(pickFiles(SHELF_FILES))}
              testID="find-files"
            />
            <Button
              title="Find a folder"
              icon="folder"
              small
              onPress={() => void find(pickFolder())}
              testID="find-folder"
            />
          </>
        }
      >
        {`Missing here: ${lines.join('; ')}. Everything else works; a render leaves these places empty. Show one of the files, or the folder, and the others in it are found too.`}
      </Banner>
      <TakingIn taking={taking} />
    </View>
  );
}

const hashFile = async (file: File) => (await hashOf(piecesOf(file))).hash;

const styles = StyleSheet.create({ all: { gap: 8 } });
