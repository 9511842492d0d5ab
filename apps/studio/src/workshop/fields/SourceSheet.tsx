import { isConstant, type Property, type Value } from '@fresh-reel/core';
import {
  keyOf,
  nameOfKey,
  type Place,
  partName,
  putValue,
  restingAt,
  type ValueField,
  valueIn,
} from '@fresh-reel/core/make';
import { StyleSheet, View } from 'react-native';
import { Button, IconButton } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';
import { CORNER, colour } from '../../ui/theme';
import { useMarkNow } from '../work/useMarkNow';
import { useMade } from '../work/useWork';
import { LinkPart } from './LinkPart';
import { MarkRow } from './MarkRow';
import { PlainNumber } from './PlainNumber';
import type { SourceProps } from './sources';
import { ValueRow } from './ValueRow';

/** Where a value may come from, by what it is. */
const SOURCES = [
  { id: 'plain', name: 'One value' },
  { id: 'keys', name: 'Keys over time' },
  { id: 'control', name: 'A control' },
  { id: 'shape', name: 'The shape of the frame' },
  { id: 'parts', name: 'Each part by itself' },
  { id: 'frame', name: 'A side of the frame' },
  { id: 'wave', name: 'A swing' },
  { id: 'sum', name: 'Several, added' },
  { id: 'product', name: 'Several, multiplied' },
  { id: 'each', name: 'Which of a repeat it is' },
  { id: 'count', name: 'How many a repeat has' },
] as const;
type SourceId = (typeof SOURCES)[number]['id'];

const NUMBERS: readonly SourceId[] = ['frame', 'wave', 'sum', 'product', 'each', 'count'];

function offered({ holds }: ValueField): readonly { id: SourceId; name: string }[] {
  return SOURCES.filter(({ id }) => {
    if (id === 'parts') return holds === 'numbers';
    if (id === 'wave' || id === 'sum' || id === 'product') return holds === 'number' || holds === 'numbers';
    return NUMBERS.includes(id) ? holds === 'number' : true;
  });
}

const sourceOf = (value: unknown): SourceId =>
  isConstant(value as never)
    ? 'plain'
    : (SOURCES.find(({ id }) => Object.hasOwn(value as object, id))?.id ?? 'plain');

/** Where a value comes from, and all of it to be changed. */
export function SourceSheet({ place, field, name, onClose }: SourceProps) {
  const { template, make } = useMade();
  const mark = useMarkNow();
  const value = valueIn(template, place) ?? field.rest;
  const source = sourceOf(value);
  const put = (next: unknown) => make((t) => putValue(t, place, next));
  const turnInto = (next: SourceId) => {
    if (next === source) return;
    const now = restingAt(template, value as Property<Value>);
    put(begun(next, now, field, template, mark()));
  };
  const controls = template.controls.length > 0;
  return (
    <Sheet title={`Where ${name} comes from`} onClose={onClose} testID="source-sheet">
      <Choice
        label="It comes from"
        value={source}
        options={offered(field).filter((o) => o.id !== 'control' || controls)}
        onChange={turnInto}
        testID="source-kind"
      />
      <Of source={source} place={place} field={field} name={name} />
    </Sheet>
  );
}

/** How each source begins, so that it comes to what the value is now. */
function begun(
  source: SourceId,
  now: Value,
  field: ValueField,
  template: Parameters<typeof valueIn>[0],
  mark: { at: number; of: string },
): unknown {
  switch (source) {
    case 'plain':
      return now;
    case 'keys':
      return { keys: [{ ...mark, value: now }] };
    case 'control':
      return linkFor(field, template, now);
    case 'shape':
      return { shape: { wide: now, tall: now, square: now } };
    case 'parts':
      return { parts: [...(now as readonly number[])] };
    case 'frame':
      return { frame: 'short', scale: Math.round((Number(now) / 1080) * 1e4) / 1e4 };
    case 'wave':
      return {
        sum: [now, { wave: { size: Array.isArray(now) ? now.map(() => 0) : Number(now) * 0.1, every: 120 } }],
      };
    case 'sum':
      return { sum: [now, field.holds === 'numbers' ? (now as readonly number[]).map(() => 0) : 0] };
    case 'product':
      return { product: [now, field.holds === 'numbers' ? (now as readonly number[]).map(() => 1) : 1] };
    case 'each':
      return { each: 'number', scale: 1, offset: Number(now) };
    case 'count':
      return { count: { slots: template.slots.slice(0, 1).map((s) => s.id) }, scale: 1 };
  }
}

