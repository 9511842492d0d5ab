import type { Fill, FrameShape, Template } from '@fresh-reel/core';
import { listedOf } from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { TemplatePreview } from '../preview/TemplatePreview';
import { Txt } from '../ui/Txt';
import { CORNER, colour } from '../ui/theme';
import { useRounds } from './useRounds';

/** One of what is compared. */
export interface Side {
  readonly name: string;
  readonly template: Template;
  readonly fill: Fill;
}

/** What is there and what would be, playing in step. */
export function InStep({ sides, shape }: { sides: readonly [Side, Side]; shape: FrameShape }) {
  const round = useRounds(Math.max(...sides.map((s) => listedOf(s.template).seconds)));
  return (
    <View style={styles.sides}>
      {sides.map(({ name, template, fill }, i) => (
        <View key={i} style={styles.side}>
          <View style={styles.picture}>
            <TemplatePreview template={template} shape={shape} moving fill={fill} round={round} />
          </View>
          <Txt kind="small" numberOfLines={1}>
            {name}
          </Txt>
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  sides: { flexDirection: 'row', flexWrap: 'wrap', gap: 12 },
  side: { flex: 1, gap: 4, minWidth: 130 },
  picture: { borderRadius: CORNER, overflow: 'hidden', backgroundColor: colour.surround },
});
