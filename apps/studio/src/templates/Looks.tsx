import type { Brand, Fill, FrameShape, Template } from '@fresh-reel/core';
import { useMemo } from 'react';
import { StyleSheet } from 'react-native';
import { wornFill } from '../preview/ownFill';
import { Radio, RadioGroup } from '../ui/RadioGroup';
import { Txt } from '../ui/Txt';
import { CORNER } from '../ui/theme';
import { LookPicture } from './LookPicture';

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
          <Look
            template={template}
            shape={shape}
            look={id}
            brand={brand}
            chosen={id === (chosen ?? template.looks[0]?.id)}
          />
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
  look,
  brand,
  ...rest
}: Pick<Props, 'template' | 'shape' | 'brand'> & { readonly look: string; readonly chosen: boolean }) {
  const fill = useMemo(() => lookFill(template, look, brand), [template, look, brand]);
  return <LookPicture template={template} fill={fill} {...rest} />;
}

const styles = StyleSheet.create({
  grid: { flexDirection: 'row', flexWrap: 'wrap', gap: 10 },
  look: { width: 148, gap: 4, borderRadius: CORNER },
});
