import {
  applyBrand,
  applySpread,
  canBeFlat,
  chooseLook,
  frameShape,
  setFlat,
  setShape,
  spreadBrand,
  type Template,
  wearBrand,
} from '@fresh-reel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { ControlRow } from '../../editing/controls/ControlRow';
import { useGraphicEditor } from '../../editing/session/useReelEditor';
import { FRAME_SHAPES } from '../../preview/templateFacts';
import { sameContent } from '../../preview/usePreview';
import { useBrand } from '../../storage/queries';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Part } from '../../ui/Part';
import { Radio, RadioGroup } from '../../ui/RadioGroup';
import { Toggle } from '../../ui/Toggle';
import { Txt } from '../../ui/Txt';
import { CORNER, colour } from '../../ui/theme';
import { AnotherTemplate } from './AnotherTemplate';
import { KeepPart } from './KeepPart';
import { LooksBeside } from './LooksBeside';

/** Looks first, then the controls the maker left, in groups; each goes back to its default in one tap. */
export function AdjustStep() {
  const { graphic, reel, edit, settle } = useGraphicEditor();
  const { template, fill } = graphic;
  const [swapping, setSwapping] = useState(false);
  return (
    <View style={styles.all}>
      <LooksRow />
      <Part title="Frame">
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
      </Part>
      <View style={styles.start}>
        <Button
          title="Another template"
          icon="layout-grid"
          onPress={() => setSwapping(true)}
          testID="another-template"
        />
      </View>
      <ControlGroups />
      {canBeFlat(template) && (
        <Part title="Depth">
          <Toggle
            label="Sides of letters, and a soft distance"
            value={!fill.flat}
            onChange={(deep) => {
              edit((r) => setFlat(r, graphic.id, !deep));
              settle();
            }}
            testID="depth-on"
          />
          <Txt kind="small" tone="quiet">
            Flat and sharp takes less time to paint.
          </Txt>
        </Part>
      )}
      <KeepPart />
      {swapping && <AnotherTemplate onClose={() => setSwapping(false)} />}
    </View>
  );
}

/** The controls, in their groups. */
export function ControlGroups() {
  const { controls } = useGraphicEditor().graphic.template;
  const groups = [...new Set(controls.map((c) => c.group))];
  return groups.map((group) => (
    <Part key={group} title={group}>
      {controls
        .filter((c) => c.group === group)
        .map((control) => (
          <ControlRow key={control.id} control={control} />
        ))}
    </Part>
  ));
}

/** The looks, and the brand worn instead. */
export function LooksRow() {
  const { graphic, edit, settle } = useGraphicEditor();
  const brand = useBrand();
  const { template, fill } = graphic;
  const worn =
    brand !== null && brand !== undefined && sameContent(graphic.fill, wearBrand(template, fill, brand));
  const spread = brand ? sameContent(graphic.fill, spreadBrand(template, fill, brand)) : false;
  const hasColours = template.controls.some((c) => c.kind === 'colour');
  const [comparing, setComparing] = useState(false);
  return (
    <>
      <Part title="Looks">
        <RadioGroup
          label="Looks"
          ids={template.looks.map((l) => l.id)}
          value={fill.look}
          onChange={(look) => {
            edit((r) => chooseLook(r, graphic.id, look));
            settle();
          }}
          style={styles.looks}
        >
          {template.looks.map((look) => (
            <Radio
              key={look.id}
              id={look.id}
              label={look.name}
              testID={`look-${look.id}`}
              style={[styles.look, fill.look === look.id && styles.lookOn]}
            >
              <View style={styles.chips}>
                {coloursOf(look, template.controls).map((c, i) => (
                  <View key={`${c}-${i}`} style={[styles.chip, { backgroundColor: c }]} />
                ))}
              </View>
              <Txt kind="label">{look.name}</Txt>
            </Radio>
          ))}
        </RadioGroup>
        {template.looks.length > 1 && (
          <View style={styles.start}>
            <Button
              title="See them side by side"
              icon="rows"
              onPress={() => setComparing(true)}
              testID="compare-looks"
            />
          </View>
        )}
        {brand && (
          <View style={styles.start}>
            {template.controls.some((c) => c.brand) && (
              <Button
                title={worn ? `Wears ${brand.name}` : `Wear ${brand.name}`}
                icon={worn ? 'circle-check' : 'feather'}
                disabled={worn}
                testID="wear-brand"
                onPress={() => {
                  edit((r) => applyBrand(r, graphic.id, brand));
                  settle();
                }}
              />
            )}
            {hasColours && (
              <Button
                title={spread ? 'Its colours are spread' : 'Spread its colours'}
                icon={spread ? 'circle-check' : 'layers'}
                disabled={spread}
                testID="spread-brand"
                onPress={() => {
                  edit((r) => applySpread(r, graphic.id, brand));
                  settle();
                }}
              />
            )}
          </View>
        )}
      </Part>
      {comparing && <LooksBeside onClose={() => setComparing(false)} />}
    </>
  );
}

/** Colours that tell a look from others: those it sets, else those the template begins with. */
function coloursOf(look: Template['looks'][number], controls: Template['controls']): string[] {
  const set = Object.values(look.controls).filter(isColour);
  const own = controls.flatMap((c) => (c.kind === 'colour' && isColour(c.default) ? [c.default] : []));
  return (set.length > 0 ? set : own).slice(0, 4);
}

const isColour = (value: unknown): value is string => typeof value === 'string' && value.startsWith('#');

const styles = StyleSheet.create({
  all: { gap: 28 },
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
  start: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
});
