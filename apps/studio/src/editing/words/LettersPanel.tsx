import { FontField } from '../../fonts/FontField';
import { useFamilies } from '../../fonts/useFamilies';
import { Choice } from '../../ui/Choice';
import { NumberRow } from '../../ui/NumberRow';
import { Row } from '../../ui/Row';
import { Toggle } from '../../ui/Toggle';
import { BlurPart, OutlinesPart, PlatePart, ShadowPart } from './EdgeParts';
import { FillPart } from './FillPart';
import { KeyNumber } from './KeyNumber';
import { resetOf, type WorkedText } from './useText';

const WEIGHT_NAMES: Readonly<Record<number, string>> = {
  100: 'Thin',
  200: 'Extra light',
  300: 'Light',
  400: 'Regular',
  500: 'Medium',
  600: 'Semibold',
  700: 'Bold',
  800: 'Extra bold',
  900: 'Black',
  1000: 'Heaviest',
};

/** Font, size and spacing; fill, outlines, shadow and plate. */
export function LettersPanel({ text }: { text: WorkedText }) {
  const { layer, value, set, settle } = text;
  const families = useFamilies();
  const family = families.find((f) => f.family === value(layer.family));
  const axes = Object.entries(family?.axes ?? {});
  return (
    <>
      <Row
        name="Font"
        rest={String(value(text.original.family))}
        onReset={resetOf(text, 'family')}
        resetID="reset-family"
      >
        <FontField
          name="Font"
          value={value(layer.family)}
          onChange={(f) => set({ family: f })}
          testID="text-font"
        />
      </Row>
      {family && family.weights.length > 1 && (
        <Row name="Weight" onReset={resetOf(text, 'weight')} resetID="reset-weight">
          <Choice
            label="Weight"
            value={String(nearest(family.weights, value(layer.weight)))}
            options={family.weights.map((w) => ({ id: String(w), name: WEIGHT_NAMES[w] ?? String(w) }))}
            onChange={(w) => set({ weight: Number(w) })}
            testID="text-weight"
          />
        </Row>
      )}
      {axes.map(([tag, axis]) => (
        <NumberRow
          key={tag}
          name={axis.name}
          value={layer.axes[tag] === undefined ? axis.default : value(layer.axes[tag])}
          min={axis.min}
          max={axis.max}
          step={(axis.max - axis.min) / 100 >= 0.5 ? 1 : 0.01}
          unit=""
          rest={axis.default}
          onChange={(n) => text.put({ axes: { ...layer.axes, [tag]: n } })}
          onSettle={settle}
          onReset={resetOf(text, 'axes')}
          testID={`axis-${tag}`}
        />
      ))}
      <KeyNumber layer={text.id} keyName="size" />
      <KeyNumber layer={text.id} keyName="tracking" />
      <KeyNumber layer={text.id} keyName="leading" />
      <Row name="Lines stand" onReset={resetOf(text, 'align')} resetID="reset-align">
        <Choice
          label="Lines stand"
          value={value(layer.align)}
          options={[
            { id: 'start', name: 'At the start' },
            { id: 'middle', name: 'In the middle' },
            { id: 'end', name: 'At the end' },
          ]}
          onChange={(align) => set({ align })}
          testID="text-align"
        />
      </Row>
      <Row name="Case" onReset={resetOf(text, 'case')} resetID="reset-case">
        <Choice
          label="Case"
          value={value(layer.case)}
          options={[
            { id: 'as-typed', name: 'As typed' },
            { id: 'upper', name: 'Capitals' },
            { id: 'lower', name: 'Small letters' },
          ]}
          onChange={(c) => set({ case: c })}
          testID="text-case"
        />
      </Row>
      <Row name="Underline" onReset={resetOf(text, 'underline')} resetID="reset-underline">
        <Toggle
          label="Underline"
          hideLabel
          value={value(layer.underline)}
          onChange={(underline) => set({ underline })}
          testID="text-underline"
        />
      </Row>
      <KeyNumber layer={text.id} keyName="shift" />
      <FillPart text={text} />
      <OutlinesPart text={text} />
      <ShadowPart text={text} />
      <BlurPart text={text} />
      <PlatePart text={text} />
    </>
  );
}

function nearest(weights: readonly number[], weight: number): number {
  return [...weights].sort((a, b) => Math.abs(a - weight) - Math.abs(b - weight))[0]!;
}
