import { lengthOf, moveItems, type ReelItem, trimItem } from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { useDesk } from '../../editing/session/desk';
import { useAttempt } from '../../editing/session/useAttempt';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { Press } from '../../ui/Press';
import { Txt } from '../../ui/Txt';
import { CORNER, colour } from '../../ui/theme';
import { ItemDetails } from './ItemDetails';
import { KIND_WORDS, nameOf, trackName } from './itemWords';
import { TimeField } from './TimeField';

/** What happens when, in words and numbers: all that the line does can be done here by typing. */
export function ItemList() {
  const { reel } = useReelEditor();
  const all = reel.tracks
    .flatMap((track) => track.items.map((item) => ({ item, track })))
    .sort((a, b) => a.item.start - b.item.start);
  return (
    <View role="list" aria-label="What happens when" style={styles.list}>
      {all.map(({ item, track }) => (
        <ItemRow key={item.id} item={item} track={track.id} />
      ))}
    </View>
  );
}

function ItemRow({ item, track }: { item: ReelItem; track: string }) {
  const { reel, mayEdit } = useReelEditor();
  const { item: chosen, chooseItem, seek } = useDesk();
  const attempt = useAttempt();
  const on = item.id === chosen;
  const length = lengthOf(reel, item);
  return (
    <View role="listitem" style={[styles.row, on && styles.on]} testID={`row-of-${item.id}`}>
      <Press
        role="button"
        aria-expanded={on}
        onPress={() => {
          chooseItem(on ? undefined : item.id);
          if (!on) seek(item.start);
        }}
        testID={`row-${item.id}`}
        style={styles.head}
      >
        <Txt kind="strong" numberOfLines={1}>
          {nameOf(reel, item)}
        </Txt>
        <Txt kind="small" tone="quiet">
          {`${KIND_WORDS[item.kind]}, ${trackName(reel, track)}`}
        </Txt>
      </Press>
      <View style={styles.times}>
        <TimeField
          label="Begins"
          frame={item.start}
          rate={reel.rate}
          disabled={!mayEdit}
          onChange={(frame) => attempt((r) => moveItems(r, [item.id], frame - item.start))}
          testID={`begins-${item.id}`}
        />
        <TimeField
          label="Lasts"
          frame={length}
          rate={reel.rate}
          disabled={!mayEdit}
          onChange={(frames) => attempt((r) => trimItem(r, item.id, 'end', item.start + frames))}
          testID={`lasts-${item.id}`}
        />
      </View>
      {on && <ItemDetails item={item} length={length} />}
    </View>
  );
}

const styles = StyleSheet.create({
  list: { gap: 8 },
  row: {
    gap: 8,
    padding: 12,
    borderWidth: 1,
    borderColor: colour.hairline,
    borderRadius: CORNER,
    backgroundColor: colour.card,
  },
  on: { borderColor: colour.accent },
  head: { minHeight: 44, justifyContent: 'center' },
  times: { flexDirection: 'row', gap: 10 },
});
