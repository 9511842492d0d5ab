import type { GuideStep, Template } from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { TemplatePreview } from '../preview/TemplatePreview';
import { Txt } from '../ui/Txt';
import { CORNER, colour } from '../ui/theme';
import { useNearScreen } from '../ui/useNearScreen';

/** The guide of a template in numbered steps, some with a picture of the moment they are about. */
export function Guide({ template }: { template: Template }) {
  return template.guide.map((step, i) => (
    <View key={i} style={styles.step}>
      <Txt kind="strong" style={styles.number}>
        {i + 1}
      </Txt>
      <View style={styles.grow}>
        <Txt>{wordsOfStep(step)}</Txt>
        {typeof step === 'object' && <StepPicture template={template} shows={step.shows} />}
      </View>
    </View>
  ));
}

/** The words of a step, with a picture or without. */
export const wordsOfStep = (step: GuideStep): string => (typeof step === 'string' ? step : step.text);

/** A moment of a template, painted while it is near the screen. */
export function StepPicture({
  template,
  shows,
}: {
  template: Template;
  shows: Extract<GuideStep, object>['shows'];
}) {
  const { ref, near } = useNearScreen();
  return (
    <View ref={ref} style={styles.picture}>
      {near && (
        <TemplatePreview template={{ ...template, still: shows }} shape={template.shape} moving={false} />
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  step: { flexDirection: 'row', gap: 12 },
  number: { width: 20, color: colour.accent },
  grow: { flex: 1, gap: 8 },
  picture: {
    width: 200,
    minHeight: 60,
    borderRadius: CORNER,
    overflow: 'hidden',
    backgroundColor: colour.surround,
  },
});
