import { freeName, type Layer } from '@fresh-reel/core';
import { changePart } from '@fresh-reel/core/make';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { ShelfSheet } from '../shelf/ShelfSheet';
import { mediaId } from '../storage/media';
import { Button } from '../ui/Button';
import { Part } from '../ui/Part';
import { Txt } from '../ui/Txt';
import { useMade } from './work/useWork';

/** A picture or clip that stands for a part: in drafts, and where a version does not know its kind. */
export function StandInPart({ layer }: { layer: Layer }) {
  const { template, makePart } = useMade();
  const [choosing, setChoosing] = useState(false);
  const set = (media: string | undefined) =>
    makePart(layer.id, (t) => {
      if (media === undefined) return changePart(t, layer.id, ({ standIn: _, ...held }) => held as Layer);
      const there = Object.entries(t.assets).find(([, held]) => held === media)?.[0];
      const name = there ?? freeName('stand-in', (n) => Object.hasOwn(t.assets, n));
      const kept = { ...t, assets: { ...t.assets, [name]: media } };
      return changePart(kept, layer.id, (held) => ({ ...held, standIn: name }));
    });
  return (
    <Part title="Stand-in">
      <Txt kind="small" tone="quiet">
        {layer.standIn === undefined
          ? 'A picture or clip that shows in its place: in drafts, where it costs much to paint, and where an older version does not know what it is.'
          : `“${layer.standIn}” stands for it in drafts, and where a version does not know what it is.`}
      </Txt>
      <View style={styles.row}>
        <Button
          title={layer.standIn === undefined ? 'Choose one' : 'Choose another'}
          icon="image"
          small
          onPress={() => setChoosing(true)}
          testID="stand-in"
        />
        {layer.standIn !== undefined && (
          <Button title="None" small onPress={() => set(undefined)} testID="stand-in-none" />
        )}
      </View>
      {choosing && (
        <ShelfSheet
          title={`What stands for it in “${template.name}”?`}
          kinds={['picture', 'clip']}
          onChoose={(record) => {
            set(mediaId(record));
            setChoosing(false);
          }}
          onClose={() => setChoosing(false)}
        />
      )}
    </Part>
  );
}

const styles = StyleSheet.create({ row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 } });
