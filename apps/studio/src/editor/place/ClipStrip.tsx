import {
  frameOfSecond,
  framesIn,
  playedOf,
  type ReelItem,
  roundsBetween,
  secondPlayed,
  secondsAt,
} from '@fresh-reel/core';
import { Image, StyleSheet, View } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { PEAKS_A_SECOND } from '../../media/strips/messages';
import { useDetailedWave, useStrip } from '../../media/strips/strips';
import { useDuration } from '../../media/useMediaFacts';
import { colour } from '../../ui/theme';
import { stripStep, stripTimes } from './lineView';

interface Props<K extends ReelItem['kind']> {
  readonly item: Extract<ReelItem, { kind: K }>;
  /** Pixels of a frame. */
  readonly px: number;
  /** Frames of the reel that are seen, or nearly. */
  readonly seen: readonly [number, number];
}

/** Pixels that a small picture takes on the line: as high as a row, of the usual shape. */
const WIDE = 66;

/** A clip on the line: its frames, as they come one after the other. */
export function ClipStrip({ item, px, seen }: Props<'clip'>) {
  const { reel } = useReelEditor();
  const { start, length, clip } = item;
  const { freeze } = clip;
  const duration = useDuration(item.media);
  const played = playedOf(item, reel.rate, duration);
  const second = (frame: number) => secondPlayed(played, frame - start, reel.rate);
  const [from, to] = [Math.max(start, seen[0]), Math.min(start + length, seen[1])];
  const room = secondsAt(WIDE / px, reel.rate) * played.speed;
  // Each reaches to the next.
  const wide = (framesIn(stripStep(room), reel.rate) / played.speed) * px;
  const rounds = roundsBetween(played, second(from), second(to), MOST_ROUNDS);
  const pictures =
    freeze !== undefined
      ? [{ at: freeze, plays: second(start) }]
      : from >= to
        ? []
        : rounds.flatMap((later) =>
            stripTimes(
              Math.max(played.round?.from ?? 0, second(from) - later),
              Math.min(duration, second(to) - later),
              room,
            ).map((at) => ({ at, plays: at + later })),
          );
  const times = pictures.map(({ at }) => at);
  const urls = useStrip(item.media, times);
  return (
    <View style={StyleSheet.absoluteFill} pointerEvents="none">
      {pictures.map(({ plays }, i) => {
        const url = urls[i];
        const left = frameOfSecond(played, plays, reel.rate) * px;
        return (
          url && (
            <Image
              key={plays}
              source={{ uri: url }}
              style={[styles.picture, { left, width: freeze === undefined ? wide : WIDE }]}
              resizeMode="cover"
              alt=""
              testID="strip-picture"
            />
          )
        );
      })}
    </View>
  );
}

/** Rounds of which pictures are shown at once, at most: those of a clip of a moment lie closer than pictures do. */
const MOST_ROUNDS = 60;

const HEIGHT = 40;

/** A sound on the line: the shape of what is heard of it, as far as it is seen. */
export function SoundShape({ item, px, seen }: Props<'sound'>) {
  const { reel } = useReelEditor();
  const peaks = useDetailedWave(item.media);
  const duration = useDuration(item.media);
  const { start, length } = item;
  const played = playedOf(item, reel.rate, duration);
  const [first, last] = [Math.max(start, seen[0]), Math.min(start + length, seen[1])];
  if (!peaks || first >= last) return null;
  const width = (last - first) * px;
  const bars: string[] = [];
  for (let x = 0; x < width; x += 2) {
    const second = (frame: number) => secondPlayed(played, frame - start, reel.rate);
    const a = Math.floor(second(first + x / px) * PEAKS_A_SECOND);
    const b = Math.max(a + 1, Math.ceil(second(first + (x + 2) / px) * PEAKS_A_SECOND));
    let peak = 0;
    for (let i = a; i < b; i++) peak = Math.max(peak, peaks[item.loops ? i % peaks.length : i] ?? 0);
    const half = Math.max(0.5, Math.min(1, peak) * (HEIGHT / 2 - 2));
    bars.push(`M ${x + 1} ${HEIGHT / 2 - half} V ${HEIGHT / 2 + half}`);
  }
  return (
    <View
      style={[styles.wave, { left: (first - start) * px, width }]}
      pointerEvents="none"
      testID="sound-shape"
    >
      <Svg
        width="100%"
        height="100%"
        viewBox={`0 0 ${Math.max(1, width)} ${HEIGHT}`}
        preserveAspectRatio="none"
        aria-hidden
      >
        <Path d={bars.join(' ')} stroke={colour.ink} strokeWidth={1.2} />
      </Svg>
    </View>
  );
}

const styles = StyleSheet.create({
  picture: { position: 'absolute', top: 0, bottom: 0, height: '100%' },
  wave: { position: 'absolute', top: 0, bottom: 0 },
});
