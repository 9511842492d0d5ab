import type { Notice } from '@fresh-reel/core';
import { frameShape, setShape } from '@fresh-reel/core';
import type { Trip, TripPlace } from '@fresh-reel/core/make';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useGraphicEditor } from '../editing/session/useReelEditor';
import { ControlGroups, LooksRow } from '../editor/adjust/AdjustStep';
import { FillStep } from '../editor/fill/FillStep';
import { askOfReel } from '../preview/previewClient';
import { FRAME_SHAPES } from '../preview/templateFacts';
import { Banner } from '../ui/Banner';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Part } from '../ui/Part';
import { Txt } from '../ui/Txt';
import { useIsWide } from '../ui/theme';
import { useWork } from './work/useWork';

interface Props {
  readonly selected: string | undefined;
  readonly onSelect: (slot: string) => void;
  readonly onSeek: (frame: number) => void;
  readonly notices: readonly Notice[];
  readonly onGo: (to: TripPlace) => void;
}

/** Fill and Adjust as the user meets them, side by side where there is room; and what they would trip over. */
export function TryTab({ selected, onSelect, onSeek, notices, onGo }: Props) {
  const wide = useIsWide();
  const { reel, edit, settle } = useGraphicEditor();
  const [side, setSide] = useState<'fill' | 'adjust'>('fill');
  const fill = <FillStep selected={selected} onSelect={onSelect} onSeek={onSeek} notices={notices} />;
  const adjust = (
    <View style={styles.all}>
      <LooksRow />
      <ControlGroups />
    </View>
  );
  return (
    <View style={styles.all} testID="try-list">
      <Choice
        label="Shape of the frame"
        testID="try-shape"
        value={frameShape(reel.frame)}
        options={FRAME_SHAPES}
        onChange={(shape) => {
          edit((r) => setShape(r, shape));
          settle();
        }}
      />
      <Trips onGo={onGo} />
      {wide ? (
        <View style={styles.sides}>
          <View style={styles.side} testID="try-fill">
            {fill}
          </View>
          <View style={styles.side} testID="try-adjust">
            {adjust}
          </View>
        </View>
      ) : (
        <>
          <Choice
            label="Which step"
            value={side}
            options={[
              { id: 'fill', name: 'Fill' },
              { id: 'adjust', name: 'Adjust' },
            ]}
            onChange={setSide}
            testID="try-step"
          />
          {side === 'fill' ? fill : adjust}
        </>
      )}
    </View>
  );
}

/** What a user would trip over, looked at when it is asked for: each leads to where it is mended. */
function Trips({ onGo }: { onGo: (to: TripPlace) => void }) {
  const { bench, template } = useWork();
  const [asked, setAsked] = useState<typeof template>();
  const { data, error, isFetching } = useQuery({
    queryKey: ['trips', asked],
    queryFn: async () => (await askOfReel(bench, { about: 'trips' })).trips,
    enabled: asked !== undefined,
    retry: false,
    gcTime: 0,
  });
  const stale = asked !== undefined && asked !== template;
  return (
    <Part title="What a user would trip over">
      <View style={styles.row}>
        <Button
          title={isFetching ? 'Looking…' : asked ? 'Look again' : 'Look for it'}
          icon="search"
          disabled={isFetching}
          onPress={() => setAsked(template)}
          testID="trips-look"
        />
      </View>
      {error && <Banner kind="fault">{`It could not be looked at: ${error.message}`}</Banner>}
      {stale && (
        <Txt kind="small" tone="quiet">
          It has changed since it was looked at.
        </Txt>
      )}
      {data?.length === 0 && !isFetching && (
        <Banner kind="done" testID="trips-none">
          Nothing was found that a user would trip over.
        </Banner>
      )}
      {data?.map((trip: Trip, i) => (
        <Banner
          key={i}
          kind="watch"
          testID={`trip-${i}`}
          action={<Button title="Go there" small onPress={() => onGo(trip.at)} testID={`trip-go-${i}`} />}
        >
          {trip.text}
        </Banner>
      ))}
    </Part>
  );
}

const styles = StyleSheet.create({
  all: { gap: 20 },
  row: { flexDirection: 'row' },
  sides: { flexDirection: 'row', gap: 24 },
  side: { flex: 1 },
});
