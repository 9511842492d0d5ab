import { convertFrames, type Reel, ReelScene, secondsAt } from '@fresh-reel/core';
import { useRouter } from 'expo-router';
import { useEffect, useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { DOCUMENT_ONLY } from '../engine/documentOnly';
import { useOpenFile } from '../files/useOpenFile';
import { saveFile } from '../media/files/pickFile';
import { useAttached, usePreviewSurface } from '../preview/usePreview';
import { Place } from '../shell/Place';
import { RemovedList } from '../shell/RemovedList';
import { newId } from '../storage/ids';
import { useDeleteReel, useReels, useRemovedChange, useSaveReel } from '../storage/queries';
import type { StoredReel } from '../storage/reels';
import { putBack } from '../storage/removed';
import { ifFree, onWritten, reelLock } from '../storage/tabs';
import { Banner } from '../ui/Banner';
import { Button, IconButton } from '../ui/Button';
import { Field } from '../ui/Field';
import { Press } from '../ui/Press';
import { useToast } from '../ui/Toast';
import { Txt } from '../ui/Txt';
import { colour, useIsWide } from '../ui/theme';
import { secondsText } from '../ui/units';
import { useNearScreen } from '../ui/useNearScreen';

/** The user's reels. */
export function ReelsPlace() {
  const { data: reels, error, refetch } = useReels();
  const wide = useIsWide();
  const router = useRouter();
  const [fault, setFault] = useState<string>();
  const { open, fault: openFault } = useOpenFile();
  useEffect(() => onWritten(() => void refetch()), [refetch]);
  return (
    <Place
      title="Reels"
      testID="reels"
      beside={
        <Button title="Open a reel file" icon="folder" onPress={() => void open()} testID="open-reel-file" />
      }
    >
      {error && (
        <Banner kind="fault">{`Your reels could not be read: ${error.message}. Reload the page; nothing was changed.`}</Banner>
      )}
      {(fault ?? openFault) && (
        <Banner kind="fault" testID="reels-fault">
          {(fault ?? openFault)!}
        </Banner>
      )}
      {reels?.length === 0 && (
        <View style={styles.empty}>
          <Txt tone="quiet">No reels yet. Pick a template and put your own words in it.</Txt>
          <Button title="See the templates" kind="next" onPress={() => router.navigate('/templates')} />
        </View>
      )}
      <View style={[styles.list, wide && styles.listWide]}>
        {reels?.map((stored) => (
          <View key={stored.id} style={wide ? styles.cellWide : undefined}>
            {stored.kind === 'reel' ? (
              <ReelRow reel={stored.reel} stored={stored} onFault={setFault} />
            ) : (
              <DamagedRow stored={stored} onFault={setFault} />
            )}
          </View>
        ))}
      </View>
      <RemovedList kind="reel" title="Deleted reels" onFault={setFault} />
    </Place>
  );
}

function useDeleting(stored: StoredReel, name: string, onFault: (message: string) => void): () => void {
  const remove = useDeleteReel();
  const restore = useRemovedChange(putBack);
  const toast = useToast();
  return () =>
    remove.mutate(stored, {
      onError: (e) => onFault(e.message),
      onSuccess: () =>
        toast({
          text: `“${name}” is deleted.`,
          action: {
            title: 'Put it back',
            run: () =>
              restore.mutate({ kind: 'reel', id: stored.id }, { onError: (e) => onFault(e.message) }),
          },
        }),
    });
}

interface RowProps {
  readonly reel: Reel;
  readonly stored: StoredReel;
  readonly onFault: (message: string) => void;
}

function ReelRow({ reel, stored, onFault }: RowProps) {
  const router = useRouter();
  const save = useSaveReel();
  const toast = useToast();
  const { data: reels } = useReels();
  const remove = useDeleting(stored, reel.name, onFault);
  const [naming, setNaming] = useState<string>();
  const scene = useMemo(() => new ReelScene(reel, DOCUMENT_ONLY), [reel]);
  const length = secondsAt(scene.frameCount(reel.rate), reel.rate);
  const graphic = reel.tracks[0]?.graphics[0];
  const put = (next: Reel) => save.mutate(next, { onError: (e) => onFault(e.message) });
  const rename = () => {
    const name = naming?.trim();
    setNaming(undefined);
    if (name && name !== reel.name) void renameTo(name);
  };
  /** Renames, unless another tab has the reel in hand: it would write its own name over this one. */
  const renameTo = async (name: string) => {
    const done = await ifFree(reelLock(reel.id), () =>
      save
        .mutateAsync({ ...reel, name, changed: new Date().toISOString() })
        .catch((e: Error) => onFault(e.message)),
    );
    if (!done) return onFault(`“${reel.name}” is open in another tab. Rename it there, or close it first.`);
    toast({
      text: `Renamed to “${name}”.`,
      action: { title: 'Undo', run: () => put({ ...reel, changed: new Date().toISOString() }) },
    });
  };
  const duplicate = () => {
    const names = new Set((reels ?? []).flatMap((r) => (r.kind === 'reel' ? [r.reel.name] : [])));
    let name = `${reel.name} copy`;
    for (let n = 2; names.has(name); n++) name = `${reel.name} copy ${n}`;
    const now = new Date().toISOString();
    put({ ...reel, id: newId(), name: name.slice(0, 120), created: now, changed: now });
  };
  return (
    <View style={styles.row} testID={`reel-${reel.id}`}>
      <Press
        role="link"
        aria-label={`Open ${reel.name}`}
        onPress={() => router.push(`/reels/${reel.id}`)}
        testID={`open-${reel.id}`}
        style={styles.picture}
      >
        <ReelStill reel={reel} />
      </Press>
      <View style={styles.words}>
        {naming === undefined ? (
          <Txt kind="lead" level={2} numberOfLines={2}>
            {reel.name}
          </Txt>
        ) : (
          <Field
            label={`Name of ${reel.name}`}
            hideLabel
            autoFocus
            value={naming}
            maxLength={120}
            onChangeText={setNaming}
            onBlur={rename}
            onSubmitEditing={rename}
            testID={`rename-field-${reel.id}`}
          />
        )}
        <Txt kind="small" tone="quiet">
          {graphic?.template.name}, {secondsText(length)}
        </Txt>
        <View style={styles.tools}>
          <IconButton
            icon="edit-2"
            label={`Rename ${reel.name}`}
            onPress={() => setNaming(reel.name)}
            testID={`rename-${reel.id}`}
          />
          <IconButton
            icon="copy"
            label={`Duplicate ${reel.name}`}
            onPress={duplicate}
            testID={`duplicate-${reel.id}`}
          />
          <IconButton
            icon="trash-2"
            label={`Delete ${reel.name}`}
            onPress={remove}
            testID={`delete-${reel.id}`}
          />
        </View>
      </View>
    </View>
  );
}

/** A reel that does not open: why, and what can be done. Its text is left as it is. */
function DamagedRow({
  stored,
  onFault,
}: {
  stored: Extract<StoredReel, { kind: 'damaged' }>;
  onFault: (message: string) => void;
}) {
  const remove = useDeleting(stored, 'The damaged reel', onFault);
  return (
    <Banner
      kind="fault"
      testID={`damaged-${stored.id}`}
      action={
        <>
          <Button
            title="Save its data as a file"
            small
            onPress={() =>
              saveFile(new Blob([stored.text], { type: 'application/json' }), `damaged-${stored.id}.json`)
            }
          />
          <Button title="Delete" small kind="danger" onPress={remove} />
        </>
      }
    >
      {`One reel cannot be opened. ${stored.reason} Your other reels are safe.`}
    </Banner>
  );
}

/** The still of a reel, drawn once it is near the screen. */
function ReelStill({ reel }: { reel: Reel }) {
  const { ref, near } = useNearScreen();
  return (
    <View ref={ref} style={styles.stillBox}>
      {near && <DrawnStill reel={reel} />}
    </View>
  );
}

function DrawnStill({ reel }: { reel: Reel }) {
  const surface = usePreviewSurface();
  const holder = useAttached(surface);
  const frame = useMemo(() => {
    const placed = new ReelScene(reel, DOCUMENT_ONLY).placed[0];
    return placed
      ? Math.round(placed.start + convertFrames(placed.item.still, placed.item.rate, reel.rate))
      : 0;
  }, [reel]);
  useEffect(() => {
    surface.show(reel);
    surface.seek(frame);
  }, [surface, reel, frame]);
  const ratio = reel.frame.width / reel.frame.height;
  return (
    <View
      ref={holder}
      style={ratio >= 1.4 ? { width: 132, height: 132 / ratio } : { height: 88, width: 88 * ratio }}
    />
  );
}

const styles = StyleSheet.create({
  empty: { gap: 16, alignItems: 'flex-start' },
  list: { gap: 20 },
  listWide: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 32 },
  cellWide: { width: '47%', maxWidth: 560 },
  row: {
    flexDirection: 'row',
    gap: 14,
    paddingBottom: 16,
    borderBottomWidth: 1,
    borderColor: colour.hairline,
  },
  picture: { borderRadius: 8 },
  words: { flex: 1, gap: 2 },
  tools: { flexDirection: 'row', marginLeft: -12 },
  stillBox: {
    width: 132,
    height: 88,
    borderRadius: 8,
    overflow: 'hidden',
    backgroundColor: colour.surround,
    alignItems: 'center',
    justifyContent: 'center',
  },
});
