import { itemOf, type OutputFormat, type Reel, type RenderPlan } from '@fresh-reel/core';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { type Cost, costOf } from '../../render/measure/cost';
import { Button } from '../../ui/Button';
import { Toggle } from '../../ui/Toggle';
import { Txt } from '../../ui/Txt';
import { secondsText } from '../../ui/units';
import { nameOf } from '../place/itemWords';

// What draws charts is loaded when there is one to draw.
const CostChart = lazy(() => import('./CostChart'));

interface Props {
  /** What is rendered, and how; nothing where there is nothing to measure. */
  readonly first: { readonly reel: Reel; readonly plan: RenderPlan } | undefined;
  readonly able: boolean;
}

/** What the time of a render goes to, measured when it is asked for, with a switch for what can be done without. */
export function CostPart({ first, able }: Props) {
  const { reel, edit, settle } = useReelEditor();
  const [cost, setCost] = useState<{ of: Reel; cost: Cost }>();
  const [done, setDone] = useState<readonly [number, number]>();
  const [fault, setFault] = useState('');
  const [width, setWidth] = useState(0);
  const work = useRef<AbortController>(undefined);
  useEffect(() => () => work.current?.abort(), []);
  const start = () => {
    if (!first) return;
    const controller = new AbortController();
    work.current = controller;
    setFault('');
    const { format } = first.plan;
    costOf(
      first.reel,
      { ...first.plan, format: format as OutputFormat },
      (n, of) => setDone([n, of]),
      controller.signal,
    )
      .then(
        (found) => setCost({ of: reel, cost: found }),
        (error: unknown) => controller.signal.aborted || setFault(String(error)),
      )
      .finally(() => setDone(undefined));
  };
  const rows = cost
    ? [
        ...cost.cost.parts.map(({ part, seconds }) => {
          const item = part.item === undefined ? undefined : itemOf(reel, part.item)?.item;
          const of = item ? nameOf(reel, item) : '';
          const name = {
            blur: 'Motion blur',
            treatments: `Treatments of ${of}`,
            depth: `Depth of ${of}`,
            item: of,
          }[part.kind];
          return { id: part.id, name, seconds, turn: part.turn };
        }),
        { id: 'writing', name: 'Compressing and writing', seconds: cost.cost.writing, turn: undefined },
      ].filter((row) => row.name !== '')
    : [];
  return (
    <View style={styles.group} onLayout={(event) => setWidth(event.nativeEvent.layout.width)}>
      <View style={styles.start}>
        <Button
          title={
            done
              ? `Measuring ${done[0] + 1} of ${done[1]}…`
              : cost
                ? 'Measure again'
                : 'See what takes the time'
          }
          small
          onPress={start}
          disabled={!able || !first || done !== undefined}
          testID="cost-measure"
        />
      </View>
      {fault !== '' && <Txt kind="small" tone="red">{`It could not be measured: ${fault}`}</Txt>}
      {cost && rows.length > 0 && width > 0 && (
        <>
          <Suspense fallback={<View style={styles.chart} />}>
            <CostChart seconds={rows.map((r) => r.seconds)} width={width} />
          </Suspense>
          {rows.map(({ id, name, seconds, turn }, i) => (
            <View key={id} style={styles.row} testID={`cost-${turn ? 'switched' : 'told'}`}>
              <Txt kind="small" style={styles.grow}>
                {`${i + 1}. ${name}: ${secondsText(seconds)}`}
              </Txt>
              {turn && (
                <Toggle
                  label={turn.isOn(reel) ? `Without it: ${secondsText(seconds)} less` : 'Off'}
                  value={turn.isOn(reel)}
                  onChange={(on) => {
                    edit((r) => turn.set(r, on));
                    settle();
                  }}
                  testID={`cost-switch-${id}`}
                />
              )}
            </View>
          ))}
          <Txt kind="small" tone="quiet" testID="cost-note">
            {cost.of === reel
              ? 'Each was measured by a render without it. Some work is done side by side, so they need not add up.'
              : 'Measured before the last change.'}
          </Txt>
        </>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  group: { gap: 10 },
  start: { flexDirection: 'row' },
  row: { flexDirection: 'row', alignItems: 'center', gap: 10, minHeight: 32 },
  grow: { flex: 1 },
  chart: { height: 140 },
});
