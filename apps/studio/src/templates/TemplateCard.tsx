import type { ListedTemplate } from '@fresh-reel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { shippedStill, TemplatePreview, TemplateStill } from '../preview/TemplatePreview';
import { summaryOf } from '../preview/templateFacts';
import { useTemplate } from '../storage/useTemplates';
import { IconButton } from '../ui/Button';
import { Icon } from '../ui/Icon';
import { LinkPress } from '../ui/LinkPress';
import { Press } from '../ui/Press';
import { Txt } from '../ui/Txt';
import { CORNER, colour } from '../ui/theme';
import { useNearScreen } from '../ui/useNearScreen';
import { usePassing } from '../ui/VirtualGrid';

interface Props {
  readonly template: ListedTemplate;
  readonly isOwn: boolean;
  readonly moving: boolean;
  readonly brand: Parameters<typeof TemplatePreview>[0]['brand'];
  readonly onPoint: (on: boolean) => void;
  readonly favourite: boolean;
  readonly onFavourite: () => void;
  /** Whether it is chosen to be compared; absent where cards lead to their template. */
  readonly chosen?: boolean | undefined;
  readonly onChoose: () => void;
}

/** A template on the contact sheet: its picture in its own frame, what it is, and whether it comes first. */
export function TemplateCard(props: Props) {
  const { template, onPoint, favourite, onFavourite, chosen, onChoose } = props;
  const pointing = {
    onHoverIn: () => onPoint(true),
    onHoverOut: () => onPoint(false),
    onFocus: () => onPoint(true),
    onBlur: () => onPoint(false),
    testID: `template-card-${template.id}`,
  };
  return (
    <View>
      {chosen === undefined ? (
        <LinkPress {...pointing} href={`/templates/${template.id}`} style={styles.card}>
          <Content {...props} />
        </LinkPress>
      ) : (
        <Press
          {...pointing}
          role="checkbox"
          aria-checked={chosen}
          aria-label={`Compare ${template.name}`}
          onPress={onChoose}
          style={styles.card}
        >
          <Content {...props} />
          <View style={[styles.tick, chosen && styles.ticked]}>
            {chosen && <Icon name="check" size={18} tint={colour.card} />}
          </View>
        </Press>
      )}
      {chosen === undefined && (
        <View style={styles.star}>
          <IconButton
            icon="star"
            label={favourite ? `${template.name} is a favourite` : `Make ${template.name} a favourite`}
            on={favourite}
            onPress={onFavourite}
            testID={`favourite-${template.id}`}
          />
        </View>
      )}
    </View>
  );
}

function Content({ template, isOwn, moving, brand }: Props) {
  const { ref, near } = useNearScreen();
  const passing = usePassing();
  // What is shown stays while it is near; what comes by in passing is not begun.
  const [begun, setBegun] = useState(false);
  if (begun !== near && !(near && passing)) setBegun(near);
  // One that ships stands there as a file; its document is fetched once it moves, or wears something.
  const asItComes = !isOwn && !brand;
  const [lost, setLost] = useState(false);
  const [moved, setMoved] = useState(false);
  const paints = begun && (!asItComes || lost || moving || moved);
  if (paints !== moved) setMoved(paints);
  const { template: whole } = useTemplate(paints ? template.id : undefined);
  return (
    <>
      <View ref={ref} style={styles.room}>
        <View style={[styles.picture, styles[template.shape]]}>
          {begun && asItComes && !whole && !lost && (
            <TemplateStill
              source={shippedStill(template.id)}
              shape={template.shape}
              transparent={!template.covers}
              onLost={() => setLost(true)}
            />
          )}
          {whole && (
            <TemplatePreview
              template={whole}
              shape={template.shape}
              moving={moving}
              brand={brand}
              still={asItComes ? shippedStill(template.id) : undefined}
            />
          )}
        </View>
      </View>
      <View style={styles.caption}>
        <Txt kind="strong" level={2} numberOfLines={1}>
          {template.name}
        </Txt>
        <Txt kind="small" tone="quiet" numberOfLines={2}>
          {isOwn ? 'Yours. ' : ''}
          {summaryOf(template)}
        </Txt>
      </View>
    </>
  );
}

const styles = StyleSheet.create({
  card: { gap: 8, borderRadius: CORNER },
  // Room for any shape; pictures stand on its floor, so that captions are in line.
  room: { aspectRatio: 4 / 3, justifyContent: 'flex-end' },
  picture: { borderRadius: CORNER, overflow: 'hidden', backgroundColor: colour.surround },
  wide: { width: '100%', aspectRatio: 16 / 9 },
  square: { width: '75%', aspectRatio: 1 },
  tall: { width: '42.1875%', aspectRatio: 9 / 16 },
  caption: { gap: 2, minHeight: 60 },
  star: { position: 'absolute', top: 0, right: 0 },
  tick: {
    position: 'absolute',
    top: 8,
    right: 8,
    width: 28,
    height: 28,
    borderRadius: 14,
    borderWidth: 2,
    borderColor: colour.edge,
    backgroundColor: colour.card,
    alignItems: 'center',
    justifyContent: 'center',
  },
  ticked: { backgroundColor: colour.accent, borderColor: colour.accent },
});
