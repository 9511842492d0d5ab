import { adjustPicture, convertFrames, type History, type Reel, type Region } from '@fresh-reel/core';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { ScrollView, StyleSheet, useWindowDimensions, View } from 'react-native';
import { useSaveReelFile } from '../files/useSaveFile';
import { usePreviewState, usePreviewSurface } from '../preview/usePreview';
import { useTitle } from '../shell/useTitle';
import { useSoundtrack } from '../sound/useSoundtrack';
import { Banner } from '../ui/Banner';
import { Button, IconButton } from '../ui/Button';
import { GesturesProvider } from '../ui/gestures';
import { Press } from '../ui/Press';
import { Txt } from '../ui/Txt';
import { colour, useIsWide } from '../ui/theme';
import { AdjustStep } from './adjust/AdjustStep';
import { FillStep } from './fill/FillStep';
import { MissingFiles } from './fill/MissingFiles';
import { RenderStep } from './output/RenderStep';
import { ReelHeader } from './ReelHeader';
import { type Step, Steps } from './Steps';
import { type Desk, DeskProvider, type PathTarget } from './session/desk';
import type { KeyTarget } from './session/keyTargets';
import { PathPointProvider } from './session/pathPoint';
import { ReelEditorProvider, useReelEditing, useReelEditor } from './session/useReelEditor';
import { draggedFocus } from './stage/placing';
import { Stage } from './stage/Stage';
import { KeyStrip } from './timeline/KeyStrip';
import { Ribbon, TimeText } from './timeline/Ribbon';

/** One reel, from words to file. */
export function ReelScreen({ history, firstStep }: { history: History<Reel>; firstStep: Step }) {
  const editor = useReelEditing(history);
  const { settle, cancel } = editor;
  const gestures = useMemo(() => ({ begin: settle, cancel }), [settle, cancel]);
  return (
    <ReelEditorProvider value={editor}>
      <GesturesProvider value={gestures}>
        <Workbench firstStep={firstStep} />
      </GesturesProvider>
    </ReelEditorProvider>
  );
}

