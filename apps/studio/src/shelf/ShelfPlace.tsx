import { messageOf } from '@fresh-reel/core';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { CAMERA_FILES, pickFiles, SHELF_FILES } from '../disk/pickFile';
import { useFileDrop } from '../disk/useFileDrop';
import { EverythingPart } from '../files/EverythingPart';
import type { Imported } from '../media/import/importMedia';
import { TakingIn } from '../media/import/TakingIn';
import { againText } from '../media/import/takenWords';
import { useImport } from '../media/import/useImport';
import { useKept } from '../shell/kept';
import { Place } from '../shell/Place';
import { RemovedList } from '../shell/RemovedList';
import { type MediaRecord, mediaId, removeMedia, saveMediaRecord } from '../storage/media';
import { keys, useBrands, useMediaList, useStoredReels } from '../storage/queries';
import { freeRoom, putBack } from '../storage/removed';
import { useTemplates } from '../storage/useTemplates';
import { Banner } from '../ui/Banner';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Sheet } from '../ui/Sheet';
import { useToast } from '../ui/Toast';
import { Txt } from '../ui/Txt';
import { CORNER, colour } from '../ui/theme';
import { bytesText } from '../ui/units';
import { useDemoShelf } from './demoShelf';
import { found } from './found';
import { MediaSheet } from './MediaSheet';
import { NewReelSheet } from './NewReelSheet';
import { ShelfGrid, useColumns } from './ShelfGrid';
import { useRoom } from './useRoom';
import { whereUsed } from './whereUsed';

type Filter = 'all' | MediaRecord['kind'];

