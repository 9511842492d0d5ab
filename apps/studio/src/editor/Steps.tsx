import { StyleSheet, View } from 'react-native';
import { Icon, type IconName } from '../ui/Icon';
import { Press } from '../ui/Press';
import { Txt } from '../ui/Txt';
import { colour } from '../ui/theme';

export type Step = 'fill' | 'adjust' | 'place' | 'render';

const STEPS: readonly { id: Step; name: string; icon: IconName }[] = [
  { id: 'fill', name: 'Fill', icon: 'pen-line' },
  { id: 'adjust', name: 'Adjust', icon: 'sliders-horizontal' },
  { id: 'place', name: 'Place', icon: 'rows' },
  { id: 'render', name: 'Render', icon: 'film' },
];

/** The steps of a reel, within the thumb's reach on a phone. */
export function Steps({ step, onStep, wide }: { step: Step; onStep: (step: Step) => void; wide: boolean }) {
  return (
    <View role="tablist" aria-label="Steps" style={[styles.steps, wide && styles.stepsWide]}>
      {STEPS.map(({ id, name, icon }, i) => {
        const on = id === step;
        return (
          <Press
            key={id}
            role="tab"
            aria-selected={on}
            onPress={() => onStep(id)}
            testID={`step-${id}`}
            style={[styles.step, wide && styles.stepWide, on && styles.stepOn]}
          >
            <Icon name={icon} tint={on ? colour.ink : colour.quiet} />
            <Txt kind="label" tone={on ? 'ink' : 'quiet'}>
              {`${i + 1}  ${name}`}
            </Txt>
          </Press>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  steps: {
    flexDirection: 'row',
    borderTopWidth: 1,
    borderColor: colour.hairline,
    backgroundColor: colour.card,
  },
  stepsWide: { borderTopWidth: 0, borderBottomWidth: 1 },
  step: {
    flex: 1,
    minHeight: 56,
    alignItems: 'center',
    justifyContent: 'center',
    gap: 2,
    borderTopWidth: 3,
    borderColor: 'transparent',
  },
  stepWide: { flexDirection: 'row', gap: 8 },
  stepOn: { borderColor: colour.accent },
});
