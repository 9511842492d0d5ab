import { memo } from 'react';
import { StyleSheet, View } from 'react-native';
import { Icon, type IconName } from '../ui/Icon';
import { Press } from '../ui/Press';
import { Txt } from '../ui/Txt';
import { colour } from '../ui/theme';

export type Bay = 'parts' | 'controls' | 'slots' | 'times' | 'finish' | 'try';

const BAYS: readonly { id: Bay; name: string; icon: IconName }[] = [
  { id: 'parts', name: 'Parts', icon: 'layers' },
  { id: 'controls', name: 'Controls', icon: 'sliders-horizontal' },
  { id: 'slots', name: 'Slots', icon: 'pen-line' },
  { id: 'times', name: 'Times', icon: 'rows' },
  { id: 'finish', name: 'Looks', icon: 'aperture' },
  { id: 'try', name: 'Try it', icon: 'play' },
];

/** What of a template is worked on. */
export const Bays = memo(function Bays({
  bay,
  onBay,
  wide,
}: {
  bay: Bay;
  onBay: (bay: Bay) => void;
  wide: boolean;
}) {
  return (
    <View role="tablist" aria-label="What is worked on" style={[styles.bays, wide && styles.baysWide]}>
      {BAYS.map(({ id, name, icon }) => {
        const on = id === bay;
        return (
          <Press
            key={id}
            role="tab"
            aria-selected={on}
            onPress={() => onBay(id)}
            testID={`bay-${id}`}
            style={[styles.bay, on && styles.bayOn]}
          >
            <Icon name={icon} tint={on ? colour.ink : colour.quiet} size={18} />
            <Txt kind="label" tone={on ? 'ink' : 'quiet'} numberOfLines={1}>
              {name}
            </Txt>
          </Press>
        );
      })}
    </View>
  );
});

const styles = StyleSheet.create({
  bays: {
    flexDirection: 'row',
    borderTopWidth: 1,
    borderColor: colour.hairline,
    backgroundColor: colour.card,
  },
  baysWide: { borderTopWidth: 0, borderBottomWidth: 1 },
  bay: {
    flex: 1,
    minHeight: 54,
    alignItems: 'center',
    justifyContent: 'center',
    gap: 2,
    borderTopWidth: 3,
    borderColor: 'transparent',
  },
  bayOn: { borderColor: colour.accent },
});
