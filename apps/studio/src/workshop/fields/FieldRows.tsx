import { freeName } from '@fresh-reel/core';
import {
  type Field,
  type FormsField,
  formOf,
  type ListField,
  nameOfKey,
  namesAt,
  type PartField,
  type Place,
  putValue,
  startOf,
  valueIn,
} from '@fresh-reel/core/make';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button, IconButton } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Field as TextField } from '../../ui/Field';
import { Fold } from '../../ui/Fold';
import { Icon } from '../../ui/Icon';
import { useToast } from '../../ui/Toast';
import { Txt } from '../../ui/Txt';
import { colour } from '../../ui/theme';
import { useMade } from '../work/useWork';
import { idOfPlace } from './idOfPlace';
import { MarkRow } from './MarkRow';
import { kindAt, optionsFor } from './namesOf';
import { ValueRow } from './ValueRow';

interface Props<F extends Field> {
  readonly place: Place;
  readonly field: F;
  readonly name?: string;
}

/** A field of the format, whatever it is: a value, a part with fields of its own, one of several forms, a list. */
export function FieldRow({ place, field, name = field.name }: Props<Field>) {
  const { template } = useMade();
  const value = valueIn(template, place);
  if (field.kind === 'value') return <ValueRow place={place} field={field} name={name} />;
  if (value === undefined && field.optional && field.rest === undefined)
    return <Addition place={place} field={field} name={name} />;
  return (
    <Card place={place} field={field} name={name}>
      <Inside place={place} field={field} />
    </Card>
  );
}

function Inside({ place, field }: Props<Field>) {
  switch (field.kind) {
    case 'value':
      return <ValueRow place={place} field={field} name="Value" />;
    case 'part':
      return <FieldRows place={place} fields={field.fields} />;
    case 'forms':
      return <Forms place={place} field={field} />;
    case 'list':
      return <List place={place} field={field} />;
    case 'named':
      return <Named place={place} field={field} />;
  }
}

/** Fields one below the other; of those that make up a moment, the moment. */
export function FieldRows({ place, fields }: { place: Place; fields: readonly Field[] }) {
  const within = (key: string | number): Place => ({ of: place.of, path: [...place.path, key] });
  const keys = fields.map((f) => f.key);
  const isMoment = keys.includes('at') && keys.includes('of') && typeof place.path.at(-1) === 'string';
  if (isMoment && fields.length === 2)
    return <MarkRow place={place} name={nameOfKey(String(place.path.at(-1)))} />;
  return (
    <>
      {fields
        .filter((f) => f.key !== 'kind' && f.key !== 'id' && !(f.kind === 'value' && f.options.length === 1))
        .map((f) => (
          <FieldRow key={f.key} place={within(f.key)} field={f} />
        ))}
    </>
  );
}

/** What may be added: it begins as plain as it can. */
function Addition({ place, field, name }: Props<Field> & { name: string }) {
  const begin = useBeginning(place);
  return (
    <View style={styles.row}>
      <Button
        title={`Add ${name.toLowerCase()}`}
        icon="plus"
        small
        onPress={() => begin(field)}
        testID={`add-${idOfPlace(place)}`}
      />
    </View>
  );
}

/** Puts the plainest value of a field at a place; where it has to name something, the first there is. */
function useBeginning(place: Place): (field: Field) => void {
  const { template, make, makePart } = useMade();
  const toast = useToast();
  return (field) => {
    const kind = kindAt(template, place);
    const named = (key: string) => {
      const names = namesAt(kind, [...place.path, key]);
      if (names === 'font') return 'Figtree';
      return names ? optionsFor(template, place, names)[0]?.id : undefined;
    };
    const start = startOf(stripped(field), named);
    if (field.schema.safeParse(start).success) {
      const put = (t: typeof template) => putValue(t, place, start);
      if (place.of === 'template') make(put);
      else makePart(place.of.layer, put);
    } else toast({ text: `There is nothing yet that ${field.name.toLowerCase()} could be of.` });
  };
}

/** The schema of a field without leave to be absent. */
function stripped(field: Field) {
  let { schema } = field;
  while (schema.def.type === 'optional')
    schema = (schema.def as unknown as { innerType: typeof schema }).innerType;
  return schema;
}

/** A part that opens and closes, and may be taken out. */
function Card({ place, field, name, children }: Props<Field> & { name: string; children: React.ReactNode }) {
  const [open, setOpen] = useState(false);
  const { make, makePart, template } = useMade();
  const away = () => {
    const put = (t: typeof template) => putValue(t, place, field.rest);
    if (place.of === 'template') make(put);
    else makePart(place.of.layer, put);
  };
  const value = valueIn(template, place);
  const isRest = JSON.stringify(value) === JSON.stringify(field.rest);
  return (
    <Fold
      open={open}
      onTurn={() => setOpen(!open)}
      openID={`open-${idOfPlace(place)}`}
      head={
        <>
          <Icon name={open ? 'chevron-down' : 'chevron-right'} tint={colour.ink} size={18} />
          <Txt kind="strong">{name}</Txt>
          <Txt kind="small" tone="quiet" numberOfLines={1} style={styles.grow}>
            {Array.isArray(value) && field.kind === 'list' ? countWords(value.length) : ''}
          </Txt>
        </>
      }
      side={
        field.optional &&
        !isRest &&
        typeof place.path.at(-1) === 'string' && (
          <IconButton
            icon="trash"
            label={`Take ${name} out`}
            onPress={away}
            testID={`remove-${idOfPlace(place)}`}
          />
        )
      }
    >
      {children}
    </Fold>
  );
}