/** A link to the first control that can give the value. */
function linkFor({ holds }: ValueField, { controls }: Parameters<typeof valueIn>[0], now: Value): unknown {
  const kinds: Readonly<Record<string, readonly string[]>> = {
    number: ['number', 'duration'],
    numbers: ['point'],
    colour: ['colour'],
    switch: ['switch'],
    words: ['font', 'path'],
  };
  const found = controls.find((c) => kinds[holds]?.includes(c.kind));
  if (found) return { control: found.id };
  const choice = controls.find((c) => c.kind === 'choice' || c.kind === 'switch');
  if (!choice) return now;
  const values = choice.kind === 'choice' ? choice.options.map((o) => o.id) : ['true', 'false'];
  return { control: choice.id, table: Object.fromEntries(values.map((v) => [v, now])) };
}

interface OfProps extends Omit<SourceProps, 'onClose'> {
  readonly source: SourceId;
}

function Of({ source, place, field, name }: OfProps) {
  const inner = (...path: (string | number)[]): Place => ({ of: place.of, path: [...place.path, ...path] });
  // Within a source a value is never left out.
  const own: ValueField = { ...field, optional: false };
  switch (source) {
    case 'plain':
      return <ValueRow place={place} field={field} name={name} />;
    case 'keys':
      return <Keys place={place} field={own} />;
    case 'control':
      return <LinkPart place={place} field={own} />;
    case 'shape':
      return (
        <>
          {(['wide', 'tall', 'square'] as const).map((shape) => (
            <ValueRow key={shape} place={inner('shape', shape)} field={own} name={nameOfKey(shape)} />
          ))}
        </>
      );
    case 'parts':
      return (
        <>
          {Array.from({ length: field.parts }, (_, i) => (
            <ValueRow
              key={i}
              place={inner('parts', i)}
              field={{ ...own, holds: 'number', parts: 1 }}
              name={nameOfKey(partName(keyOf(place), i))}
            />
          ))}
        </>
      );
    case 'frame':
      return <FrameSide place={place} />;
    case 'wave':
      return (
        <>
          <ValueRow place={inner('wave', 'size')} field={own} name="How far" />
          <PlainNumber
            place={inner('wave', 'every')}
            name="Frames of a swing"
            min={1}
            max={100000}
            rest={120}
          />
          <PlainNumber
            place={inner('wave', 'phase')}
            name="Begins at (parts of a swing)"
            min={-10}
            max={10}
            rest={0}
            step={0.05}
          />
        </>
      );
    case 'sum':
    case 'product':
      return <Several place={place} field={own} by={source} />;
    case 'each':
      return (
        <>
          <PlainNumber place={inner('scale')} name="Times" min={-100000} max={100000} rest={1} step={0.1} />
          <PlainNumber place={inner('offset')} name="Plus" min={-100000} max={100000} rest={0} />
        </>
      );
    case 'count':
      return (
        <PlainNumber place={inner('scale')} name="Times" min={-100000} max={100000} rest={1} step={0.1} />
      );
  }
}

function FrameSide({ place }: { place: Place }) {
  const { template, make } = useMade();
  const at = (key: string): Place => ({ of: place.of, path: [...place.path, key] });
  return (
    <>
      <Choice
        label="Which side"
        value={String(valueIn(template, at('frame')))}
        options={[
          { id: 'width', name: 'Width' },
          { id: 'height', name: 'Height' },
          { id: 'short', name: 'Shorter' },
          { id: 'long', name: 'Longer' },
        ]}
        onChange={(side) => make((t) => putValue(t, at('frame'), side))}
        testID="frame-side"
      />
      <PlainNumber place={at('scale')} name="Times" min={-100} max={100} rest={1} step={0.01} />
    </>
  );
}

