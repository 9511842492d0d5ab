import { convertFrames, messageOf, type Reel, ReelScene } from '@fresh-reel/core';
import { useRouter } from 'expo-router';
import { useEffect, useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { saveFile } from '../disk/pickFile';
import { DOCUMENT_ONLY } from '../engine/documentOnly';
import { useOpenFile } from '../files/useOpenFile';
import { Ground } from '../preview/Ground';
import { useAttached, usePreviewSurface } from '../preview/usePreview';
import { Place } from '../shell/Place';
import { RemovedList } from '../shell/RemovedList';
import { newId } from '../storage/ids';
import {
  useDeleteReel,
  useFreeName,
  useListedReel,
  useReels,
  useRemovedChange,
  useSaveReel,
} from '../storage/queries';
import { type DamagedReel, readReel } from '../storage/reels';
import { putBack } from '../storage/removed';
import type { ReelSummary } from '../storage/summaries';
import { ifFree, onWritten, reelLock } from '../storage/tabs';
import { Banner } from '../ui/Banner';
import { Button, IconButton } from '../ui/Button';
import { Field } from '../ui/Field';
import { LinkPress } from '../ui/LinkPress';
import { useToast } from '../ui/Toast';
import { Txt } from '../ui/Txt';
import { colour, useIsWide } from '../ui/theme';
import { secondsText } from '../ui/units';
import { useNearScreen } from '../ui/useNearScreen';
import { VirtualGrid } from '../ui/VirtualGrid';

/** The user's reels. */
export function ReelsPlace() {
  const { data: reels, error, refetch } = useReels();
  const wide = useIsWide();
  const router = useRouter();
  const [fault, setFault] = useState<string>();
  const { open, fault: openFault, sheet } = useOpenFile();
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
      <VirtualGrid
        items={reels ?? []}
        keyOf={(stored) => stored.id}
        columns={wide ? 2 : 1}
        gap={wide ? 32 : 18}
        height={124}
        render={(stored) =>
          stored.kind === 'reel' ? (
            <ReelRow summary={stored.summary} onFault={setFault} />
          ) : (
            <DamagedRow stored={stored} onFault={setFault} />
          )
        }
      />
      <RemovedList kind="reel" title="Deleted reels" onFault={setFault} />
      {sheet}
    </Place>
  );
}

function useDeleting(id: string, name: string, onFault: (message: string) => void): () => void {
  const remove = useDeleteReel();
  const restore = useRemovedChange(putBack);
  const toast = useToast();
  return () =>
    remove.mutate(
      { id, name },
      {
        onError: (e) => onFault(e.message),
        onSuccess: () =>
          toast({
            text: `“${name}” is deleted.`,
            action: {
              title: 'Put it back',
              run: () => restore.mutate({ kind: 'reel', id }, { onError: (e) => onFault(e.message) }),
            },
          }),
      },
    );
}

interface RowProps {
  readonly summary: ReelSummary;
  readonly onFault: (message: string) => void;
}

/** Changes a reel of the list: it is read, changed and written whole. */
function useChanging(onFault: (message: string) => void) {
  const save = useSaveReel();
  return async (id: string, change: (reel: Reel) => Reel): Promise<boolean> => {
    try {
      const stored = await readReel(id);
      if (stored?.kind !== 'reel') throw new Error('This reel is not here any more. Reload the page.');
      await save.mutateAsync(change(stored.reel));
      return true;
    } catch (error) {
      onFault(messageOf(error));
      return false;
    }
  };
}

