import type { Easing } from '@fresh-reel/core';
import { type Names, nameOfKey, partName, type ValueField } from '@fresh-reel/core/make';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { swatchesOf } from '../../editing/controls/ControlRow';
import { CurveSheet } from '../../editing/timeline/CurveSheet';
import { FontField } from '../../fonts/FontField';
import { useBrand } from '../../storage/queries';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Field as TextField } from '../../ui/Field';
import { NumberBox } from '../../ui/NumberBox';
import { Swatch } from '../../ui/Swatch';
import { Toggle } from '../../ui/Toggle';
import { useMade } from '../work/useWork';
import { MOST_CHIPS, PickSheet } from './PickSheet';

interface Props {
  readonly field: ValueField;
  readonly name: string;
  readonly value: unknown;
  /** Things whose name the value is, where it is one. */
  readonly names: Names | undefined;
  readonly options: readonly { readonly id: string; readonly name: string }[];
  readonly onChange: (value: unknown) => void;
  readonly onSettle: () => void;
  readonly testID: string;
}

/** Decimals that are shown of a number, by how wide its range is. */
const digitsFor = ({ min, max, whole }: ValueField) =>
  whole ? 0 : max - min <= 10 ? 3 : max - min <= 1000 ? 1 : 1;
const stepFor = ({ min, max, whole }: ValueField) => (whole ? 1 : max - min <= 10 ? 0.01 : 1);
const held = ({ min, max, whole }: ValueField, v: number) =>
  Math.min(max, Math.max(min, whole ? Math.round(v) : v));

/** The input that fits a plain value of the format. */
export function ConstantField(props: Props) {
  const { field, name, value, names, options, onChange, onSettle, testID } = props;
  const once = (next: unknown) => {
    onChange(next);
    onSettle();
  };
  switch (field.holds) {
    case 'number':
      return (
        <NumberBox
          label={name}
          unit=""
          value={Number(value)}
          digits={digitsFor(field)}
          step={stepFor(field)}
          onChange={(v) => onChange(held(field, v))}
          onSettle={onSettle}
          testID={testID}
        />
      );
    case 'numbers':
      return <Numbers {...props} value={value as readonly number[]} />;
    case 'colour':
      return <ColourOf {...props} value={String(value)} />;
    case 'switch':
      return <Toggle label={name} hideLabel value={value === true} onChange={once} testID={testID} />;
    case 'curve':
      return <CurveOf {...props} value={value as Easing} />;
    case 'choice':
      return (
        <ChoiceOf
          {...props}
          options={field.options.map((id) => ({ id, name: nameOfKey(id.replaceAll('-', ' ')) }))}
        />
      );
    case 'words':
      if (names === 'font')
        return <FontField name={name} value={String(value)} onChange={once} testID={testID} />;
      if (names) return <ChoiceOf {...props} options={options} />;
      return <Words {...props} />;
  }
}

function Numbers({ field, name, value, onChange, onSettle, testID }: Props & { value: readonly number[] }) {
  return (
    <View style={styles.numbers}>
      {value.map((v, i) => (
        <NumberBox
          key={i}
          label={`${name} ${partName(field.key, i)}`}
          prefix={AXES[i] ?? ''}
          unit=""
          value={v}
          digits={Math.abs(v) >= 1000 ? 0 : digitsFor(field)}
          step={stepFor(field)}
          onChange={(next) => onChange(value.map((old, j) => (j === i ? held(field, next) : old)))}
          onSettle={onSettle}
          testID={`${testID}-${i}`}
        />
      ))}
    </View>
  );
}
const AXES = ['↔', '↕', '↗', ''] as const;

/** The alpha of a colour is kept while its hue is changed. */
function ColourOf({ name, value, onChange, onSettle, testID }: Props & { value: string }) {
  const { template } = useMade();
  const brand = useBrand();
  const [solid, alpha] = [value.slice(0, 7), value.slice(7)];
  const own = template.controls.flatMap((c) =>
    c.kind === 'colour' && typeof c.default === 'string' ? [c.default] : [],
  );
  const swatches = [
    ...new Set([...Object.values(brand?.colours ?? {}), ...own, ...swatchesOf(template.looks)]),
  ];
  return (
    <Swatch
      name={name}
      value={solid}
      swatches={swatches.slice(0, 14)}
      onChange={(next) => onChange(next + alpha)}
      onSettle={onSettle}
      testID={testID}
    />
  );
}

function CurveOf({ name, value, onChange, onSettle, testID }: Props & { value: Easing }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button
        title={typeof value === 'string' ? value : (Object.keys(value)[0] ?? 'curve')}
        label={`${name}, change the curve`}
        icon="spline"
        small
        onPress={() => setOpen(true)}
        testID={testID}
      />
      {open && (
        <CurveSheet ease={value} onChange={onChange} onSettle={onSettle} onClose={() => setOpen(false)} />
      )}
    </>
  );
}

/** A few as chips; more in a sheet of their own. */
function ChoiceOf({ name, value, options, onChange, onSettle, testID }: Props) {
  const [open, setOpen] = useState(false);
  const put = (id: string) => {
    onChange(id);
    onSettle();
    setOpen(false);
  };
  if (options.length > 0 && options.length <= MOST_CHIPS)
    return <Choice label={name} options={options} value={String(value)} onChange={put} testID={testID} />;
  const shown = options.find((o) => o.id === value)?.name ?? String(value);
  return (
    <>
      <Button
        title={shown || 'Choose'}
        label={`${name}: ${shown}. Change`}
        small
        onPress={() => setOpen(true)}
        testID={testID}
      />
      {open && (
        <PickSheet
          title={name}
          options={options}
          value={String(value)}
          onChoose={put}
          onClose={() => setOpen(false)}
        />
      )}
    </>
  );
}

/** Words are taken when the field is left, so that half of a path or a name is never put in. */
function Words({ field, name, value, onChange, onSettle, testID }: Props) {
  const [typed, setTyped] = useState<string>();
  const [fault, setFault] = useState<string>();
  const done = () => {
    if (typed === undefined) return;
    const read = field.constant.safeParse(typed);
    if (read.success) {
      onChange(typed);
      onSettle();
      setTyped(undefined);
      setFault(undefined);
    } else setFault(read.error.issues[0]?.message ?? 'This does not fit here.');
  };
  return (
    <TextField
      label={name}
      hideLabel
      value={typed ?? String(value ?? '')}
      onChangeText={setTyped}
      onBlur={done}
      onSubmitEditing={done}
      maxLength={field.most}
      multiline={field.most > 200}
      fault={fault}
      testID={testID}
    />
  );
}

const styles = StyleSheet.create({
  numbers: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
});
