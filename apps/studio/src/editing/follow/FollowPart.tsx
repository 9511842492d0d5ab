import {
  drivePoint,
  type Follow,
  frameOfSecond,
  itemOf,
  playedOf,
  type ReelItem,
  removeWay,
  SURE,
  setFollow,
  timecodeAt,
  usualPatch,
  type Way,
  wayAt,
} from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import Svg, { Polyline, Rect, Line as SvgLine } from 'react-native-svg';
import { useDuration } from '../../media/useMediaFacts';
import { Banner } from '../../ui/Banner';
import { Button } from '../../ui/Button';
import { NumberRow } from '../../ui/NumberRow';
import { Toggle } from '../../ui/Toggle';
import { Txt } from '../../ui/Txt';
import { colour } from '../../ui/theme';
import { useReelEditor } from '../session/useReelEditor';
import { useFollowing } from './useFollowing';

const FOOTING = {
  good: 'This can be followed well.',
  fair: 'This can be followed; a spot with corners and contrast both ways would hold better.',
  poor: 'There is little to hold on to here: it is flat, or a mere edge. Choose a spot with corners and contrast.',
} as const;

/** What an item goes along with in the shot below it. */
export function FollowPart({ item }: { item: ReelItem }) {
  const { mayEdit, edit, settle } = useReelEditor();
  const { below, way, patch, choosePatch, footing, running, fault, start, stop } = useFollowing();
  const { follow } = item;
  const once = (next: Follow | undefined) => {
    edit((r) => setFollow(r, item.id, next));
    settle();
  };
  const begin = () => {
    if (!below) return;
    const { size, second } = below;
    const now = way && wayAt(way, second);
    const half = way?.half ?? usualPatch(size.width, size.height) / 2;
    choosePatch(now ? { x: now.x, y: now.y, half } : { x: size.width / 2, y: size.height / 2, half });
  };
  return (
    <View style={styles.all}>
      <Txt kind="strong">Goes along with</Txt>
      {fault && <Banner kind="fault">{fault}</Banner>}
      {running ? (
        <View style={styles.row}>
          <Txt style={styles.grow} testID="follow-progress">
            {`Following: ${Math.round(running.part * 100)}%`}
          </Txt>
          <Button title="Stop" small onPress={stop} testID="follow-stop" />
        </View>
      ) : patch ? (
        <>
          <Txt tone="quiet">
            {way
              ? 'Drag the square onto the thing where it is now. It is followed from here.'
              : 'Drag the square on the picture onto what is to be followed.'}
          </Txt>
          <Txt tone={footing === 'poor' ? 'red' : 'quiet'} testID="follow-footing">
            {footing ? FOOTING[footing] : 'Looking at it…'}
          </Txt>
          <View style={styles.row}>
            <Button title="Both ways" kind="next" onPress={() => start('both')} testID="follow-both" />
            <Button title="Forwards" onPress={() => start('on')} testID="follow-on" />
            <Button title="Backwards" onPress={() => start('back')} testID="follow-back" />
            <Button
              title="Leave it"
              kind="plain"
              onPress={() => choosePatch(undefined)}
              testID="follow-leave"
            />
          </View>
        </>
      ) : !below ? (
        <Txt kind="small" tone="quiet">
          Lay it over a clip and take the playhead there; then it can follow something in the shot.
        </Txt>
      ) : (
        <View style={styles.row}>
          <Button
            title={way ? 'Correct it here' : 'Follow something in the shot'}
            icon="scan"
            disabled={!mayEdit}
            onPress={begin}
            testID="follow-begin"
          />
          {follow && (
            <Button
              title="Stay where it is"
              kind="plain"
              disabled={!mayEdit}
              onPress={() => {
                edit((r) => removeWay(r, follow.way));
                settle();
              }}
              testID="follow-end"
            />
          )}
        </View>
      )}
      {way && follow && !patch && !running && (
        <>
          <SureLine way={way} now={below?.second} />
          <Lost way={way} />
          <Toggle
            label="Grows along"
            value={follow.grows ?? false}
            onChange={(on) => once({ ...follow, grows: on || undefined })}
            testID="follow-grows"
          />
          <Toggle
            label="Turns along"
            value={follow.turns ?? false}
            onChange={(on) => once({ ...follow, turns: on || undefined })}
            testID="follow-turns"
          />
          <Toggle
            label="Hides while it is gone"
            value={follow.hides ?? false}
            onChange={(on) => once({ ...follow, hides: on || undefined })}
            testID="follow-hides"
          />
          <NumberRow
            name="Smoothing"
            value={Math.round((follow.smooth ?? 0) * 100)}
            min={0}
            max={100}
            step={1}
            unit="%"
            rest={10}
            onChange={(v) =>
              edit((r) => setFollow(r, item.id, { ...follow, smooth: v / 100 }), `smooth-${item.id}`)
            }
            onSettle={settle}
            testID="follow-smooth"
          />
        </>
      )}
      {item.kind === 'graphic' && <Points item={item} />}
    </View>
  );
}

