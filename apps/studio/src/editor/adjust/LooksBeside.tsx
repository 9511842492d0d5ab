import { chooseLook, fillInLook, frameShape, listedOf } from '@fresh-reel/core';
import { useMemo } from 'react';
import { StyleSheet, View } from 'react-native';
import { useGraphicEditor } from '../../editing/session/useReelEditor';
import { LookPicture } from '../../templates/LookPicture';
import { useRounds } from '../../templates/useRounds';
import { Press } from '../../ui/Press';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';
import { CORNER } from '../../ui/theme';

/** The same content in every look of its template, playing in step; one of them is taken. */
export function LooksBeside({ onClose }: { onClose: () => void }) {
  const { graphic, edit, settle } = useGraphicEditor();
  const { template, fill } = graphic;
  const round = useRounds(listedOf(template).seconds);
  const worn = fill.look ?? template.looks[0]?.id;
  return (
    <Sheet title="Looks side by side" onClose={onClose} testID="looks-sheet">
      <View style={styles.grid}>
        {template.looks.map(({ id, name }) => (
          <Press
            key={id}
            role="button"
            aria-label={id === worn ? `${name}, as it is now` : `Take ${name}`}
            testID={`beside-look-${id}`}
            style={styles.card}
            onPress={() => {
              edit((r) => chooseLook(r, graphic.id, id));
              settle();
              onClose();
            }}
          >
            <InLook look={id} chosen={id === worn} round={round} />
            <Txt kind="small" numberOfLines={1}>
              {id === worn ? `${name} (now)` : name}
            </Txt>
          </Press>
        ))}
      </View>
    </Sheet>
  );
}

function InLook({ look, ...rest }: { look: string; chosen: boolean; round: number }) {
  const { graphic, reel } = useGraphicEditor();
  const { template } = graphic;
  const fill = useMemo(() => fillInLook(template, graphic.fill, look), [template, graphic.fill, look]);
  return <LookPicture template={template} shape={frameShape(reel.frame)} fill={fill} {...rest} />;
}

const styles = StyleSheet.create({
  grid: { flexDirection: 'row', flexWrap: 'wrap', gap: 12, paddingBottom: 16 },
  card: { width: 160, gap: 4, borderRadius: CORNER },
});
