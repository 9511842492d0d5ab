import type { Property, TextChange, TextOutline, TextPlate } from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { NumberRow } from '../../ui/NumberRow';
import { Row } from '../../ui/Row';
import { Swatch } from '../../ui/Swatch';
import { Toggle } from '../../ui/Toggle';
import { colour } from '../../ui/theme';
import { swatchesOf } from '../controls/ControlRow';
import { useGraphicEditor } from '../session/useReelEditor';
import { resetOf, type WorkedText } from './useText';

/** Lines along the letters' edge, the first innermost. */
export function OutlinesPart({ text }: { text: WorkedText }) {
  const { layer, value, set, put, settle } = text;
  const { graphic } = useGraphicEditor();
  const { outlines } = layer;
  const change = (i: number, part: Partial<TextOutline>) =>
    put({ outlines: outlines.map((o, j) => (j === i ? { ...o, ...part } : o)) });
  return (
    <Row name="Outlines" onReset={resetOf(text, 'outlines')} resetID="reset-outlines">
      {outlines.map((o, i) => (
        <View key={i} style={styles.part}>
          <Choice
            label={`Side of outline ${i + 1}`}
            value={o.side}
            options={[
              { id: 'outside', name: 'Outside' },
              { id: 'centre', name: 'Centre' },
              { id: 'inside', name: 'Inside' },
            ]}
            onChange={(side) => {
              change(i, { side });
              settle();
            }}
            testID={`outline-side-${i}`}
          />
          <NumberRow
            name="Width"
            value={value(o.width)}
            min={0}
            max={80}
            step={0.5}
            unit="px"
            onChange={(width) => change(i, { width })}
            onSettle={settle}
            testID={`outline-width-${i}`}
          />
          <View style={styles.line}>
            <Swatch
              name={`Colour of outline ${i + 1}`}
              value={'colour' in o.paint ? value(o.paint.colour) : '#000000'}
              swatches={swatchesOf(graphic.template.looks)}
              onChange={(c) => change(i, { paint: { colour: c } })}
              onSettle={settle}
              testID={`outline-colour-${i}`}
            />
            <Button
              title="Remove"
              kind="plain"
              onPress={() => set({ outlines: outlines.filter((_, j) => j !== i) })}
              testID={`outline-remove-${i}`}
            />
          </View>
        </View>
      ))}
      {outlines.length < 6 && (
        <View style={styles.line}>
          <Button
            title="Add an outline"
            icon="plus"
            small
            onPress={() =>
              set({ outlines: [...outlines, { paint: { colour: '#16202B' }, width: 6, side: 'outside' }] })
            }
            testID="outline-add"
          />
        </View>
      )}
    </Row>
  );
}

/** Which words something is limited to; offered where some are marked. */
function Only({
  text,
  value,
  onChange,
  testID,
}: {
  text: WorkedText;
  value: 'marked' | 'unmarked' | undefined;
  onChange: (only: 'marked' | 'unmarked' | undefined) => void;
  testID: string;
}) {
  const { scene } = useGraphicEditor();
  const { words } = text.layer;
  const marks = 'slot' in words && scene.slots.slotWords(words.slot).runs.some((r) => r.marked);
  if (!marks && value === undefined) return null;
  return (
    <Choice
      label="Which words"
      value={value ?? 'all'}
      options={[
        { id: 'all', name: 'All words' },
        { id: 'marked', name: 'Marked' },
        { id: 'unmarked', name: 'The others' },
      ]}
      onChange={(only) => onChange(only === 'all' ? undefined : only)}
      testID={testID}
    />
  );
}

/** How far the letters are out of focus. */
export function BlurPart({ text }: { text: WorkedText }) {
  const { layer, original, value, put, set, settle } = text;
  const found = layer.effects.find((e) => e.effect === 'blur');
  const others = layer.effects.filter((e) => e.effect !== 'blur');
  const radius = found ? value(found.radius) : 0;
  const rest = original.effects.find((e) => e.effect === 'blur');
  const effects = (r: number, only: 'marked' | 'unmarked' | undefined) =>
    r > 0 ? [...others, { effect: 'blur' as const, radius: r, ...(only ? { only } : {}) }] : others;
  return (
    <>
      <NumberRow
        name="Out of focus"
        value={radius}
        min={0}
        max={60}
        step={0.5}
        unit="px"
        rest={rest ? value(rest.radius) : 0}
        onChange={(r) => put({ effects: effects(r, found?.only) })}
        onSettle={settle}
        onReset={resetOf(text, 'effects')}
        testID="text-blur"
      />
      {found && (
        <Only
          text={text}
          value={found.only}
          onChange={(only) => set({ effects: effects(radius, only) })}
          testID="blur-only"
        />
      )}
    </>
  );
}

const SHADOW = { angle: 90, distance: 8, blur: 10, strength: 0.35, colour: '#000000' } as const;

