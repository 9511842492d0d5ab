import { replaceMedia } from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { pickFiles, pickFolder, SHELF_FILES } from '../../disk/pickFile';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { findMissing } from '../../media/findMissing';
import { startHashing } from '../../media/import/hashing';
import { TakingIn } from '../../media/import/TakingIn';
import { useImport } from '../../media/import/useImport';
import { useMissing } from '../../media/useMissing';
import { mediaFile } from '../../storage/media';
import { announce } from '../../ui/announce';
import { Banner } from '../../ui/Banner';
import { Button } from '../../ui/Button';
import { useToast } from '../../ui/Toast';

/** What is missing of a reel, where it shows, and the way to find it. The rest works all the same. */
export function MissingFiles() {
  const { reel, edit, settle } = useReelEditor();
  const { files, families } = useMissing(reel);
  const taking = useImport();
  const toast = useToast();
  if (files.length === 0 && families.length === 0) return null;
  const find = async (picked: Promise<File[]>) => {
    const all = await picked;
    const fonts = all.filter((f) => /\.(ttf|otf|woff2?)$/i.test(f.name));
    if (families.length > 0 && fonts.length > 0) await taking.take(fonts);
    if (all.length === 0) return;
    const hashing = startHashing();
    const found = await findMissing(files, all, hashing.hash).finally(hashing.end);
    for (const { missing, file } of found) {
      const [came] = await taking.take([file]);
      if (came?.kind !== 'media') continue;
      const own = mediaFile(came.record);
      // The very same file is in its place again by itself; another of its name takes its place.
      if (own.media !== missing.media) edit((r) => replaceMedia(r, missing.media, own));
    }
    settle();
    const text = foundText(found.length, files.length, fonts.length);
    toast({ text });
    announce(text);
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

/** What came of looking for missing files, in words. */
function foundText(found: number, missing: number, fonts: number): string {
  const font = fonts > 0 ? ` ${fonts === 1 ? 'A font was' : `${fonts} fonts were`} added.` : '';
  if (missing === 0) return font.trim() || 'There is no font among these files.';
  if (found === 0) return `None of these is a file that is missing. Nothing was changed.${font}`;
  if (found === missing)
    return `${found === 1 ? 'The missing file is' : `All ${found} missing files are`} here again.${font}`;
  return `${found} of ${missing} missing files are here again. Show where the others are.${font}`;
}

const styles = StyleSheet.create({ all: { gap: 8 } });