const countWords = (n: number) => (n === 0 ? 'none' : String(n));

function Forms({ place, field }: Props<FormsField>) {
  const { template } = useMade();
  const begin = useBeginning(place);
  const value = valueIn(template, place) ?? field.rest;
  const form = formOf(field, value);
  return (
    <>
      <Choice
        label={field.name}
        value={form ? String(field.forms.indexOf(form)) : undefined}
        options={field.forms.map((f, i) => ({ id: String(i), name: formName(f) }))}
        onChange={(i) => begin(field.forms[Number(i)]!)}
        testID={`form-${idOfPlace(place)}`}
      />
      {form && <Inside place={place} field={form} />}
    </>
  );
}

/** What tells a form from the others: its fixed word, or the first thing it needs. */
function formName(form: Field): string {
  if (form.kind === 'part') {
    const fixed = form.fields.find((f) => f.kind === 'value' && f.options.length === 1 && !f.isProperty);
    if (fixed?.kind === 'value') return nameOfKey(fixed.options[0]!.replaceAll('-', ' '));
    const kinds = form.fields.find((f) => f.key === 'kind');
    if (kinds?.kind === 'value') return kinds.options.map((o) => nameOfKey(o)).join(' or ');
    const first = form.fields.find((f) => !f.optional) ?? form.fields[0];
    return first ? (first.key === 0 ? 'Each side' : first.name) : form.name;
  }
  if (form.kind === 'value') return form.options.length === 1 ? nameOfKey(form.options[0]!) : 'One value';
  return form.name;
}

function List({ place, field }: Props<ListField>) {
  const { template, make } = useMade();
  const items = (valueIn(template, place) ?? []) as unknown[];
  const at = (i: number): Place => ({ of: place.of, path: [...place.path, i] });
  const kind = kindAt(template, place);
  const add = () =>
    make((t) => {
      const list = String(place.path.at(-1));
      const taken = new Set(items.map((item) => (item as { id?: unknown } | null)?.id));
      const named = (key: string) =>
        key === 'id'
          ? freeName(list.toLowerCase(), (id) => taken.has(id))
          : optionsFor(t, place, namesAt(kind, [...place.path, key]))[0]?.id;
      return putValue(t, place, [...items, startOf(field.item.schema, named, list)]);
    });
  const move = (i: number, by: number) =>
    make((t) => {
      const next = [...items];
      const [item] = next.splice(i, 1);
      next.splice(i + by, 0, item);
      return putValue(t, place, next);
    });
  return (
    <>
      {items.map((_, i) => (
        <View key={i} style={styles.item}>
          <View style={styles.head}>
            <Txt kind="label" tone="quiet" style={styles.grow}>{`${i + 1}`}</Txt>
            {i > 0 && <IconButton icon="arrow-up" label={`Move ${i + 1} up`} onPress={() => move(i, -1)} />}
            {items.length > field.least && (
              <IconButton
                icon="trash"
                label={`Take ${i + 1} out`}
                onPress={() =>
                  make((t) =>
                    putValue(
                      t,
                      place,
                      items.filter((_, j) => j !== i),
                    ),
                  )
                }
                testID={`remove-${idOfPlace(at(i))}`}
              />
            )}
          </View>
          {field.item.kind === 'value' ? (
            <ValueRow place={at(i)} field={{ ...field.item, optional: false }} name="" />
          ) : (
            <Inside place={at(i)} field={field.item} />
          )}
        </View>
      ))}
      {items.length < field.most && (
        <View style={styles.row}>
          <Button title="Add" icon="plus" small onPress={add} testID={`add-${idOfPlace(place)}`} />
        </View>
      )}
    </>
  );
}

function Named({ place, field }: Props<Extract<Field, { kind: 'named' }>>) {
  const { template, make } = useMade();
  const [name, setName] = useState('');
  const held = (valueIn(template, place) ?? {}) as Record<string, unknown>;
  const at = (key: string): Place => ({ of: place.of, path: [...place.path, key] });
  const add = () => {
    if (name.trim() === '') return;
    make((t) => putValue(t, at(name.trim()), startOf(field.item.schema)));
    setName('');
  };
  return (
    <>
      {Object.keys(held).map((key) => (
        <View key={key} style={styles.item}>
          <FieldRow place={at(key)} field={{ ...field.item, key, optional: false }} name={key} />
          <View style={styles.row}>
            <Button
              title={`Take ${key} out`}
              small
              onPress={() => make((t) => putValue(t, at(key), undefined))}
            />
          </View>
        </View>
      ))}
      <TextField
        label="Another, by its name"
        value={name}
        onChangeText={setName}
        onSubmitEditing={add}
        onBlur={add}
      />
    </>
  );
}

/** Fields of a part of the format, by their keys, in the order asked for. */
export const fieldsNamed = (part: PartField, keys: readonly string[]): Field[] =>
  keys.flatMap((key) => part.fields.filter((f) => f.key === key));

const styles = StyleSheet.create({
  row: { flexDirection: 'row' },
  head: { flexDirection: 'row', alignItems: 'center' },
  grow: { flex: 1 },
  item: { gap: 6, paddingLeft: 8, borderLeftWidth: 2, borderColor: colour.hairline },
});
