import type { Brand, Fill, FrameShape, Template } from '@fresh-reel/core';
import { useMemo } from 'react';
import { StyleSheet, View } from 'react-native';
import { Radio, RadioGroup } from '../ui/RadioGroup';
import { Txt } from '../ui/Txt';
import { CORNER, colour } from '../ui/theme';
import { useNearScreen } from '../ui/useNearScreen';
import { wornFill } from './ownFill';
import { TemplatePreview } from './TemplatePreview';

/** A template in one of its looks, wearing the user's brand if asked. */
export function lookFill(template: Template, look: string | undefined, brand: Brand | undefined): Fill {
  const worn = wornFill(template, brand);
  return look === undefined ? worn : { ...worn, look };
}

interface Props {
  readonly template: Template;
  readonly shape: FrameShape;
  readonly brand: Brand | undefined;
  readonly chosen: string | undefined;
  readonly onChoose: (look: string) => void;
}

/** Every look of a template, moving; the one that is chosen goes on into a reel. */
export function Looks({ template, shape, brand, chosen, onChoose }: Props) {
  return (
    <RadioGroup
      label="Look"
      ids={template.looks.map((l) => l.id)}
      value={chosen ?? template.looks[0]?.id}
      onChange={onChoose}
      style={styles.grid}
      testID="looks"
    >
      {template.looks.map(({ id, name }) => (
        <Radio key={id} id={id} label={name} testID={`show-look-${id}`} style={styles.look}>
          <View style={[styles.edge, id === (chosen ?? template.looks[0]?.id) && styles.chosen]}>
            <Look template={template} shape={shape} look={id} brand={brand} />
          </View>
          <Txt kind="small" numberOfLines={1}>
            {name}
          </Txt>
        </Radio>
      ))}
    </RadioGroup>
  );
}

function Look({
  template,
  shape,
  look,
  brand,
}: Pick<Props, 'template' | 'shape' | 'brand'> & { readonly look: string }) {
  const { ref, near } = useNearScreen();
  const fill = useMemo(() => lookFill(template, look, brand), [template, look, brand]);
  return (
    <View ref={ref} style={[styles.picture, styles[shape]]}>
      {near && <TemplatePreview key={shape} template={template} shape={shape} moving fill={fill} />}
    </View>
  );
}

const styles = StyleSheet.create({
  grid: { flexDirection: 'row', flexWrap: 'wrap', gap: 10 },
  look: { width: 148, gap: 4, borderRadius: CORNER },
  edge: { borderWidth: 2, borderColor: 'transparent', borderRadius: CORNER, padding: 2 },
  chosen: { borderColor: colour.accent },
  picture: { borderRadius: CORNER - 3, overflow: 'hidden', backgroundColor: colour.surround },
  wide: { aspectRatio: 16 / 9 },
  square: { aspectRatio: 1 },
  tall: { aspectRatio: 9 / 16 },
});
