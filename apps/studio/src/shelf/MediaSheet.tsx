import { useState } from 'react';
import { Image, StyleSheet, View } from 'react-native';
import { codecText, lengthText } from '../media/facts';
import { useThumb } from '../media/useThumb';
import { type MediaRecord, mediaId } from '../storage/media';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Txt } from '../ui/Txt';
import { colour } from '../ui/theme';
import { bytesText } from '../ui/units';
import { KINDS } from './ShelfGrid';
import { Wave } from './Wave';

interface Props {
  readonly record: MediaRecord;
  readonly usedIn: readonly string[];
  readonly groups: readonly string[];
  readonly onGroup: (name: string) => void;
  readonly onTakeOff: () => void;
}

/** One file of the shelf: what it is, where it shows, its group, and the way off the shelf. */
export function MediaSheet({ record, usedIn, groups, onGroup, onTakeOff }: Props) {
  const thumb = useThumb(record.kind === 'sound' ? undefined : mediaId(record));
  const [group, setGroup] = useState(record.group ?? '');
  const facts = [
    KINDS[record.kind].word,
    lengthText(record),
    record.kind === 'clip' && record.width ? `${record.width} × ${record.height}` : '',
    record.rate ? `${Math.round(record.rate * 100) / 100} frames a second` : '',
    codecText(record),
    record.sound ? 'with sound' : '',
    bytesText(record.size),
  ].filter(Boolean);
  return (
    <View style={styles.all}>
      <View style={styles.picture}>
        {record.kind === 'sound' ? (
          <Wave hash={record.hash} />
        ) : (
          thumb && (
            <Image source={{ uri: thumb }} style={styles.image} resizeMode="contain" alt={record.name} />
          )
        )}
      </View>
      <Txt kind="small">{facts.join(', ')}</Txt>
      <Txt kind="small" tone={usedIn.length > 0 ? 'ink' : 'quiet'} testID="media-used">
        {usedIn.length > 0 ? `Shows in ${usedIn.join(', ')}.` : 'Shows nowhere yet.'}
      </Txt>
      <Field
        label="Group"
        value={group}
        maxLength={60}
        placeholder={groups.length > 0 ? `Such as ${groups[0]}` : 'Such as Saturday'}
        onChangeText={setGroup}
        onBlur={() => onGroup(group.trim())}
        onSubmitEditing={() => onGroup(group.trim())}
        testID="media-group"
      />
      <Button
        title="Take it off the shelf"
        kind="danger"
        icon="trash"
        onPress={onTakeOff}
        testID="media-remove"
      />
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: 12 },
  picture: {
    height: 150,
    borderRadius: 8,
    overflow: 'hidden',
    borderWidth: 1,
    borderColor: colour.hairline,
    backgroundColor: colour.card,
  },
  image: { width: '100%', height: 150 },
});
