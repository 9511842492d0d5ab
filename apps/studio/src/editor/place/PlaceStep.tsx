import {
  type Added,
  addColour,
  addFiles,
  addTitle,
  copyItems,
  cutItem,
  EditError,
  framesIn,
  itemOf,
  type Reel,
  reelEnd,
  removeItems,
  splitSound,
  type Template,
} from '@fresh-reel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { pickFiles, SHELF_FILES } from '../../media/files/pickFile';
import { TakingIn } from '../../media/import/TakingIn';
import { useImport } from '../../media/import/useImport';
import { ShelfSheet } from '../../shelf/ShelfSheet';
import { fileFacts, type MediaRecord } from '../../storage/media';
import { Button, IconButton } from '../../ui/Button';
import { useToast } from '../../ui/Toast';
import { Txt } from '../../ui/Txt';
import { useDesk } from '../session/desk';
import { useReelEditor } from '../session/useReelEditor';
import { ItemList } from './ItemList';
import { TitleSheet } from './TitleSheet';
import { TrackList } from './TrackList';
import { useAttempt } from './useAttempt';

/** Seconds beyond which a reel cannot grow: a day. */
const LONGEST_SECONDS = 86_400;

/** What stands where: things are added at the playhead, and what is chosen is cut, copied and taken out. */
export function PlaceStep() {
  const { reel, mayEdit } = useReelEditor();
  const { surface, item: chosen, chooseItem } = useDesk();
  const attempt = useAttempt();
  const taking = useImport();
  const toast = useToast();
  const [sheet, setSheet] = useState<'shelf' | 'title'>();
  const playhead = () => surface.snapshot().frame?.number ?? 0;

  const add = (made: (reel: Reel) => Added) => {
    let id: string | undefined;
    const done = attempt((r) => {
      const added = made(r);
      ({ id } = added);
      if (reelEnd(added.reel) > framesIn(LONGEST_SECONDS, r.rate))
        throw new EditError('A reel can be a day long. This would end after that.');
      return added.reel;
    });
    if (done) chooseItem(id);
  };
  // One after the other, as they were chosen.
  const addRecords = (records: readonly MediaRecord[]) =>
    add((r) => addFiles(r, records.map(fileFacts), playhead()));
  const choose = async () => {
    const files = await pickFiles(SHELF_FILES, true);
    if (files.length === 0) return;
    const came = await taking.take(files);
    const records = came.flatMap((c) => (c.kind === 'media' ? [c.record] : []));
    if (records.length > 0) addRecords(records);
    else if (came.length > 0) toast({ text: 'That is a font: it is among your fonts now.' });
  };
  return (
    <View style={styles.all}>
      <Txt tone="quiet">
        What you add comes in at the playhead: footage below your titles, sound below all.
      </Txt>
      <View style={styles.row}>
        <Button
          title="Add files"
          icon="plus"
          kind="next"
          disabled={!mayEdit || taking.coming !== undefined}
          onPress={() => void choose()}
          testID="place-files"
        />
        <Button
          title="From the Shelf"
          icon="archive"
          disabled={!mayEdit}
          onPress={() => setSheet('shelf')}
          testID="place-shelf"
        />
        <Button
          title="A title"
          icon="type"
          disabled={!mayEdit}
          onPress={() => setSheet('title')}
          testID="place-title"
        />
        <Button
          title="A colour"
          icon="square"
          disabled={!mayEdit}
          onPress={() => add((r) => addColour(r, '#16202B', playhead()))}
          testID="place-colour"
        />
      </View>
      <TakingIn taking={taking} />
      {chosen && itemOf(reel, chosen) && <ChosenTools id={chosen} playhead={playhead} />}
      <ItemList />
      <TrackList />
      {sheet === 'shelf' && (
        <ShelfSheet
          title="From the Shelf"
          kinds={['clip', 'picture', 'sound']}
          onChoose={(record) => {
            setSheet(undefined);
            addRecords([record]);
          }}
          onClose={() => setSheet(undefined)}
        />
      )}
      {sheet === 'title' && (
        <TitleSheet
          onChoose={(template: Template) => {
            setSheet(undefined);
            add((r) => addTitle(r, template, playhead()));
          }}
          onClose={() => setSheet(undefined)}
        />
      )}
    </View>
  );
}

/** One row of what can be done with what is chosen. */
function ChosenTools({ id, playhead }: { id: string; playhead: () => number }) {
  const { reel, mayEdit } = useReelEditor();
  const { chooseItem } = useDesk();
  const attempt = useAttempt();
  const { item } = itemOf(reel, id)!;
  const take = (close: boolean) => {
    if (attempt((r) => removeItems(r, [id], close))) chooseItem(undefined);
  };
  const copy = () => {
    let made: string | undefined;
    const done = attempt((r) => {
      const { reel: next, ids } = copyItems(r, [id], playhead());
      [made] = ids;
      return next;
    });
    if (done) chooseItem(made);
  };
  return (
    <View role="toolbar" aria-label="What is chosen" style={styles.tools}>
      <IconButton
        icon="scissors"
        label="Cut it at the playhead"
        caption="Cut"
        disabled={!mayEdit || item.kind === 'graphic'}
        onPress={() => attempt((r) => cutItem(r, id, playhead()))}
        testID="place-cut"
      />
      <IconButton
        icon="copy"
        label="Put a copy at the playhead"
        caption="Copy"
        disabled={!mayEdit}
        onPress={copy}
        testID="place-copy"
      />
      {item.kind === 'clip' && (
        <IconButton
          icon="volume-2"
          label="Sound: take it as an item of its own"
          caption="Sound"
          disabled={!mayEdit || item.clip.silent === true}
          onPress={() => attempt((r) => splitSound(r, id))}
          testID="place-sound-apart"
        />
      )}
      <IconButton
        icon="trash"
        label="Take out, leaving a gap"
        caption="Take out"
        disabled={!mayEdit}
        onPress={() => take(false)}
        testID="place-remove"
      />
      <IconButton
        icon="circle-minus"
        label="Close gap: take it out, and what follows moves up"
        caption="Close gap"
        disabled={!mayEdit}
        onPress={() => take(true)}
        testID="place-remove-close"
      />
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: 14 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
  tools: { flexDirection: 'row', flexWrap: 'wrap', gap: 6 },
});
