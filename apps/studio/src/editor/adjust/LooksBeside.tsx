import { chooseLook, fillInLook, frameShape } from '@fresh-reel/core';
import { useMemo } from 'react';
import { StyleSheet, View } from 'react-native';
import { secondsOf } from '../../templates/facts';
import { TemplatePreview } from '../../templates/TemplatePreview';
import { useRounds } from '../../templates/useRounds';
import { Press } from '../../ui/Press';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';
import { CORNER, colour } from '../../ui/theme';
import { useNearScreen } from '../../ui/useNearScreen';
import { useGraphicEditor } from '../session/useReelEditor';

/** The same content in every look of its template, playing in step; one of them is taken. */
export function LooksBeside({ onClose }: { onClose: () => void }) {
  const { graphic, edit, settle } = useGraphicEditor();
  const { template, fill } = graphic;
  const round = useRounds(secondsOf(template));
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
            <View style={[styles.edge, id === worn && styles.worn]}>
              <InLook look={id} round={round} />
            </View>
            <Txt kind="small" numberOfLines={1}>
              {id === worn ? `${name} (now)` : name}
            </Txt>
          </Press>
        ))}
      </View>
    </Sheet>
  );
}

function InLook({ look, round }: { look: string; round: number }) {
  const { graphic, reel } = useGraphicEditor();
  const { template } = graphic;
  const { ref, near } = useNearScreen();
  const shape = frameShape(reel.frame);
  const fill = useMemo(() => fillInLook(template, graphic.fill, look), [template, graphic.fill, look]);
  return (
    <View ref={ref} style={[styles.picture, styles[shape]]}>
      {near && <TemplatePreview template={template} shape={shape} moving fill={fill} round={round} />}
    </View>
  );
}

const styles = StyleSheet.create({
  grid: { flexDirection: 'row', flexWrap: 'wrap', gap: 12, paddingBottom: 16 },
  card: { width: 160, gap: 4, borderRadius: CORNER },
  edge: { borderWidth: 2, borderColor: 'transparent', borderRadius: CORNER, padding: 2 },
  worn: { borderColor: colour.accent },
  picture: { borderRadius: CORNER - 3, overflow: 'hidden', backgroundColor: colour.surround },
  wide: { aspectRatio: 16 / 9 },
  square: { aspectRatio: 1 },
  tall: { aspectRatio: 9 / 16 },
});
