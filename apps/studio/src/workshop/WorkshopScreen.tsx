import { TRIES, type TripPlace } from '@fresh-reel/core/make';
import { type ReactNode, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { ScrollView, StyleSheet, useWindowDimensions, View } from 'react-native';
import { useDeskState } from '../editing/session/useDeskState';
import { useDragPicture } from '../editing/session/useDragPicture';
import { useNotices } from '../editing/session/useNotices';
import { usePlaying } from '../editing/session/usePlaying';
import { useReelEditing } from '../editing/session/useReelEditing';
import { useGraphicEditor } from '../editing/session/useReelEditor';
import { PictureFrame } from '../editing/stage/PictureFrame';
import { SafeAreas, Stage } from '../editing/stage/Stage';
import { stageHeight } from '../editing/stage/stageHeight';
import { Transport } from '../editing/stage/Transport';
import { KeyStrip } from '../editing/timeline/KeyStrip';
import { Ribbon } from '../editing/timeline/Ribbon';
import { SlotRows } from '../editor/fill/slotRows';
import { DeskProviders, EditorProviders } from '../editor/Providers';
import { Warnings } from '../editor/Warnings';
import { usePreviewSurface } from '../preview/usePreview';
import { SkipLink } from '../shell/SkipLink';
import { useTitle } from '../shell/useTitle';
import type { OpenedReel } from '../storage/queries';
import { colour, useIsLow, useIsWide } from '../ui/theme';
import { type ScrollPlaces, useScrollPlace } from '../ui/useScrollPlace';
import { ScrollerProvider } from '../ui/VirtualGrid';
import { webProps } from '../ui/web';
import { type Bay, Bays } from './Bays';
import { ControlsTab } from './ControlsTab';
import { FinishTab } from './FinishTab';
import { SourceSheet } from './fields/SourceSheet';
import { SourcesContext } from './fields/sources';
import { PartsOverlay } from './PartsOverlay';
import { PartsTab } from './PartsTab';
import { SlotsTab } from './SlotsTab';
import { TimesTab } from './TimesTab';
import { TryTab } from './TryTab';
import { WorkHeader } from './WorkHeader';
import { ActionsProvider, MadeProvider, shownOf, useWork, useWorkState, WorkProvider } from './work/useWork';

/** A template on the bench: its parts, what is adjustable, what is filled, its times, and how its user meets it. */
export function WorkshopScreen({ opened }: { opened: OpenedReel }) {
  const editor = useReelEditing(opened);
  const [rows] = useState(() => new SlotRows());
  return (
    <EditorProviders editor={editor} rows={rows}>
      <WithWork>
        <Workbench rows={rows} />
      </WithWork>
    </EditorProviders>
  );
}

function WithWork({ children }: { children: ReactNode }) {
  const { work, made, actions } = useWorkState();
  return (
    <ActionsProvider value={actions}>
      <MadeProvider value={made}>
        <WorkProvider value={work}>
          <SourcesContext.Provider value={SourceSheet}>{children}</SourcesContext.Provider>
        </WorkProvider>
      </MadeProvider>
    </ActionsProvider>
  );
}

function Workbench({ rows }: { rows: SlotRows }) {
  const { reel, scene, time, settle } = useGraphicEditor();
  const work = useWork();
  const { template, graphic, trying, chosen, choose } = work;
  useTitle(`${template.name}, in the workshop`);
  const wide = useIsWide();
  const { height } = useWindowDimensions();
  const beside = useIsLow() || wide;
  const surface = usePreviewSurface();
  const [bay, setBay] = useState<Bay>('parts');
  const [ways, setWays] = useState(false);
  const [selected, setSelected] = useState<string>();
  const [control, setControl] = useState<string>();
  const [slot, setSlot] = useState<string>();
  const isTrying = bay === 'try';
  const words = TRIES.find((t) => t.id === trying?.with)?.words;
  const { bench } = work;
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is shown follows from these alone
  const shown = useMemo(
    () => (isTrying ? reel : shownOf(work, words)),
    [isTrying, reel, bench, graphic, trying, words],
  );
  const playing = usePlaying(surface, shown);
  const { seek } = playing;
  const desk = useDeskState(surface, seek);
  const notices = useNotices(surface, graphic);
  const { transparent } = scene;
  useEffect(() => {
    surface.show(shown);
  }, [surface, shown]);
  useEffect(() => surface.layParts(isTrying ? undefined : graphic), [surface, graphic, isTrying]);
  const [opened] = useState(() => time.frameOf(scene.timeOf(template.still)));
  useEffect(() => surface.seek(opened), [surface, opened]);

  const select = useCallback(
    (id: string | undefined, move = true) => {
      setSelected(id);
      const found = template.slots.find((s) => s.id === id);
      if (found && move) seek(time.frameOf(scene.timeOf(found.moment)));
    },
    [template, seek, time, scene],
  );
  const dragPicture = useDragPicture();
  const { choosePath, chooseText, chooseKeyed } = desk;
  const goTo = useCallback(
    (next: Bay) => {
      setBay(next);
      choosePath(undefined);
      chooseText(undefined);
      chooseKeyed(undefined);
    },
    [choosePath, chooseText, chooseKeyed],
  );
  const goToTrip = (to: TripPlace) => {
    if ('control' in to) {
      setControl(to.control);
      goTo('controls');
    } else if ('slot' in to) {
      setSlot(to.slot);
      goTo('slots');
    } else if ('part' in to) {
      choose([to.part]);
      goTo('parts');
    } else goTo('finish');
  };
  const sheet = useRef<ScrollView>(null);
  const node = useCallback(() => (sheet.current?.getScrollableNode() as HTMLElement | null) ?? null, []);
  const [places] = useState<ScrollPlaces>(() => new Map<string, number>());
  useScrollPlace(sheet, bay, places);
  return (
    <DeskProviders desk={desk}>
      <View style={styles.screen} testID="workshop-bench">
        <SkipLink />
        <WorkHeader />
        <View style={[styles.grow, beside && styles.columns]}>
          <View style={beside && (isTrying && wide ? styles.leftTrying : styles.left)}>
            <View style={beside ? styles.grow : { height: stageHeight(reel.frame, height) }}>
              {isTrying ? (
                <Stage
                  surface={surface}
                  selected={selected}
                  onSelect={(id, layer) => {
                    chooseText(layer);
                    select(id, false);
                    if (id) rows.reveal(id);
                  }}
                  over="handles"
                  transparent={transparent}
                  safeAreas={playing.safeAreas}
                  onDragPicture={dragPicture}
                  onDragEnd={settle}
                />
              ) : (
                <PictureFrame
                  surface={surface}
                  frame={reel.frame}
                  transparent={transparent}
                  label="The template on the bench"
                >
                  {(width) => (
                    <>
                      {playing.safeAreas && <SafeAreas />}
                      <PartsOverlay surface={surface} width={width} ways={ways && chosen.length > 0} />
                    </>
                  )}
                </PictureFrame>
              )}
            </View>
            <View style={styles.under}>
              <Transport surface={surface} playing={playing} transparent={transparent} />
              <Ribbon surface={surface} onSeek={seek} />
              {isTrying && desk.keyed && <KeyStrip />}
            </View>
          </View>
          <View style={[beside ? styles.right : styles.below, isTrying && wide && styles.rightTrying]}>
            <Bays bay={bay} onBay={goTo} wide={beside} />
            <ScrollView
              key={bay}
              ref={sheet}
              style={styles.grow}
              contentContainerStyle={styles.sheet}
              role="main"
              {...webProps({ id: 'content', tabIndex: -1 })}
              testID={`bay-sheet-${bay}`}
            >
              <ScrollerProvider value={node}>
                <Warnings />
                {bay === 'parts' && <PartsTab />}
                {bay === 'controls' && <ControlsTab shown={control} onShow={setControl} />}
                {bay === 'slots' && <SlotsTab shown={slot} onShow={setSlot} />}
                {bay === 'times' && <TimesTab ways={ways} onWays={setWays} />}
                {bay === 'finish' && <FinishTab />}
                {isTrying && (
                  <TryTab
                    selected={selected}
                    onSelect={select}
                    onSeek={seek}
                    notices={notices}
                    onGo={goToTrip}
                  />
                )}
              </ScrollerProvider>
            </ScrollView>
          </View>
        </View>
      </View>
    </DeskProviders>
  );
}

const styles = StyleSheet.create({
  screen: { flex: 1, backgroundColor: colour.paper },
  grow: { flex: 1 },
  columns: { flexDirection: 'row' },
  left: { flex: 3 },
  leftTrying: { flex: 2 },
  below: { flex: 1, flexDirection: 'column-reverse' },
  right: { flex: 2, borderLeftWidth: 1, borderColor: colour.hairline, maxWidth: 560, minWidth: 288 },
  rightTrying: { flex: 3, maxWidth: 900 },
  under: {
    backgroundColor: colour.paper,
    borderBottomWidth: 1,
    borderColor: colour.hairline,
    paddingBottom: 4,
  },
  sheet: { padding: 16, paddingBottom: 48, gap: 16 },
});
