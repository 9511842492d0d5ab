import type { Template } from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { USE_NAMES } from '../../preview/templateFacts';
import { useTemplates, wholeTemplate } from '../../storage/useTemplates';
import { Press } from '../../ui/Press';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';
import { CORNER, colour } from '../../ui/theme';

/** Templates to choose one from, for a title at the playhead. */
export function TitleSheet({
  withPicture = false,
  onChoose,
  onClose,
}: {
  /** Those alone that take a picture. */
  withPicture?: boolean;
  onChoose: (template: Template) => void;
  onClose: () => void;
}) {
  const { templates } = useTemplates();
  const choose = async (id: string) => {
    const template = await wholeTemplate(id);
    if (template) onChoose(template);
  };
  return (
    <Sheet title="Which title?" onClose={onClose} testID="title-sheet">
      <View style={styles.list}>
        {templates
          .filter((t) => !withPicture || t.takes.picture > 0)
          .map((template) => (
            <Press
              key={template.id}
              role="button"
              aria-label={template.name}
              onPress={() => void choose(template.id)}
              testID={`title-${template.id}`}
              style={styles.one}
            >
              <Txt kind="strong">{template.name}</Txt>
              <Txt kind="small" tone="quiet" numberOfLines={2}>
                {`${USE_NAMES[template.use]}. ${template.about}`}
              </Txt>
            </Press>
          ))}
      </View>
    </Sheet>
  );
}

const styles = StyleSheet.create({
  list: { gap: 8 },
  one: {
    padding: 12,
    gap: 2,
    borderWidth: 1,
    borderColor: colour.hairline,
    borderRadius: CORNER,
    backgroundColor: colour.card,
  },
});