/** Where their shadow falls. */
export function ShadowPart({ text }: { text: WorkedText }) {
  const { layer, value, set, put, settle } = text;
  const { graphic } = useGraphicEditor();
  const { shadow } = layer;
  const number = (
    key: 'angle' | 'distance' | 'blur' | 'strength',
    name: string,
    [min, max, step]: readonly [number, number, number],
    unit: string,
    times = 1,
  ) =>
    shadow && (
      <NumberRow
        name={name}
        value={value(shadow[key]) * times}
        min={min}
        max={max}
        step={step}
        unit={unit}
        rest={SHADOW[key] * times}
        onChange={(n) => put({ shadow: { ...shadow, [key]: n / times } })}
        onSettle={settle}
        testID={`shadow-${key}`}
      />
    );
  return (
    <Row name="Shadow" onReset={resetOf(text, 'shadow')} resetID="reset-shadow">
      <Toggle
        label="Shadow"
        hideLabel
        value={shadow !== undefined}
        onChange={(on) => set({ shadow: on ? SHADOW : null })}
        testID="text-shadow"
      />
      {shadow && (
        <View style={styles.part}>
          {number('angle', 'Falls towards', [-180, 180, 1], '°')}
          {number('distance', 'Distance', [0, 200, 1], 'px')}
          {number('blur', 'Softness', [0, 120, 1], 'px')}
          {number('strength', 'Strength', [0, 100, 1], '%', 100)}
          <Swatch
            name="Colour of the shadow"
            value={value(shadow.colour)}
            swatches={swatchesOf(graphic.template.looks)}
            onChange={(colour) => put({ shadow: { ...shadow, colour } })}
            onSettle={settle}
            testID="shadow-colour"
          />
          <Only
            text={text}
            value={shadow.only}
            onChange={(only) => {
              const { only: _, ...rest } = shadow;
              set({ shadow: only ? { ...rest, only } : rest });
            }}
            testID="shadow-only"
          />
        </View>
      )}
    </Row>
  );
}

const PLATE: TextPlate = { behind: 'line', margin: 20, corner: 8, fill: { colour: '#16202B' } };

/** A plate or a border behind them. */
export function PlatePart({ text }: { text: WorkedText }) {
  const { layer, value, set, put, settle } = text;
  const { graphic } = useGraphicEditor();
  const [plate, ...others] = layer.plates;
  const change = (part: Partial<TextPlate>) =>
    put({ plates: [{ ...plate!, ...part }, ...others] } as Partial<TextChange>);
  const swatches = swatchesOf(graphic.template.looks);
  const margin = plate
    ? Array.isArray(plate.margin)
      ? value(plate.margin[0] as Property<number>)
      : value(plate.margin as Property<number>)
    : 0;
  return (
    <Row name="Plate behind" onReset={resetOf(text, 'plates')} resetID="reset-plates">
      <Toggle
        label="Plate behind"
        hideLabel
        value={plate !== undefined}
        onChange={(on) => set({ plates: on ? [PLATE] : [] })}
        testID="text-plate"
      />
      {plate && (
        <View style={styles.part}>
          <Choice
            label="Behind"
            value={plate.behind}
            options={[
              { id: 'whole', name: 'All' },
              { id: 'line', name: 'Line' },
              { id: 'word', name: 'Word' },
              { id: 'letter', name: 'Letter' },
              { id: 'marked', name: 'Marked' },
            ]}
            onChange={(behind) => {
              change({ behind });
              settle();
            }}
            testID="plate-behind"
          />
          <NumberRow
            name="Margin"
            value={margin}
            min={0}
            max={200}
            step={1}
            unit="px"
            onChange={(n) => change({ margin: n })}
            onSettle={settle}
            testID="plate-margin"
          />
          <NumberRow
            name="Corner"
            value={value(plate.corner)}
            min={0}
            max={200}
            step={1}
            unit="px"
            onChange={(corner) => change({ corner })}
            onSettle={settle}
            testID="plate-corner"
          />
          <Choice
            label="Plate or border"
            value={plate.stroke ? (plate.fill ? 'both' : 'border') : 'plate'}
            options={[
              { id: 'plate', name: 'Plate' },
              { id: 'border', name: 'Border' },
              { id: 'both', name: 'Both' },
            ]}
            onChange={(kind) => {
              const { fill: oldFill, stroke: oldStroke, ...rest } = plate;
              const fill = oldFill ?? { colour: '#16202B' };
              const stroke = oldStroke ?? { paint: { colour: '#FFFFFF' }, width: 4 };
              set({
                plates: [
                  {
                    ...rest,
                    ...(kind === 'border' ? {} : { fill }),
                    ...(kind === 'plate' ? {} : { stroke }),
                  },
                  ...others,
                ],
              });
            }}
            testID="plate-kind"
          />
          {plate.fill && (
            <Swatch
              name="Colour of the plate"
              value={'colour' in plate.fill ? value(plate.fill.colour) : '#16202B'}
              swatches={swatches}
              onChange={(c) => change({ fill: { colour: c } })}
              onSettle={settle}
              testID="plate-colour"
            />
          )}
          {plate.stroke && (
            <>
              <Swatch
                name="Colour of the border"
                value={'colour' in plate.stroke.paint ? value(plate.stroke.paint.colour) : '#FFFFFF'}
                swatches={swatches}
                onChange={(c) => change({ stroke: { ...plate.stroke!, paint: { colour: c } } })}
                onSettle={settle}
                testID="border-colour"
              />
              <NumberRow
                name="Width of the border"
                value={value(plate.stroke.width)}
                min={0}
                max={60}
                step={0.5}
                unit="px"
                onChange={(width) => change({ stroke: { ...plate.stroke!, width } })}
                onSettle={settle}
                testID="border-width"
              />
            </>
          )}
        </View>
      )}
    </Row>
  );
}

const styles = StyleSheet.create({
  part: { gap: 6, paddingLeft: 12, borderLeftWidth: 2, borderColor: colour.hairline },
  line: { flexDirection: 'row', alignItems: 'center', gap: 8 },
});
