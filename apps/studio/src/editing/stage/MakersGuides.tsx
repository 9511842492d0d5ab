import type { Guideline } from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { Txt } from '../../ui/Txt';
import { colour } from '../../ui/theme';

interface Props {
  readonly guidelines: readonly Guideline[];
  /** The slot that is filled: lines of other slots do not show. All show, when absent. */
  readonly slot?: string | undefined;
  readonly all?: boolean;
}

/** Lines and boxes that say how large and where something should sit. A working aid: they are never rendered. */
export function MakersGuides({ guidelines, slot, all = false }: Props) {
  const shown = guidelines.filter(
    ({ slots }) => all || slots.length === 0 || (slot !== undefined && slots.includes(slot)),
  );
  if (shown.length === 0) return null;
  return (
    <View style={StyleSheet.absoluteFill} pointerEvents="none" testID="makers-guides">
      {shown.map(({ id, name, lies }) => (
        <View key={id} style={[styles.guide, placeOf(lies)]} testID={`guideline-${id}`}>
          <View style={styles.name}>
            <Txt kind="small" tone="white" numberOfLines={1}>
              {name}
            </Txt>
          </View>
        </View>
      ))}
    </View>
  );
}

const percent = (part: number) => `${part * 100}%` as const;

function placeOf(lies: Guideline['lies']) {
  if ('across' in lies) return { ...styles.across, top: percent(lies.across) };
  if ('down' in lies) return { ...styles.down, left: percent(lies.down) };
  const [left, top, width, height] = lies.box;
  return {
    ...styles.box,
    left: percent(left),
    top: percent(top),
    width: percent(width),
    height: percent(height),
  };
}

const styles = StyleSheet.create({
  guide: { position: 'absolute', borderColor: colour.guide, borderStyle: 'dashed' },
  across: { left: 0, right: 0, borderTopWidth: 1.5 },
  down: { top: 0, bottom: 0, borderLeftWidth: 1.5 },
  box: { borderWidth: 1.5 },
  name: {
    alignSelf: 'flex-start',
    backgroundColor: colour.shade,
    borderRadius: 4,
    paddingHorizontal: 5,
    margin: 2,
    maxWidth: 160,
  },
});
