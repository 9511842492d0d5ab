import { applyBrand, chooseLook, frameShape, setShape } from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { useBrand } from '../../storage/queries';
import { FRAME_SHAPES } from '../../templates/facts';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Press } from '../../ui/Press';
import { Txt } from '../../ui/Txt';
import { CORNER, colour } from '../../ui/theme';
import { useReelEditor } from '../session/useReelEditor';
import { ControlRow } from './ControlRow';

/** Looks first, then the controls the maker left, in groups; each goes back to its default in one tap. */
export function AdjustStep() {
  const { graphic, reel, edit, settle } = useReelEditor();
  const { data: brand } = useBrand();
  const { template, fill } = graphic;
  const groups = [...new Set(template.controls.map((c) => c.group))];
  return (
    <View style={styles.all}>
      <View style={styles.group}>
        <Txt kind="lead" level={2}>
          Looks
        </Txt>
        <View role="radiogroup" aria-label="Looks" style={styles.looks}>
          {template.looks.map((look) => {
            const colours = Object.values(look.controls).filter(
              (v): v is string => typeof v === 'string' && v.startsWith('#'),
            );
            const chosen = fill.look === look.id;
            return (
              <Press
                key={look.id}
                role="radio"
                aria-checked={chosen}
                aria-label={look.name}
                testID={`look-${look.id}`}
                onPress={() => {
                  edit((r) => chooseLook(r, graphic.id, look.id));
                  settle();
                }}
                style={[styles.look, chosen && styles.lookOn]}
              >
                <View style={styles.chips}>
                  {colours.slice(0, 4).map((c, i) => (
                    <View key={`${c}-${i}`} style={[styles.chip, { backgroundColor: c }]} />
                  ))}
                </View>
                <Txt kind="label">{look.name}</Txt>
              </Press>
            );
          })}
        </View>
        {brand && template.controls.some((c) => c.brand) && (
          <View style={styles.start}>
            <Button
              title={`Wear ${brand.name}`}
              icon="feather"
              testID="wear-brand"
              onPress={() => {
                edit((r) => applyBrand(r, graphic.id, brand));
                settle();
              }}
            />
          </View>
        )}
      </View>
      <View style={styles.group}>
        <Txt kind="lead" level={2}>
          Frame
        </Txt>
        <Choice
          label="Shape of the frame"
          testID="frame-shape"
          value={frameShape(reel.frame)}
          options={FRAME_SHAPES}
          onChange={(shape) => {
            edit((r) => setShape(r, shape));
            settle();
          }}
        />
      </View>
      {groups.map((group) => (
        <View key={group} style={styles.group}>
          <Txt kind="lead" level={2}>
            {group}
          </Txt>
          {template.controls
            .filter((c) => c.group === group)
            .map((control) => (
              <ControlRow key={control.id} control={control} />
            ))}
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: 28 },
  group: { gap: 10 },
  looks: { flexDirection: 'row', flexWrap: 'wrap', gap: 10 },
  look: {
    padding: 8,
    borderRadius: CORNER,
    borderWidth: 1,
    borderColor: colour.hairline,
    backgroundColor: colour.card,
    gap: 6,
    minWidth: 78,
  },
  lookOn: { borderColor: colour.ink, borderWidth: 2, padding: 7 },
  chips: {
    flexDirection: 'row',
    borderRadius: 5,
    overflow: 'hidden',
    borderWidth: 1,
    borderColor: colour.hairline,
  },
  chip: { flex: 1, height: 30, minWidth: 18 },
  start: { flexDirection: 'row' },
});
