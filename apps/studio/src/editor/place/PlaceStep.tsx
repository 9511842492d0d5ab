import {
  type Added,
  addColour,
  addFiles,
  addTitle,
  EditError,
  EMPTY_FILL,
  framesIn,
  freezeInto,
  itemOf,
  type Reel,
  reelEnd,
  sameKind,
  type Template,
} from '@fresh-reel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { pickFiles, SHELF_FILES } from '../../disk/pickFile';
import { useDesk } from '../../editing/session/desk';
import { useAttempt } from '../../editing/session/useAttempt';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { TakingIn } from '../../media/import/TakingIn';
import { useImport } from '../../media/import/useImport';
import { useDuration } from '../../media/useMediaFacts';
import { ShelfSheet } from '../../shelf/ShelfSheet';
import { fileFacts, type MediaRecord } from '../../storage/media';
import { usePreferences } from '../../storage/queries';
import { Button, IconButton } from '../../ui/Button';
import { useToast } from '../../ui/Toast';
import { Txt } from '../../ui/Txt';
import { AlikeSheet } from './AlikeSheet';
import { type PlaceAction, usePlaceActions } from './actions';
import { ItemList } from './ItemList';
import { KeysSheet } from './KeysSheet';
import { MarkerList } from './MarkerList';
import { ProxyNote } from './ProxyNote';
import { ReelFonts } from './ReelFonts';
import { TitleSheet } from './TitleSheet';
import { TrackList } from './TrackList';
import { usePlaceKeys } from './usePlaceKeys';

/** Seconds beyond which a reel cannot grow: a day. */
const LONGEST_SECONDS = 86_400;

/** What stands where: things are added at the playhead, and what is chosen is cut, copied and taken out. */
export function PlaceStep() {
  const { mayEdit, reel } = useReelEditor();
  const { surface, chosen, item, chooseItem } = useDesk();
  const attempt = useAttempt();
  const taking = useImport();
  const toast = useToast();
  const [sheet, setSheet] = useState<'shelf' | 'title' | 'freeze' | 'keys' | 'alike'>();
  const playhead = () => surface.position;
  const shot = item === undefined ? undefined : itemOf(reel, item)?.item;
  const duration = useDuration(shot?.kind === 'clip' ? shot.media : undefined);
  const actions = usePlaceActions();
  const { singleKeys } = usePreferences();
  usePlaceKeys(actions, singleKeys);

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
      <ProxyNote />
      {chosen.length > 0 && (
        <ChosenTools
          actions={actions}
          onFreezeInto={() => setSheet('freeze')}
          onAlike={() => setSheet('alike')}
        />
      )}
      <ItemList />
      <TrackList />
      <MarkerList />
      <ReelFonts />
      <View style={styles.row}>
        <Button
          title="Paste"
          icon="archive"
          disabled={!mayEdit}
          onPress={() => actions.find((a) => a.id === 'paste')!.run()}
          testID="place-paste"
        />
        <Button title="Keys" icon="list" onPress={() => setSheet('keys')} testID="place-keys" />
      </View>
      {sheet === 'alike' && item !== undefined && (
        <AlikeSheet model={item} onClose={() => setSheet(undefined)} />
      )}
      {sheet === 'keys' && <KeysSheet actions={actions} onClose={() => setSheet(undefined)} />}
      {sheet === 'freeze' && (
        <TitleSheet
          withPicture
          onChoose={(template: Template) => {
            setSheet(undefined);
            add((r) => freezeInto(r, chosen[0]!, playhead(), template, EMPTY_FILL, duration));
          }}
          onClose={() => setSheet(undefined)}
        />
      )}
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
function ChosenTools({
  actions,
  onFreezeInto,
  onAlike,
}: {
  actions: readonly PlaceAction[];
  onFreezeInto: () => void;
  onAlike: () => void;
}) {
  const { reel, mayEdit } = useReelEditor();
  const { chosen, item, several, setSeveral, slipping, setSlipping } = useDesk();
  const one = chosen.length === 1 ? itemOf(reel, chosen[0]!)?.item : undefined;
  const others = item === undefined ? [] : sameKind(reel, item);
  return (
    <View style={styles.all}>
      <View role="toolbar" aria-label="What is chosen" style={styles.tools}>
        {actions.flatMap(({ id, label, caption, icon, able, run }) =>
          caption && icon
            ? [
                <IconButton
                  key={id}
                  icon={icon}
                  label={label}
                  caption={caption}
                  disabled={!able}
                  onPress={run}
                  testID={`place-${id}`}
                />,
              ]
            : [],
        )}
        {one?.kind === 'clip' && (
          <IconButton
            icon="type"
            label="Freeze it at the playhead into a title"
            caption="Into a title"
            disabled={!mayEdit}
            onPress={onFreezeInto}
            testID="place-freeze-into"
          />
        )}
        {(one?.kind === 'clip' || one?.kind === 'sound') && (
          <IconButton
            icon="move-horizontal"
            label="A drag on the line moves what is inside it"
            caption="Inside"
            on={slipping}
            onPress={() => setSlipping(!slipping)}
            testID="place-slip"
          />
        )}
        {others.length > 0 && (
          <IconButton
            icon="rows"
            label="Alike: make other titles of this template like it"
            caption="Alike"
            disabled={!mayEdit}
            onPress={onAlike}
            testID="place-alike"
          />
        )}
        <IconButton
          icon="layers"
          label="Choose several"
          caption="Several"
          on={several}
          onPress={() => setSeveral(!several)}
          testID="place-several"
        />
      </View>
      {chosen.length > 1 && <Txt tone="quiet" testID="chosen-count">{`${chosen.length} are chosen.`}</Txt>}
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: 14 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
  tools: { flexDirection: 'row', flexWrap: 'wrap', gap: 6 },
});
