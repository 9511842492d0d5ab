import { graphicsOf, type Reel, ReelScene } from '@fresh-reel/core';
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { ScrollView, StyleSheet, useWindowDimensions, View } from 'react-native';
import { isOfItem } from '../editing/session/keyTargets';
import { useDeskState } from '../editing/session/useDeskState';
import { useDragPicture } from '../editing/session/useDragPicture';
import { useNotices } from '../editing/session/useNotices';
import { usePlaying } from '../editing/session/usePlaying';
import { useReelEditing } from '../editing/session/useReelEditing';
import { useReelEditor } from '../editing/session/useReelEditor';
import { Stage } from '../editing/stage/Stage';
import { stageHeight } from '../editing/stage/stageHeight';
import { Transport } from '../editing/stage/Transport';
import { KeyStrip } from '../editing/timeline/KeyStrip';
import { Ribbon } from '../editing/timeline/Ribbon';
import { DOCUMENT_ONLY } from '../engine/documentOnly';
import { useProxies } from '../media/proxies/useProxies';
import { usePreviewState, usePreviewSurface } from '../preview/usePreview';
import { useIsRendering } from '../render/queue/jobs';
import { SkipLink } from '../shell/SkipLink';
import { useTitle } from '../shell/useTitle';
import type { OpenedReel } from '../storage/queries';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Txt } from '../ui/Txt';
import { colour, useIsLow, useIsWide } from '../ui/theme';
import { type ScrollPlaces, useScrollPlace } from '../ui/useScrollPlace';
import { elementOf, webProps } from '../ui/web';
import { AdjustStep } from './adjust/AdjustStep';
import { EditionOffer } from './adjust/EditionOffer';
import { FillStep } from './fill/FillStep';
import { SlotRows } from './fill/slotRows';
import { RenderStep } from './output/RenderStep';
import { DeskProviders, EditorProviders } from './Providers';
import { Line } from './place/Line';
import { PlaceStep } from './place/PlaceStep';
import { ReelHeader } from './ReelHeader';
import { type Step, Steps } from './Steps';
import { Warnings } from './Warnings';

interface Props {
  readonly opened: OpenedReel;
  /** The reel was made just now: the keys go into its first slot. */
  readonly begin: boolean;
}

/** One reel, from words to file. */
export function ReelScreen({ opened, begin }: Props) {
  const editor = useReelEditing(opened);
  const [rows] = useState(() => new SlotRows());
  return (
    <EditorProviders editor={editor} rows={rows}>
      <Workbench rows={rows} begin={begin} />
    </EditorProviders>
  );
}

function Workbench({ rows, begin }: { rows: SlotRows; begin: boolean }) {
  const { reel, work, chooseGraphic, settle } = useReelEditor();
  useTitle(reel.name);
  const wide = useIsWide();
  const { height } = useWindowDimensions();
  // In a low window the picture stands beside the step, as in a wide one.
  const beside = useIsLow() || wide;
  // With room enough the line goes across all of the window.
  const across = wide && height > 640;
  const surface = usePreviewSurface();
  const [step, setStep] = useState<Step>(work ? 'fill' : 'place');
  const [selected, setSelected] = useState<string>();
  const playing = usePlaying(surface, reel);
  const { seek } = playing;
  const desk = useDeskState(surface, seek);
  const { keyed, chooseItem, choosePath, chooseText } = desk;
  const notices = useNotices(surface, work?.graphic.id);
  const scene = useMemo(() => new ReelScene(reel, DOCUMENT_ONLY), [reel]);
  const { transparent } = scene;
  const goes = usePreviewState(surface, (s) => s.playing);
  const rendering = useIsRendering();
  useProxies(
    useMemo(() => scene.media(), [scene]),
    goes || rendering,
  );

  useEffect(() => {
    surface.show(reel);
  }, [surface, reel]);
  // The first picture is the template's still: it shows everything at rest.
  const [opened] = useState(() => work?.time.frameOf(work.scene.timeOf(work.graphic.template.still)) ?? 0);
  useEffect(() => surface.seek(opened), [surface, opened]);
  const [firstSlot] = useState(work?.graphic.template.slots[0]?.id);
  useEffect(() => {
    if (begin && firstSlot) rows.focus(firstSlot);
  }, [begin, firstSlot, rows]);

  /** Choosing a slot moves the preview to where it is best seen, unless it is in view already. */
  const select = useCallback(
    (slot: string | undefined, move = true) => {
      setSelected(slot);
      if (!work) return;
      const { graphic, scene, time } = work;
      const found = graphic.template.slots.find((s) => s.id === slot);
      const inView = surface.snapshot().frame?.regions.some((r) => r.item === graphic.id && r.slot === slot);
      if (found && move && !(inView && surface.snapshot().playing === false && slot === selected))
        seek(time.frameOf(scene.timeOf(found.moment)));
    },
    [work, seek, surface, selected],
  );
  const goTo = (next: Step) => {
    setStep(next);
    choosePath(undefined);
    if (next !== 'fill') chooseText(undefined);
  };
  const toSlot = (slot: string) => {
    setStep('fill');
    select(slot, false);
    rows.reveal(slot);
  };

  const onSelect = (slot: string | undefined, layer: string | undefined) => {
    chooseText(layer);
    if (slot) toSlot(slot);
    else select(undefined);
  };
  const dragPicture = useDragPicture();
  // Each step opens at its top, and where it was left when one comes back to it.
  const sheet = useRef<ScrollView>(null);
  const [places] = useState<ScrollPlaces>(() => new Map<string, number>());
  useScrollPlace(sheet, step, places);
  const strip = useKeptPlace(sheet, !beside);

  // One tree for all shapes of screen: what is open stays open when a phone is turned or a window resized.
  return (
    <DeskProviders desk={desk}>
      <View style={styles.screen}>
        <SkipLink />
        <ReelHeader />
        <View style={[styles.grow, beside && styles.columns]}>
          <View style={beside && styles.left}>
            <View style={beside ? styles.grow : { height: stageHeight(reel.frame, height) }}>
              <Stage
                surface={surface}
                selected={selected}
                onSelect={onSelect}
                over={OVER[step] === 'place' || work ? OVER[step] : 'nothing'}
                transparent={transparent}
                safeAreas={playing.safeAreas}
                onDragPicture={dragPicture}
                onDragEnd={settle}
              />
            </View>
            <View style={styles.under}>
              <Transport surface={surface} playing={playing} transparent={transparent} />
              {step === 'place' && !across && <Line surface={surface} onSeek={seek} />}
              {step !== 'place' && work && <Ribbon surface={surface} onSeek={seek} />}
              <View ref={strip}>{keyed && isOfItem(keyed) === (step === 'place') && <KeyStrip />}</View>
            </View>
          </View>
          <View style={[beside ? styles.right : styles.below, beside && !wide && styles.rightLow]}>
            <Steps step={step} onStep={goTo} wide={beside} />
            <ScrollView
              key={step}
              ref={sheet}
              style={styles.grow}
              contentContainerStyle={styles.sheet}
              role="main"
              {...webProps({ id: 'content', tabIndex: -1 })}
              testID={`sheet-${step}`}
            >
              <Warnings />
              {(step === 'fill' || step === 'adjust') &&
                (work ? (
                  <WhichGraphic reel={reel} value={work.graphic.id} onChange={chooseGraphic} />
                ) : (
                  <NoTitle onPlace={() => goTo('place')} />
                ))}
              {work && (step === 'fill' || step === 'adjust') && <EditionOffer />}
              {work && step === 'fill' && (
                <FillStep selected={selected} onSelect={select} onSeek={seek} notices={notices} />
              )}
              {work && step === 'adjust' && <AdjustStep />}
              {step === 'place' && <PlaceStep />}
              {step === 'render' && (
                <RenderStep
                  surface={surface}
                  heard={playing.silent !== undefined}
                  onShow={({ item: at, slot, frame }) => {
                    if (at) chooseItem(at);
                    seek(frame);
                    if (slot) toSlot(slot);
                    else goTo('place');
                  }}
                />
              )}
            </ScrollView>
          </View>
        </View>
        {across && step === 'place' && (
          <View style={styles.across}>
            <Line surface={surface} onSeek={seek} />
          </View>
        )}
      </View>
    </DeskProviders>
  );
}

