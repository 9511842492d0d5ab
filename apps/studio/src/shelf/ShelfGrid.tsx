import { Image, StyleSheet, View } from 'react-native';
import { codecText, lengthText } from '../media/facts';
import { useThumb } from '../media/useThumb';
import { type MediaRecord, mediaId } from '../storage/media';
import { Icon, type IconName } from '../ui/Icon';
import { Press } from '../ui/Press';
import { Txt } from '../ui/Txt';
import { CHEQUERED, CORNER, colour, useIsWide } from '../ui/theme';
import { bytesText } from '../ui/units';
import { VirtualGrid } from '../ui/VirtualGrid';
import { Wave } from './Wave';

export const KINDS: Readonly<Record<MediaRecord['kind'], { word: string; icon: IconName }>> = {
  picture: { word: 'Picture', icon: 'image' },
  clip: { word: 'Clip', icon: 'film' },
  sound: { word: 'Sound', icon: 'music' },
};

interface Props {
  readonly records: readonly MediaRecord[];
  readonly chosen?: string | undefined;
  /** Several that are chosen, in their order, by hash. */
  readonly numbers?: ReadonlyMap<string, number>;
  readonly onChoose: (record: MediaRecord) => void;
  readonly columns: number;
}

/** Files side by side: a small picture or the shape of the sound, and what each is. */
export function ShelfGrid({ records, chosen, numbers, onChoose, columns }: Props) {
  return (
    <VirtualGrid
      items={records}
      keyOf={(record) => record.hash}
      columns={columns}
      gap={10}
      height={190}
      render={(record) => (
        <Item
          record={record}
          chosen={record.hash === chosen || numbers?.has(record.hash) === true}
          number={numbers?.get(record.hash)}
          onPress={() => onChoose(record)}
        />
      )}
    />
  );
}

export function useColumns(): number {
  return useIsWide() ? 5 : 2;
}

interface ItemProps {
  readonly record: MediaRecord;
  readonly chosen: boolean;
  readonly number: number | undefined;
  readonly onPress: () => void;
}

function Item({ record, chosen, number, onPress }: ItemProps) {
  const thumb = useThumb(record.kind === 'sound' ? undefined : mediaId(record));
  const kind = KINDS[record.kind];
  const facts = [lengthText(record), codecText(record), bytesText(record.size)].filter(Boolean).join(', ');
  return (
    <Press
      role="button"
      aria-pressed={chosen}
      onPress={onPress}
      testID={`media-${record.name}`}
      style={[styles.item, chosen && styles.chosen]}
    >
      <View style={[styles.picture, record.kind === 'sound' && styles.paper, record.alpha && CHEQUERED]}>
        {record.kind === 'sound' ? (
          <Wave hash={record.hash} />
        ) : (
          thumb && <Image source={{ uri: thumb }} style={styles.image} resizeMode="contain" alt="" />
        )}
        <View role="img" aria-label={kind.word} style={styles.kind} pointerEvents="none">
          <Icon name={kind.icon} size={12} tint="#FFFFFF" />
        </View>
        {number !== undefined && (
          <View style={styles.number} pointerEvents="none">
            <Txt kind="label" tone="white">
              {number}
            </Txt>
          </View>
        )}
      </View>
      <Txt kind="small" numberOfLines={1}>
        {record.name}
      </Txt>
      <Txt kind="label" tone="quiet" numberOfLines={2}>
        {facts}
      </Txt>
    </Press>
  );
}

const styles = StyleSheet.create({
  item: { gap: 2, borderRadius: CORNER, padding: 4 },
  chosen: { backgroundColor: colour.accentTint },
  picture: {
    aspectRatio: 4 / 3,
    borderRadius: 8,
    overflow: 'hidden',
    backgroundColor: colour.hairline,
    borderWidth: 1,
    borderColor: colour.hairline,
  },
  paper: { backgroundColor: colour.card },
  image: { width: '100%', height: '100%' },
  number: {
    position: 'absolute',
    left: 5,
    top: 5,
    minWidth: 24,
    height: 24,
    borderRadius: 12,
    alignItems: 'center',
    justifyContent: 'center',
    backgroundColor: colour.accent,
  },
  kind: {
    position: 'absolute',
    right: 5,
    bottom: 5,
    padding: 4,
    borderRadius: 5,
    backgroundColor: colour.shade,
  },
});