interface ListProps {
  readonly place: Place;
  readonly field: ValueField;
}

function Keys({ place, field }: ListProps) {
  const { template, make } = useMade();
  const mark = useMarkNow();
  const list: Place = { of: place.of, path: [...place.path, 'keys'] };
  const keys = valueIn(template, list) as { at: number; of: string; value: unknown }[];
  const at = (i: number, key: string): Place => ({ of: place.of, path: [...list.path, i, key] });
  const last = keys.at(-1)!;
  const add = () => make((t) => putValue(t, list, inOrder([...keys, { ...mark(), value: last.value }])));
  return (
    <>
      {keys.map((_, i) => (
        <View key={i} style={styles.card} testID={`key-${i}`}>
          <View style={styles.head}>
            <Txt kind="strong" style={styles.grow}>{`Key ${i + 1}`}</Txt>
            {keys.length > 1 && (
              <IconButton
                icon="trash"
                label={`Remove key ${i + 1}`}
                onPress={() =>
                  make((t) =>
                    putValue(
                      t,
                      list,
                      keys.filter((_, j) => j !== i),
                    ),
                  )
                }
                testID={`key-remove-${i}`}
              />
            )}
          </View>
          <MarkRow place={{ of: place.of, path: [...list.path, i] }} name="When" />
          <ValueRow place={at(i, 'value')} field={field} name="Value" />
          {i < keys.length - 1 && (
            <ValueRow
              place={at(i, 'ease')}
              field={{ ...field, holds: 'curve', isProperty: false, optional: true, rest: 'ease-in-out' }}
              name="Curve to the next"
            />
          )}
        </View>
      ))}
      <View style={styles.row}>
        <Button title="Add a key at the playhead" icon="plus" onPress={add} testID="key-add" />
      </View>
    </>
  );
}

const ORDER = ['in', 'hold', 'out'];
/** Keys in the order of time: by stretch, and by frame in it. */
const inOrder = <K extends { at: number; of: string }>(keys: readonly K[]): K[] =>
  [...keys].sort((a, b) => ORDER.indexOf(a.of) - ORDER.indexOf(b.of) || a.at - b.at);

function Several({ place, field, by }: ListProps & { by: 'sum' | 'product' }) {
  const { template, make } = useMade();
  const list: Place = { of: place.of, path: [...place.path, by] };
  const terms = valueIn(template, list) as unknown[];
  const rest = by === 'sum' ? 0 : 1;
  return (
    <>
      {terms.map((term, i) => (
        <View key={i} style={styles.card}>
          <ValueRow
            place={{ of: place.of, path: [...list.path, i] }}
            // A number meets every part of a point.
            field={typeof term === 'number' ? { ...field, holds: 'number', parts: 1 } : field}
            name={by === 'sum' ? (i === 0 ? 'From' : 'Plus') : i === 0 ? 'From' : 'Times'}
          />
          {terms.length > 1 && (
            <View style={styles.row}>
              <Button
                title="Take it out"
                small
                onPress={() =>
                  make((t) =>
                    putValue(
                      t,
                      list,
                      terms.filter((_, j) => j !== i),
                    ),
                  )
                }
              />
            </View>
          )}
        </View>
      ))}
      <View style={styles.row}>
        <Button
          title="Another"
          icon="plus"
          onPress={() => make((t) => putValue(t, list, [...terms, rest]))}
          testID="term-add"
        />
      </View>
    </>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
  head: { flexDirection: 'row', alignItems: 'center' },
  grow: { flex: 1 },
  card: {
    borderWidth: 1,
    borderColor: colour.hairline,
    borderRadius: CORNER,
    padding: 10,
    gap: 6,
    backgroundColor: colour.paper,
  },
});
