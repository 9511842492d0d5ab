import { addMarker, framesOfSecond, itemOf, partPlayed, playedOf, timecodeAt } from '@fresh-reel/core';
import { useCallback, useEffect, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useDesk } from '../../editing/session/desk';
import { useAttempt } from '../../editing/session/useAttempt';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { useDuration, useMediaFacts } from '../../media/useMediaFacts';
import { Banner } from '../../ui/Banner';
import { Button } from '../../ui/Button';
import { Txt } from '../../ui/Txt';
import { startWorker } from '../../workers/startWorker';
import { nameOf } from './itemWords';
import type { FromSuggest, ToSuggest } from './suggestMessages';

type What = ToSuggest['what'];

const WORDS: Readonly<Record<What, { one: string; many: string; none: string }>> = {
  cut: { one: 'change of shot', many: 'changes of shot', none: 'The shot does not change in it.' },
  beat: { one: 'beat', many: 'beats', none: 'No music was found that beats evenly.' },
};

/** Rounds of what goes round in which something is found, at most. */
const MOST_ROUNDS = 200;

/** Suggestions that are shown one by one; more can be taken together. */
const SHOWN = 12;

/** Markers that are offered: where shots change in the chosen clip, and where the chosen music beats. */
export function Suggestions() {
  const { reel, mayEdit } = useReelEditor();
  const { item: chosen, seek } = useDesk();
  const attempt = useAttempt();
  const item = chosen === undefined ? undefined : itemOf(reel, chosen)?.item;
  const isFile = item?.kind === 'clip' || item?.kind === 'sound';
  const facts = useMediaFacts(isFile ? item.media : undefined);
  const duration = useDuration(isFile ? item.media : undefined);
  const [state, setState] = useState<{
    of: string;
    what: What;
    part?: number;
    frames?: readonly number[];
    fault?: string;
  }>();
  const worker = useRef<Worker | undefined>(undefined);
  const stop = useCallback(() => {
    worker.current?.terminate();
    worker.current = undefined;
  }, []);
  useEffect(() => stop, [stop]);
  if (!isFile || chosen === undefined) return null;
  const look = (what: What) => {
    const played = playedOf(item, reel.rate, duration);
    const [from, to] = partPlayed(played, duration);
    stop();
    const looker = startWorker('suggest');
    worker.current = looker;
    setState({ of: chosen, what, part: 0 });
    looker.onmessage = ({ data }: MessageEvent<FromSuggest>) => {
      if (data.type === 'part') setState({ of: chosen, what, part: data.part });
      else if (data.type === 'fault') setState({ of: chosen, what, fault: data.message });
      else {
        const found = data.seconds.flatMap((s) => framesOfSecond(played, s, reel.rate, MOST_ROUNDS));
        const frames = [...new Set(found.map((at) => item.start + Math.round(at)))];
        setState({ of: chosen, what, frames: frames.sort((a, b) => a - b) });
      }
      if (data.type !== 'part') stop();
    };
    looker.postMessage({
      what,
      media: item.media,
      from,
      to,
    } satisfies ToSuggest);
  };
  const own = state?.of === chosen ? state : undefined;
  const take = (frames: readonly number[]) => {
    const { what } = own!;
    if (attempt((r) => frames.reduce((sum, f) => addMarker(sum, f, what).reel, r)))
      setState((now) => now && { ...now, frames: now.frames?.filter((f) => !frames.includes(f)) ?? [] });
  };
  const words = own && WORDS[own.what];
  return (
    <View style={styles.all}>
      <View style={styles.row}>
        {item.kind === 'clip' && (
          <Button
            title="Find where shots change"
            icon="search"
            disabled={!mayEdit}
            onPress={() => look('cut')}
            testID="suggest-cuts"
          />
        )}
        {(item.kind === 'sound' || facts?.sound) && (
          <Button
            title="Find the beats"
            icon="search"
            disabled={!mayEdit}
            onPress={() => look('beat')}
            testID="suggest-beats"
          />
        )}
      </View>
      {own?.fault && <Banner kind="fault">{own.fault}</Banner>}
      {own?.part !== undefined && (
        <View style={styles.row}>
          <Txt style={styles.grow}>{`Looking: ${Math.round(own.part * 100)}%`}</Txt>
          <Button
            title="Stop"
            small
            onPress={() => {
              stop();
              setState(undefined);
            }}
            testID="suggest-stop"
          />
        </View>
      )}
      {own?.frames && words && (
        <View style={styles.all} testID="suggestions">
          <Txt tone="quiet">
            {own.frames.length === 0
              ? words.none
              : `${own.frames.length} ${own.frames.length === 1 ? words.one : words.many} in “${nameOf(reel, item)}”. Touch one to see it; take those you want.`}
          </Txt>
          {own.frames.length > 0 && (
            <View style={styles.row}>
              <Button
                title={own.frames.length === 1 ? 'Take it' : `Take all ${own.frames.length}`}
                kind="next"
                onPress={() => take(own.frames!)}
                testID="suggest-all"
              />
              <Button
                title="Leave them"
                kind="plain"
                onPress={() => setState(undefined)}
                testID="suggest-leave"
              />
            </View>
          )}
          {own.frames.slice(0, SHOWN).map((frame) => (
            <View key={frame} style={styles.row}>
              <Button
                title={timecodeAt(frame, reel.rate)}
                kind="plain"
                label={`See ${timecodeAt(frame, reel.rate)}`}
                onPress={() => seek(frame)}
                testID={`suggest-see-${frame}`}
              />
              <Button title="Take" small onPress={() => take([frame])} testID={`suggest-take-${frame}`} />
            </View>
          ))}
        </View>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: 8 },
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8 },
  grow: { flex: 1 },
});