function ReelRow({ summary: { id, name, changed, templates, seconds }, onFault }: RowProps) {
  const toast = useToast();
  const freeName = useFreeName();
  const remove = useDeleting(id, name, onFault);
  const change = useChanging(onFault);
  const [naming, setNaming] = useState<string>();
  const now = () => new Date().toISOString();
  const rename = () => {
    const next = naming?.trim();
    setNaming(undefined);
    if (next && next !== name) void renameTo(next);
  };
  /** Renames, unless another tab has the reel in hand: it would write its own name over this one. */
  const renameTo = async (next: string) => {
    const put = (to: string) => change(id, (reel) => ({ ...reel, name: to, changed: now() }));
    let done = false;
    const free = await ifFree(reelLock(id), async () => {
      done = await put(next);
    });
    if (!free) return onFault(`“${name}” is open in another tab. Rename it there, or close it first.`);
    if (done) toast({ text: `Renamed to “${next}”.`, action: { title: 'Undo', run: () => void put(name) } });
  };
  const duplicate = () => {
    const copy = freeName(`${name} copy`);
    const at = now();
    void change(id, (reel) => ({
      ...reel,
      id: newId(),
      name: copy.slice(0, 120),
      created: at,
      changed: at,
    }));
  };
  return (
    <View style={styles.row} testID={`reel-${id}`}>
      <LinkPress
        href={`/reels/${id}`}
        aria-label={`Open ${name}`}
        testID={`open-${id}`}
        style={styles.picture}
      >
        <ReelStill id={id} changed={changed} />
      </LinkPress>
      <View style={styles.words}>
        {naming === undefined ? (
          <LinkPress href={`/reels/${id}`} style={styles.name} testID={`name-${id}`}>
            <Txt kind="lead" level={2} numberOfLines={2}>
              {name}
            </Txt>
          </LinkPress>
        ) : (
          <Field
            label={`Name of ${name}`}
            hideLabel
            autoFocus
            value={naming}
            maxLength={120}
            onChangeText={setNaming}
            onBlur={rename}
            onSubmitEditing={rename}
            testID={`rename-field-${id}`}
          />
        )}
        <Txt kind="small" tone="quiet">
          {templates.length === 0 ? 'Empty' : `${templates.join(', ')}, ${secondsText(seconds)}`}
        </Txt>
        <View style={styles.tools}>
          <IconButton
            icon="pencil"
            label={`Rename ${name}`}
            onPress={() => setNaming(name)}
            testID={`rename-${id}`}
          />
          <IconButton
            icon="copy"
            label={`Duplicate ${name}`}
            onPress={duplicate}
            testID={`duplicate-${id}`}
          />
          <IconButton icon="trash" label={`Delete ${name}`} onPress={remove} testID={`delete-${id}`} />
        </View>
      </View>
    </View>
  );
}

/** A reel that does not open: why, and what can be done. Its text is left as it is. */
function DamagedRow({ stored, onFault }: { stored: DamagedReel; onFault: (message: string) => void }) {
  const remove = useDeleting(stored.id, 'A damaged reel', onFault);
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

/** The still of a reel, read and drawn while it is near the screen. */
function ReelStill({ id, changed }: { id: string; changed: string }) {
  const { ref, near } = useNearScreen();
  return (
    <View ref={ref} style={styles.stillBox}>
      {near && <ReadStill id={id} changed={changed} />}
    </View>
  );
}

function ReadStill({ id, changed }: { id: string; changed: string }) {
  const { data } = useListedReel(id, changed);
  return data?.kind === 'reel' ? <DrawnStill reel={data.reel} /> : null;
}

function DrawnStill({ reel }: { reel: Reel }) {
  const surface = usePreviewSurface();
  const holder = useAttached(surface);
  const scene = useMemo(() => new ReelScene(reel, DOCUMENT_ONLY), [reel]);
  const [placed] = scene.placed;
  const frame = placed
    ? Math.round(placed.start + convertFrames(placed.item.still, placed.item.rate, reel.rate))
    : 0;
  useEffect(() => {
    surface.show(reel);
    surface.seek(frame);
  }, [surface, reel, frame]);
  const ratio = reel.frame.width / reel.frame.height;
  return (
    <View style={ratio >= 1.4 ? { width: 132, height: 132 / ratio } : { height: 88, width: 88 * ratio }}>
      {scene.transparent && <Ground />}
      <View ref={holder} style={StyleSheet.absoluteFill} />
    </View>
  );
}

const styles = StyleSheet.create({
  empty: { gap: 16, alignItems: 'flex-start' },
  name: { minHeight: 32, justifyContent: 'center', borderRadius: 6 },
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
