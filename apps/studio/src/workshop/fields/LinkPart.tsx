import type { ControlLink, Value } from '@fresh-reel/core';
import {
  nameOfKey,
  type Place,
  partName,
  putValue,
  tieSentence,
  untie,
  type ValueField,
  valueIn,
} from '@fresh-reel/core/make';
import { StyleSheet, View } from 'react-native';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Swatch } from '../../ui/Swatch';
import { Toggle } from '../../ui/Toggle';
import { Txt } from '../../ui/Txt';
import { useMade } from '../work/useWork';
import { ConstantField } from './ConstantField';
import { PlainNumber } from './PlainNumber';
import { ValueRow } from './ValueRow';

/** A tie: which control, and what is made of its value. */
export function LinkPart({
  place,
  field,
  onUntied,
}: {
  place: Place;
  field: ValueField;
  onUntied?: () => void;
}) {
  const { template, make } = useMade();
  const { settle } = useReelEditor();
  const held = valueIn(template, place) as ControlLink<Value> | undefined;
  // What was untied by an undo has nothing to show here.
  if (typeof held !== 'object' || typeof held.control !== 'string') return null;
  const link = held;
  const control = template.controls.find((c) => c.id === link.control);
  const inner = (...path: (string | number)[]): Place => ({ of: place.of, path: [...place.path, ...path] });
  const put = (part: Partial<Record<keyof ControlLink<Value>, unknown>>, gesture?: string) =>
    make((t) => {
      const merged = { ...(valueIn(t, place) as object), ...part };
      const kept = Object.entries(merged).filter(([, v]) => v !== undefined);
      return putValue(t, place, Object.fromEntries(kept));
    }, gesture);
  const suiting = template.controls.filter((c) => c.id === link.control || gives(c.kind, field));
  const numeric = control?.kind === 'number' || control?.kind === 'duration' || control?.kind === 'point';
  const rows =
    control?.kind === 'choice'
      ? control.options.map((o) => ({ id: o.id, name: o.name }))
      : control?.kind === 'switch'
        ? [
            { id: 'true', name: 'On' },
            { id: 'false', name: 'Off' },
          ]
        : [];
  const own: ValueField = { ...field, optional: false };
  const chooseControl = (id: string) => {
    const next = template.controls.find((c) => c.id === id);
    const values =
      next?.kind === 'choice'
        ? next.options.map((o) => o.id)
        : next?.kind === 'switch' && field.holds !== 'switch'
          ? ['true', 'false']
          : [];
    const first = field.rest ?? Object.values(link.table ?? {})[0] ?? startFor(field);
    make((t) =>
      putValue(
        t,
        place,
        values.length > 0
          ? { control: id, table: Object.fromEntries(values.map((v) => [v, first])) }
          : { control: id },
      ),
    );
  };
  return (
    <View style={styles.all}>
      <Txt testID="tie-sentence">{tieSentence(template, { control: link.control, place, link })}</Txt>
      <ConstantField
        field={{ ...field, holds: 'words', isProperty: false }}
        name="Which control"
        value={link.control}
        names="any-slot"
        options={suiting.map(({ id, name }) => ({ id, name }))}
        onChange={(id) => chooseControl(String(id))}
        onSettle={settle}
        testID="tie-control"
      />
      {control?.kind === 'point' && field.holds === 'number' && (
        <Choice
          label="Which part of it"
          value={String(link.part ?? 0)}
          options={[0, 1].map((i) => ({ id: String(i), name: nameOfKey(partName(undefined, i)) }))}
          onChange={(i) => put({ part: Number(i) })}
        />
      )}
      {link.table
        ? rows.map(({ id, name }) => (
            <ValueRow key={id} place={inner('table', id)} field={own} name={`Where it is “${name}”`} />
          ))
        : null}
      {numeric && !link.table && (
        <>
          <PlainNumber place={inner('scale')} name="Times" min={-100000} max={100000} rest={1} step={0.01} />
          <PlainNumber place={inner('offset')} name="Plus" min={-100000} max={100000} rest={0} />
          <Toggle
            label="Turned round (1 less its value)"
            value={link.invert ?? false}
            onChange={(on) => put({ invert: on || undefined })}
            testID="tie-invert"
          />
          {control.kind === 'number' && (
            <Toggle
              label="By a curve"
              value={link.curve !== undefined}
              onChange={(on) =>
                put({ curve: on ? { ease: 'ease-in-out', from: control.min, to: control.max } : undefined })
              }
              testID="tie-curve"
            />
          )}
          {link.curve && (
            <ValueRow
              place={inner('curve', 'ease')}
              field={{ ...own, holds: 'curve', isProperty: false }}
              name="Its curve"
            />
          )}
        </>
      )}
      {control?.kind === 'switch' && !link.table && (
        <Toggle
          label="Turned round"
          value={link.invert ?? false}
          onChange={(on) => put({ invert: on || undefined })}
          testID="tie-invert"
        />
      )}
      {control?.kind === 'colour' && (
        <>
          <Toggle
            label="Mixed with another colour"
            value={link.mix !== undefined}
            onChange={(on) => put({ mix: on ? { with: '#FFFFFF', amount: 0.2 } : undefined })}
            testID="tie-mix"
          />
          {link.mix && (
            <>
              <Swatch
                name="Mixed with"
                value={link.mix.with.slice(0, 7)}
                swatches={['#FFFFFF', '#000000']}
                onChange={(c) => put({ mix: { ...link.mix, with: c } }, 'tie-mix')}
                onSettle={settle}
              />
              <PlainNumber
                place={inner('mix', 'amount')}
                name="How much of it"
                min={0}
                max={1}
                rest={0.2}
                step={0.05}
              />
            </>
          )}
          <PlainNumber place={inner('alpha')} name="Opacity" min={0} max={1} rest={1} step={0.05} />
          <Toggle
            label="Whichever of black and white reads best on it"
            value={link.readable !== undefined}
            onChange={(on) => put({ readable: on ? ['#16202B', '#FFFFFF'] : undefined })}
            testID="tie-readable"
          />
        </>
      )}
      <View style={styles.row}>
        <Button
          title="Untie"
          icon="x"
          onPress={() => make((t) => untie(t, place)) && onUntied?.()}
          testID="tie-untie"
        />
      </View>
    </View>
  );
}

/** A value to begin the rows of a table with. */
function startFor({ holds, parts, options }: ValueField): unknown {
  if (holds === 'number') return 0;
  if (holds === 'numbers') return Array.from({ length: parts }, () => 0);
  if (holds === 'colour') return '#FFFFFF';
  if (holds === 'switch') return true;
  return options[0] ?? 'Figtree';
}

/** Whether a kind of control can give what a value holds, by itself or by a table. */
function gives(kind: string, { holds, parts }: ValueField): boolean {
  if (kind === 'choice' || kind === 'switch') return true;
  switch (holds) {
    case 'number':
      return kind === 'number' || kind === 'duration' || kind === 'point';
    case 'numbers':
      return kind === 'point' && parts === 2;
    case 'colour':
      return kind === 'colour';
    case 'words':
      return kind === 'font' || kind === 'path';
    default:
      return false;
  }
}

const styles = StyleSheet.create({
  all: { gap: 10 },
  row: { flexDirection: 'row' },
});