/** The user's own files: added, searched, sorted, taken off. */
export function ShelfPlace() {
  const { data: records = [], isPending } = useMediaList();
  const { data: reels = [] } = useStoredReels();
  const { data: brands = [] } = useBrands();
  const taking = useImport();
  const toast = useToast();
  const tellAgain = (came: readonly Imported[]) => {
    const text = againText(came.flatMap((c) => (c.kind === 'media' && c.again ? [c.record.name] : [])));
    if (text) toast({ text });
  };
  const { ref, over } = useFileDrop((files) => void taking.take(files).then(tellAgain));
  const [filter, setFilter] = useKept<Filter>('shelf filter', 'all');
  const [search, setSearch] = useKept('shelf search', '');
  const [group, setGroup] = useKept('shelf group', '');
  const [open, setOpen] = useState<string>();
  const [making, setMaking] = useState(false);
  const [fault, setFault] = useState<string>();
  useDemoShelf();
  const room = useRoom();
  const columns = useColumns();
  const client = useQueryClient();
  const { templates, own } = useTemplates();
  const used = whereUsed(
    reels,
    templates.filter((t) => own.has(t.id)),
  );
  const again = async () => {
    await client.invalidateQueries({ queryKey: keys.media });
    await client.invalidateQueries({ queryKey: keys.removed });
  };

  usePasted((files) => void taking.take(files).then(tellAgain));

  const groups = [...new Set(records.flatMap((r) => r.group ?? []))].sort();
  const shown = found(records, search).filter(
    (r) => (filter === 'all' || r.kind === filter) && (group === '' || r.group === group),
  );
  const chosen = records.find((r) => r.hash === open);
  const usedIn = (record: MediaRecord) => [
    ...(used.get(mediaId(record)) ?? []),
    ...brands.flatMap((b) => (JSON.stringify(b).includes(mediaId(record)) ? [`the brand “${b.name}”`] : [])),
  ];
  const failed = (e: unknown) => setFault(messageOf(e));
  const attempt = (work: Promise<unknown>) => work.then(again).catch(failed);
  const takeOff = (record: MediaRecord) => {
    const where = usedIn(record);
    setOpen(undefined);
    void removeMedia(record).then(async () => {
      await again();
      toast({
        text:
          where.length > 0
            ? `“${record.name}” is off the shelf. It shows in ${list(where)}, where it is missing now.`
            : `“${record.name}” is off the shelf.`,
        action: {
          title: 'Put it back',
          run: () => void attempt(putBack({ kind: 'media', id: record.hash })),
        },
      });
    }, failed);
  };
  const add = async (camera: boolean) => {
    const files = await pickFiles(camera ? CAMERA_FILES : SHELF_FILES, !camera, camera);
    if (files.length > 0) tellAgain(await taking.take(files));
  };
  return (
    <View style={styles.screen}>
      <Place
        title="Shelf"
        testID="shelf"
        beside={
          <View style={styles.add}>
            <Button title="Camera" icon="camera" onPress={() => void add(true)} testID="shelf-camera" />
            <Button
              title="Add files"
              icon="plus"
              kind="next"
              onPress={() => void add(false)}
              testID="shelf-add"
            />
          </View>
        }
      >
        <Txt tone="quiet">
          Your pictures, clips, sounds and fonts, kept in this browser. Drop or paste files here too.
        </Txt>
        <View style={styles.add}>
          <Button
            title="New reel from clips"
            icon="film"
            onPress={() => setMaking(true)}
            testID="shelf-new-reel"
          />
        </View>
        {fault && <Banner kind="fault">{fault}</Banner>}
        <TakingIn taking={taking} />
        {room && (
          <View style={styles.room} testID="shelf-room">
            <Txt kind="small" tone="quiet" style={styles.roomWords}>
              {`${bytesText(room.used)} kept here, ${bytesText(room.left)} left.`}
            </Txt>
            {room.gone > 0 && (
              <Button
                title={`Free the room of ${room.gone} deleted`}
                kind="plain"
                onPress={() => void attempt(freeRoom())}
                testID="shelf-free"
              />
            )}
          </View>
        )}
        <View style={styles.filters}>
          <Choice
            label="Show"
            value={filter}
            options={[
              { id: 'all', name: 'All' },
              { id: 'picture', name: 'Pictures' },
              { id: 'clip', name: 'Clips' },
              { id: 'sound', name: 'Sounds' },
            ]}
            onChange={setFilter}
            testID="shelf-kind"
          />
          <View style={styles.search}>
            <Field
              label="Search the shelf"
              hideLabel
              placeholder="Search"
              value={search}
              onChangeText={setSearch}
              testID="shelf-search"
            />
          </View>
        </View>
        {groups.length > 0 && (
          <Choice
            label="Group"
            value={group}
            options={[{ id: '', name: 'Every group' }, ...groups.map((g) => ({ id: g, name: g }))]}
            onChange={setGroup}
            testID="shelf-group"
          />
        )}
        <View ref={ref} style={[styles.area, over && styles.over]}>
          {!isPending && records.length === 0 && (
            <Txt tone="quiet">Nothing here yet. Add a file, or drop one in a slot of a reel.</Txt>
          )}
          {records.length > 0 && shown.length === 0 && <Txt tone="quiet">Nothing here has those words.</Txt>}
          <ShelfGrid records={shown} chosen={open} onChoose={(r) => setOpen(r.hash)} columns={columns} />
        </View>
        <RemovedList kind="media" title="Taken off the shelf" onFault={setFault} />
        <EverythingPart />
      </Place>
      {making && <NewReelSheet onClose={() => setMaking(false)} />}
      {chosen && (
        <Sheet title={chosen.name} onClose={() => setOpen(undefined)} testID="media-sheet">
          <MediaSheet
            record={chosen}
            usedIn={usedIn(chosen)}
            groups={groups}
            onGroup={(name) => {
              const { group: _, ...rest } = chosen;
              void attempt(saveMediaRecord(name ? { ...rest, group: name } : rest));
            }}
            onTakeOff={() => takeOff(chosen)}
          />
        </Sheet>
      )}
    </View>
  );
}

const list = (names: readonly string[]) => names.map((n) => (n.startsWith('the ') ? n : `“${n}”`)).join(', ');

/** Files pasted anywhere but in a field. */
function usePasted(take: (files: File[]) => void): void {
  useEffect(() => {
    const onPaste = (e: ClipboardEvent) => {
      const files = [...(e.clipboardData?.files ?? [])];
      if (files.length === 0) return;
      e.preventDefault();
      take(files);
    };
    window.addEventListener('paste', onPaste);
    return () => window.removeEventListener('paste', onPaste);
  }, [take]);
}

const styles = StyleSheet.create({
  screen: { flex: 1 },
  add: { flexDirection: 'row', gap: 8 },
  room: { flexDirection: 'row', alignItems: 'center', flexWrap: 'wrap', gap: 8 },
  roomWords: { flexShrink: 1 },
  filters: { flexDirection: 'row', flexWrap: 'wrap', gap: 12, alignItems: 'center' },
  search: { flexGrow: 1, flexBasis: 180, maxWidth: 320 },
  area: { minHeight: 220, borderRadius: CORNER },
  over: { outlineWidth: 2, outlineColor: colour.accent, outlineStyle: 'dashed', outlineOffset: 6 },
});