/** What stands over the picture in each step. */
const OVER = { fill: 'tags', adjust: 'handles', place: 'place', render: 'nothing' } as const;

/** A reel of footage alone has nothing to fill and adjust yet. */
function NoTitle({ onPlace }: { onPlace: () => void }) {
  return (
    <View style={styles.none}>
      <Txt>There is no title in this reel yet. Place one where it belongs; then it is filled here.</Txt>
      <View style={styles.start}>
        <Button title="Place a title" kind="next" icon="type" onPress={onPlace} testID="no-title" />
      </View>
    </View>
  );
}

/** Which graphic is worked on, where a reel has several. */
function WhichGraphic({
  reel,
  value,
  onChange,
}: {
  reel: Reel;
  value: string;
  onChange: (id: string) => void;
}) {
  const graphics = graphicsOf(reel);
  if (graphics.length < 2) return null;
  return (
    <Choice
      label="Which graphic"
      value={value}
      options={graphics.map((g, i) => ({ id: g.id, name: `${i + 1}  ${g.template.name}` }))}
      onChange={onChange}
      testID="which-graphic"
    />
  );
}

/** What comes and goes above the step does not move what is being touched in it. */
function useKeptPlace(sheet: React.RefObject<ScrollView | null>, above: boolean) {
  const strip = useRef<View>(null);
  useLayoutEffect(() => {
    const element = elementOf(strip);
    if (!element || !above) return;
    let before = element.offsetHeight;
    const observer = new ResizeObserver(() => {
      const by = element.offsetHeight - before;
      before = element.offsetHeight;
      const scroller = sheet.current?.getScrollableNode() as HTMLElement | undefined;
      scroller?.scrollBy({ top: by, behavior: 'instant' });
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, [sheet, above]);
  return strip;
}

const styles = StyleSheet.create({
  screen: { flex: 1, backgroundColor: colour.paper },
  grow: { flex: 1 },
  start: { flexDirection: 'row' },
  none: { gap: 12 },
  columns: { flexDirection: 'row' },
  left: { flex: 3 },
  // The steps stand at the foot of a phone, within the thumb's reach.
  below: { flex: 1, flexDirection: 'column-reverse' },
  right: { flex: 2, borderLeftWidth: 1, borderColor: colour.hairline, maxWidth: 560 },
  rightLow: { minWidth: 288 },
  across: { borderTopWidth: 1, borderColor: colour.hairline, paddingTop: 4 },
  under: {
    backgroundColor: colour.paper,
    borderBottomWidth: 1,
    borderColor: colour.hairline,
    paddingBottom: 4,
  },
  sheet: { padding: 16, paddingBottom: 48, gap: 16 },
});