/** Point controls of a graphic, each of which can go along with something that was followed. */
function Points({ item }: { item: ReelItem & { kind: 'graphic' } }) {
  const { reel, edit, settle } = useReelEditor();
  const controls = reel.templates[item.template]!.controls.filter((c) => c.kind === 'point');
  if (controls.length === 0 || reel.ways.length === 0) return null;
  return controls.map((control) => {
    const held = item.points?.[control.id];
    return (
      <View key={control.id} style={styles.all}>
        <Txt kind="small" tone="quiet">
          {`“${control.name}” points at`}
        </Txt>
        <View style={styles.row}>
          {reel.ways.map((way) => (
            <Toggle
              key={way.id}
              label={way.name}
              value={held?.way === way.id}
              onChange={(on) => {
                edit((r) =>
                  drivePoint(r, item.id, control.id, on ? { way: way.id, smooth: 0.1 } : undefined),
                );
                settle();
              }}
              testID={`drive-${control.id}-${way.id}`}
            />
          ))}
        </View>
      </View>
    );
  });
}

const [WIDE, HIGH] = [300, 36];

/** How sure it is at each moment: the line falls where the thing is lost. */
function SureLine({ way, now }: { way: Way; now: number | undefined }) {
  const { samples, marks } = way;
  const [first, last] = [samples[0]?.[0] ?? 0, samples.at(-1)?.[0] ?? 1];
  const x = (second: number) => ((second - first) / Math.max(0.001, last - first)) * WIDE;
  return (
    <View role="img" aria-label="How sure it is at each moment" testID="follow-sure">
      <Svg width="100%" height={HIGH} viewBox={`0 0 ${WIDE} ${HIGH}`} preserveAspectRatio="none">
        <Rect x={0} y={0} width={WIDE} height={HIGH} fill={colour.leafTint} />
        <SvgLine x1={0} x2={WIDE} y1={HIGH / 2} y2={HIGH / 2} stroke={colour.edge} strokeDasharray="3 3" />
        <Polyline
          points={samples
            .map((s) => `${x(s[0]).toFixed(1)},${(HIGH - 2 - s[5] * (HIGH - 4)).toFixed(1)}`)
            .join(' ')}
          fill="none"
          stroke={colour.leaf}
          strokeWidth={2}
          vectorEffect="non-scaling-stroke"
        />
        {marks.map((m) => (
          <Rect key={m.at} x={x(m.at) - 1.5} y={0} width={3} height={HIGH} fill={colour.accent} />
        ))}
        {now !== undefined && <Rect x={x(now) - 0.75} y={0} width={1.5} height={HIGH} fill={colour.ink} />}
      </Svg>
    </View>
  );
}

/** Where it was lost, in words. */
function Lost({ way }: { way: Way }) {
  const { reel } = useReelEditor();
  const clip = itemOf(reel, way.of)?.item;
  const duration = useDuration(way.media);
  const lost: [number, number][] = [];
  for (const [second, , , , , sure] of way.samples) {
    if (sure >= SURE) continue;
    const run = lost.at(-1);
    if (run && second - run[1] < 0.2) run[1] = second;
    else lost.push([second, second]);
  }
  if (lost.length === 0 || clip?.kind !== 'clip') return null;
  const played = playedOf(clip, reel.rate, duration);
  const code = (second: number) =>
    timecodeAt(Math.max(0, Math.round(clip.start + frameOfSecond(played, second, reel.rate))), reel.rate);
  const words = lost.slice(0, 3).map(([a, b]) => (a === b ? code(a) : `${code(a)} to ${code(b)}`));
  return (
    <Txt kind="small" tone="amber" testID="follow-lost">
      {`Lost at ${words.join(', ')}${lost.length > 3 ? ', and later' : ''}. Take the playhead there and correct it, or let it hide.`}
    </Txt>
  );
}

const styles = StyleSheet.create({
  all: { gap: 8 },
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8 },
  grow: { flex: 1 },
});