function Workbench({ firstStep }: { firstStep: Step }) {
  const { reel, graphic, scene, edit, settle, save, retrySave, elsewhere, takeOver } = useReelEditor();
  const saveReelFile = useSaveReelFile();
  useTitle(reel.name);
  const wide = useIsWide();
  const { height } = useWindowDimensions();
  const surface = usePreviewSurface();
  const [step, setStep] = useState<Step>(firstStep);
  const [selected, setSelected] = useState<string>();
  const [safeAreas, setSafeAreas] = useState(false);
  const [loop, setLoop] = useState(true);
  const [silent, setSilent] = useState(false);
  const hasSound = useSoundtrack(surface, reel, silent);
  const [keyed, chooseKeyed] = useState<KeyTarget>();
  const [path, choosePath] = useState<PathTarget>();
  const [text, setText] = useState<{ layer: string; typing: boolean }>();
  const [point, choosePoint] = useState<number>();
  const [apart, setApart] = useState(false);
  const shown = usePreviewState(surface, (s) => s.frame?.notices) ?? [];
  const notices = shown.filter((n) => n.item === graphic.id);

  useEffect(() => {
    surface.show(reel);
  }, [surface, reel]);
  // The first picture is the template's still: it shows everything at rest.
  const stillFrame = Math.round(
    convertFrames(scene.timeOf(graphic.template.still), graphic.template.rate, reel.rate),
  );
  const [opened] = useState(stillFrame);
  useEffect(() => surface.seek(opened), [surface, opened]);

  const seek = useCallback(
    (frame: number) => {
      surface.pause();
      surface.seek(frame);
    },
    [surface],
  );
  /** Choosing a slot moves the preview to where it is best seen, unless it is in view already. */
  const select = useCallback(
    (slot: string | undefined, move = true) => {
      setSelected(slot);
      const found = graphic.template.slots.find((s) => s.id === slot);
      const inView = surface.snapshot().frame?.regions.some((r) => r.item === graphic.id && r.slot === slot);
      if (found && move && !(inView && surface.snapshot().playing === false && slot === selected)) {
        seek(Math.round(convertFrames(scene.timeOf(found.moment), graphic.template.rate, reel.rate)));
      }
    },
    [graphic, scene, reel.rate, seek, surface, selected],
  );
  const play = useCallback(() => {
    const { playing, frame } = surface.snapshot();
    if (playing) surface.pause();
    else surface.play(frame && surface.position < frame.count - 1 ? surface.position : 0, loop);
  }, [surface, loop]);
  const nudge = useCallback(
    (by: number) => {
      const { frame } = surface.snapshot();
      if (frame) seek(Math.min(frame.count - 1, Math.max(0, surface.position + by)));
    },
    [surface, seek],
  );
  useKeys({ play, nudge });
  const chooseText = useCallback((layer: string | undefined, typing = false) => {
    setText(layer === undefined ? undefined : { layer, typing });
  }, []);
  const desk: Desk = useMemo(
    () => ({
      surface,
      seek,
      keyed,
      chooseKeyed,
      path,
      choosePath,
      text: text?.layer,
      typing: text?.typing ?? false,
      chooseText,
    }),
    [surface, seek, keyed, path, text, chooseText],
  );
  const pathPoint = useMemo(() => ({ point, choosePoint, apart, setApart }), [point, apart]);
  const goTo = (next: Step) => {
    setStep(next);
    choosePath(undefined);
    if (next !== 'fill') chooseText(undefined);
  };
  const provided = (screen: React.ReactNode) => (
    <DeskProvider value={desk}>
      <PathPointProvider value={pathPoint}>{screen}</PathPointProvider>
    </DeskProvider>
  );

  const dragPicture = ({ slot, box, picture }: Region, dx: number, dy: number) => {
    const held = scene.slots.pictureFill(slot);
    if (!held || !picture) return;
    const focus = draggedFocus(picture, box, held.scale, held.focus, dx, dy);
    edit((r) => adjustPicture(r, graphic.id, slot, held, { focus }), `drag-${slot}`);
  };

  const stage = (
    <Stage
      surface={surface}
      selected={selected}
      onSelect={(slot, layer) => {
        select(slot, false);
        chooseText(layer);
        if (slot) {
          setStep('fill');
          // The row may not be there until the step is shown.
          requestAnimationFrame(() => revealSlot(slot));
        }
      }}
      tags={step === 'fill'}
      handles={step === 'adjust'}
      safeAreas={safeAreas}
      onDragPicture={dragPicture}
      onDragEnd={settle}
    />
  );
  const transport = (
    <View style={styles.transport}>
      <PlayButton surface={surface} onPress={play} />
      <IconButton icon="chevron-left" label="One frame back" onPress={() => nudge(-1)} testID="frame-back" />
      <IconButton icon="chevron-right" label="One frame on" onPress={() => nudge(1)} testID="frame-on" />
      <View style={styles.grow}>
        <TimeText surface={surface} />
      </View>
      {hasSound && (
        <IconButton
          icon={silent ? 'volume-x' : 'volume-2'}
          label={silent ? 'Hear the sound' : 'Play without sound'}
          onPress={() => setSilent(!silent)}
          testID="sound-on"
        />
      )}
      <IconButton
        icon="repeat"
        label="Play in a loop"
        on={loop}
        onPress={() => setLoop(!loop)}
        testID="loop"
      />
      <Press
        role="button"
        aria-label="Safe areas"
        aria-pressed={safeAreas}
        onPress={() => setSafeAreas(!safeAreas)}
        testID="safe-areas"
        style={[styles.safe, safeAreas && styles.safeOn]}
      >
        <Txt kind="label" tone={safeAreas ? 'accent' : 'ink'}>
          {wide ? 'Safe areas' : 'Safe'}
        </Txt>
      </Press>
    </View>
  );
  const warnings = (
    <>
      <MissingFiles />
      {elsewhere && (
        <Banner
          kind="info"
          testID="elsewhere"
          action={<Button title="Edit here instead" small onPress={takeOver} testID="take-over" />}
        >
          This reel is open in another tab. What is changed there shows here.
        </Banner>
      )}
      {save.kind === 'fault' && (
        <Banner
          kind="fault"
          testID="save-fault"
          action={
            <>
              <Button title="Try again" small onPress={retrySave} testID="save-again" />
              <Button title="Save as a file" small onPress={() => saveReelFile(reel)} testID="save-file" />
            </>
          }
        >
          {`Not saved. ${save.message}`}
        </Banner>
      )}
    </>
  );
  const sheet = (
    <ScrollView style={styles.grow} contentContainerStyle={styles.sheet} testID={`sheet-${step}`}>
      {warnings}
      {step === 'fill' && <FillStep selected={selected} onSelect={select} onSeek={seek} notices={notices} />}
      {step === 'adjust' && <AdjustStep />}
      {step === 'render' && (
        <RenderStep
          surface={surface}
          heard={hasSound}
          onShow={({ item, slot, frame }) => {
            seek(frame);
            if (item !== graphic.id) return;
            setStep('fill');
            select(slot, false);
            requestAnimationFrame(() => revealSlot(slot));
          }}
        />
      )}
    </ScrollView>
  );
  const steps = <Steps step={step} onStep={goTo} wide={wide} />;

  const ratio = reel.frame.width / reel.frame.height;
  const stageHeight = ratio > 1.1 ? Math.min(240, height * 0.32) : height * 0.36;
  // One tree for both shapes of screen: what is open stays open when a phone is turned or a window resized.
  return provided(
    <View style={styles.screen}>
      <ReelHeader />
      <View style={[styles.grow, wide && styles.columns]}>
        <View style={wide && styles.left}>
          <View style={wide ? styles.grow : { height: stageHeight }}>{stage}</View>
          <View style={styles.under}>
            {transport}
            <Ribbon surface={surface} onSeek={seek} />
            <KeyStrip />
          </View>
        </View>
        <View style={wide ? styles.right : styles.below}>
          {steps}
          {sheet}
        </View>
      </View>
    </View>,
  );
}

