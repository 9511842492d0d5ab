import { isConstant, type Template } from '@fresh-reel/core';
import {
  type Names,
  namesAt,
  type Place,
  putValue,
  tieSentence,
  type ValueField,
  valueIn,
  valueWords,
} from '@fresh-reel/core/make';
import { memo, useContext, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { IconButton } from '../../ui/Button';
import { Press } from '../../ui/Press';
import { Txt } from '../../ui/Txt';
import { CORNER, colour } from '../../ui/theme';
import { useMade, useWorkActions } from '../work/useWork';
import { AdjustableSheet } from './AdjustableSheet';
import { ConstantField } from './ConstantField';
import { idOfPlace } from './idOfPlace';
import { kindAt, optionsFor } from './namesOf';
import { OutlineRow } from './OutlineRow';
import { SourcesContext } from './sources';

interface Props {
  readonly place: Place;
  readonly field: ValueField;
  readonly name?: string;
}

/**
 * One value: its input while it is plain, else what it comes from in words. Any property has the way to a control, and to
 * where else its value may come from.
 */
export function ValueRow({ place, field, name = field.name }: Props) {
  const { template } = useMade();
  const held = valueIn(template, place);
  const value = held ?? field.rest;
  const plain = isConstant(value as never);
  const names = namesAt(kindAt(template, place), place.path);
  return (
    <ValueView
      place={place}
      field={field}
      name={name}
      value={value}
      words={plain ? '' : sourceWords(template, place, value)}
      names={names}
      options={optionsFor(template, place, names)}
      isSet={held !== undefined}
    />
  );
}

interface ViewProps extends Required<Props> {
  readonly value: unknown;
  /** What it comes from; nothing of a plain value. */
  readonly words: string;
  readonly names: Names | undefined;
  readonly options: readonly { readonly id: string; readonly name: string }[];
  /** Whether the document says it. */
  readonly isSet: boolean;
}

/** It is drawn anew only when its value has changed: a part has dozens, and a drag changes one. */
const ValueView = memo(
  function ValueView({ place, field, name, value, words, names, options, isSet }: ViewProps) {
    const { make, makePart, settle } = useWorkActions();
    const Sources = useContext(SourcesContext);
    const [from, setFrom] = useState(false);
    const [adjusting, setAdjusting] = useState(false);
    const plain = words === '';
    const id = idOfPlace(place);
    const change = (next: unknown) => {
      const put = (t: Template) => putValue(t, place, next);
      if (place.of === 'template') make(put, id);
      else makePart(place.of.layer, put, `${place.of.layer}-${id}`);
    };
    const reset = isSet && field.optional && JSON.stringify(value) !== JSON.stringify(field.rest);
    const input = (
      <ConstantField
        field={field}
        name={name}
        value={value ?? ''}
        names={names}
        options={options}
        onChange={change}
        onSettle={settle}
        testID={id}
      />
    );
    const beside = plain && (field.holds === 'number' || field.holds === 'switch' || field.holds === 'curve');
    return (
      <View style={styles.row}>
        <View style={styles.head}>
          <Txt kind="strong" style={styles.name}>
            {name}
          </Txt>
          {beside && input}
          {reset && (
            <IconButton
              icon="rotate-ccw"
              label={`Put ${name} back`}
              onPress={() => {
                change(field.rest);
                settle();
              }}
              testID={`back-${id}`}
            />
          )}
          {field.isProperty && (
            <>
              <IconButton
                icon="spline"
                label={`Where ${name} comes from`}
                on={!plain}
                onPress={() => setFrom(true)}
                testID={`from-${id}`}
              />
              <IconButton
                icon="sliders-horizontal"
                label={`Make ${name} adjustable`}
                onPress={() => setAdjusting(true)}
                testID={`adjust-${id}`}
              />
            </>
          )}
        </View>
        {plain ? (
          !beside && input
        ) : (
          <Press role="button" onPress={() => setFrom(true)} style={styles.source} testID={`source-${id}`}>
            <Txt>{words}</Txt>
          </Press>
        )}
        {isOutline(place) && <OutlineRow part={place.of.layer} />}
        {from && Sources && (
          <Sources place={place} field={field} name={name} onClose={() => setFrom(false)} />
        )}
        {adjusting && <AdjustableSheet place={place} onClose={() => setAdjusting(false)} />}
      </View>
    );
  },
  (a, b) => JSON.stringify(shownIn(a)) === JSON.stringify(shownIn(b)),
);

/** Whether a place is the path data of a part's outline. */
const isOutline = (place: Place): place is Place & { of: { layer: string } } =>
  place.of !== 'template' && place.path.join() === 'outline,data';

/** What of a value is seen. */
const shownIn = ({ place, name, value, words, options, isSet, field }: ViewProps) => [
  ...[place, name, value, words, options, isSet],
  ...[field.holds, field.rest, field.min, field.max],
];

/** What a value comes from, in words. */
function sourceWords(template: Parameters<typeof tieSentence>[0], place: Place, value: unknown): string {
  const link = value as { control?: string };
  if (typeof link.control !== 'string') return valueWords(value);
  return tieSentence(template, { control: link.control, place, link: value as never });
}

const styles = StyleSheet.create({
  row: { gap: 2 },
  head: { flexDirection: 'row', alignItems: 'center', minHeight: 44 },
  name: { flex: 1 },
  source: {
    borderWidth: 1,
    borderColor: colour.hairline,
    borderRadius: CORNER,
    backgroundColor: colour.blueTint,
    paddingHorizontal: 12,
    paddingVertical: 9,
    minHeight: 44,
    justifyContent: 'center',
  },
});
