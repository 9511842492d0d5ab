import { carriedFill, frameShape, type ListedTemplate, setTemplate, type Template } from '@fresh-reel/core';
import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useGraphicEditor } from '../../editing/session/useReelEditor';
import { TemplatePreview } from '../../preview/TemplatePreview';
import { USE_NAMES } from '../../preview/templateFacts';
import { useTemplate, useTemplates } from '../../storage/useTemplates';
import { InStep } from '../../templates/InStep';
import { useRecent } from '../../templates/useRecent';
import { Button } from '../../ui/Button';
import { Press } from '../../ui/Press';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';
import { CORNER, colour } from '../../ui/theme';
import { useNearScreen } from '../../ui/useNearScreen';
import { VirtualGrid } from '../../ui/VirtualGrid';

/** The same content in another template: looked at in all of them, then beside what is there now, then taken. */
export function AnotherTemplate({ onClose }: { onClose: () => void }) {
  const { graphic, edit, settle } = useGraphicEditor();
  const { templates } = useTemplates();
  const used = useRecent();
  const [other, setOther] = useState<Template>();
  const { use, id } = graphic.template;
  // Those for the same use first.
  const listed = useMemo(() => {
    const others = templates.filter((t) => t.id !== id);
    return [...others.filter((t) => t.use === use), ...others.filter((t) => t.use !== use)];
  }, [templates, use, id]);
  const take = (template: Template) => {
    edit((r) => setTemplate(r, graphic.id, template).reel);
    settle();
    used(template);
    onClose();
  };
  return (
    <Sheet title="Another template" onClose={onClose} testID="another-sheet">
      {other ? (
        <Beside other={other} onTake={() => take(other)} onBack={() => setOther(undefined)} />
      ) : (
        <VirtualGrid
          items={listed}
          keyOf={(t) => t.id}
          columns={2}
          gap={12}
          height={150}
          render={(template) => <Other listed={template} onChoose={setOther} />}
        />
      )}
    </Sheet>
  );
}

/** One template with what is in this one. */
function Other({ listed, onChoose }: { listed: ListedTemplate; onChoose: (template: Template) => void }) {
  const { graphic, reel } = useGraphicEditor();
  const { ref, near } = useNearScreen();
  const { template } = useTemplate(near ? listed.id : undefined);
  const fill = useMemo(
    () => template && carriedFill(graphic.template, graphic.fill, template).fill,
    [graphic.template, graphic.fill, template],
  );
  return (
    <Press
      role="button"
      aria-label={`Look at ${listed.name}`}
      disabled={!template}
      onPress={() => template && onChoose(template)}
      testID={`another-${listed.id}`}
      style={styles.card}
    >
      <View ref={ref} style={[styles.picture, styles.room]}>
        {near && template && (
          <TemplatePreview template={template} shape={frameShape(reel.frame)} moving={false} fill={fill} />
        )}
      </View>
      <Txt kind="small" numberOfLines={1}>
        {listed.name}
      </Txt>
      <Txt kind="small" tone="quiet" numberOfLines={1}>
        {USE_NAMES[listed.use]}
      </Txt>
    </Press>
  );
}

/** What is there now and what would be, playing in step; and what goes along, told before it is done. */
function Beside({ other, onTake, onBack }: { other: Template; onTake: () => void; onBack: () => void }) {
  const { graphic, reel } = useGraphicEditor();
  const { template, fill } = graphic;
  const carried = useMemo(() => carriedFill(template, fill, other), [template, fill, other]);
  const sides = [
    { name: 'Now', template, fill },
    { name: other.name, template: other, fill: carried.fill },
  ] as const;
  return (
    <View style={styles.beside}>
      <InStep sides={sides} shape={frameShape(reel.frame)} />
      <View testID="another-told" style={styles.told}>
        {carried.along.length > 0 && <Txt>Goes along: {carried.along.join(', ')}.</Txt>}
        {carried.behind.length > 0 && (
          <Txt tone="amber">Has no place there: {carried.behind.join(', ')}. Undo brings it back.</Txt>
        )}
        {carried.along.length + carried.behind.length === 0 && (
          <Txt tone="quiet">Nothing of your own is in it yet.</Txt>
        )}
      </View>
      <View style={styles.sides}>
        <Button title={`Make it ${other.name}`} kind="next" onPress={onTake} testID="another-take" />
        <Button title="Look at others" onPress={onBack} testID="another-back" />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  card: { gap: 2, borderRadius: CORNER },
  picture: { borderRadius: CORNER, overflow: 'hidden', backgroundColor: colour.surround },
  room: { minHeight: 90 },
  beside: { gap: 16, paddingBottom: 16 },
  sides: { flexDirection: 'row', flexWrap: 'wrap', gap: 12 },
  told: { gap: 6 },
});