/** Brings a slot's row into view. */
function revealSlot(slot: string): void {
  document
    .querySelector(`[data-testid="slot-${slot}"]`)
    ?.scrollIntoView({ block: 'center', behavior: 'smooth' });
}

function PlayButton({
  surface,
  onPress,
}: {
  surface: ReturnType<typeof usePreviewSurface>;
  onPress: () => void;
}) {
  const playing = usePreviewState(surface, (s) => s.playing);
  return (
    <IconButton
      icon={playing ? 'pause' : 'play'}
      label={playing ? 'Pause' : 'Play'}
      onPress={onPress}
      testID="play"
    />
  );
}

/** Undo and redo everywhere; space and the arrow keys where no field or slider has them. */
function useKeys({ play, nudge }: { play: () => void; nudge: (by: number) => void }): void {
  const { undo, redo } = useReelEditor();
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (
        (e.metaKey || e.ctrlKey) &&
        !e.altKey &&
        (e.key.toLowerCase() === 'z' || e.key.toLowerCase() === 'y')
      ) {
        e.preventDefault();
        if (e.key.toLowerCase() === 'y' || e.shiftKey) redo();
        else undo();
        return;
      }
      const target = e.target as HTMLElement;
      if (
        target.closest(
          'input, textarea, button, [role="button"], [role="radio"], [role="switch"], [role="slider"], [role="tab"], [role="dialog"]',
        )
      )
        return;
      if (e.key === ' ') {
        e.preventDefault();
        play();
      } else if (e.key === 'ArrowLeft' || e.key === 'ArrowRight') {
        e.preventDefault();
        nudge((e.key === 'ArrowLeft' ? -1 : 1) * (e.shiftKey ? 10 : 1));
      }
    };
    // Fields keep their keys to themselves; the capture phase comes before them.
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  }, [play, nudge, undo, redo]);
}

const styles = StyleSheet.create({
  screen: { flex: 1, backgroundColor: colour.paper },
  grow: { flex: 1 },
  columns: { flexDirection: 'row' },
  left: { flex: 3 },
  // The steps stand at the foot of a phone, within the thumb's reach.
  below: { flex: 1, flexDirection: 'column-reverse' },
  right: { flex: 2, borderLeftWidth: 1, borderColor: colour.hairline, maxWidth: 560 },
  under: {
    backgroundColor: colour.paper,
    borderBottomWidth: 1,
    borderColor: colour.hairline,
    paddingBottom: 4,
  },
  transport: { flexDirection: 'row', alignItems: 'center', paddingHorizontal: 8 },
  safe: { minHeight: 44, justifyContent: 'center', paddingHorizontal: 10, borderRadius: 10 },
  safeOn: { backgroundColor: colour.accentTint },
  sheet: { padding: 16, paddingBottom: 48, gap: 16 },
});
