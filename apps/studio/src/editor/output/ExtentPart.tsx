import { type Brand, EXTENTS, type Extent, type FrameShape, type Reel, reelEnd } from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Txt } from '../../ui/Txt';
import { TimeField } from '../place/TimeField';
import { AlsoShapes } from '../plans/AlsoShapes';
import { AlsoToggles } from '../plans/AlsoToggles';

const NAMES: Readonly<Record<Extent, string>> = {
  all: 'All of it',
  range: 'From one time to another',
  titles: 'Titles alone',
  'each-title': 'Each title by itself',
};

const ABOUT: Readonly<Record<Extent, string>> = {
  all: '',
  range: '',
  titles: 'One file without the footage, as long as the reel, to lay over it in another program.',
  'each-title': 'One file for each title, named by the time code at which it begins.',
};

interface Props {
  readonly extent: Extent;
  readonly range: readonly [number, number] | undefined;
  readonly playhead: () => number;
  readonly onChange: (part: Pick<NonNullable<Reel['output']>, 'extent' | 'range'>) => void;
  readonly shapes: readonly FrameShape[];
  readonly onShapes: (shapes: readonly FrameShape[]) => void;
  readonly brands: readonly Brand[];
  /** Ids of the brands that it is also rendered in. */
  readonly worn: readonly string[];
  readonly onWorn: (brands: readonly string[]) => void;
}

/** What of the reel is rendered, and in which frames and brands besides its own. */
export function ExtentPart(props: Props) {
  const { extent, range, playhead, onChange, shapes, onShapes, brands, worn, onWorn } = props;
  const { reel } = useReelEditor();
  const [from, to] = range ?? [0, reelEnd(reel)];
  const ends = [
    { label: 'From', id: 'range-from', frame: from, put: (f: number) => onChange({ range: [f, to] }) },
    { label: 'Up to', id: 'range-to', frame: to, put: (f: number) => onChange({ range: [from, f] }) },
  ];
  return (
    <View style={styles.all}>
      <Txt kind="lead" level={2}>
        What of it
      </Txt>
      <Choice
        label="What of it"
        value={extent}
        options={EXTENTS.map((id) => ({ id, name: NAMES[id] }))}
        onChange={(next) => onChange({ extent: next === 'all' ? undefined : next })}
        testID="output-extent"
      />
      {ABOUT[extent] !== '' && (
        <Txt kind="small" tone="quiet">
          {ABOUT[extent]}
        </Txt>
      )}
      {extent === 'range' && (
        <View style={styles.ends}>
          {ends.map(({ label, id, frame, put }) => (
            <View key={id} style={styles.end}>
              <TimeField label={label} frame={frame} rate={reel.rate} onChange={put} testID={id} />
              <Button title="The playhead" small onPress={() => put(playhead())} testID={`${id}-here`} />
            </View>
          ))}
        </View>
      )}
      <AlsoShapes shapes={shapes} onShapes={onShapes} testID="also" />
      <AlsoToggles
        options={brands.map(({ id, name }) => ({ id, name: `Also in the brand “${name}”` }))}
        chosen={worn}
        onChosen={onWorn}
        testID="also-brand"
      />
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: 10 },
  ends: { flexDirection: 'row', flexWrap: 'wrap', gap: 16 },
  end: { gap: 6, flexGrow: 1, flexBasis: 150 },
});
