import {
  COMING,
  commonFields,
  type MotionField,
  type MotionKind,
  plainMotion,
  STANDING,
  type TextDuring,
  type TextMotion,
  unitFields,
} from '@fresh-reel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button, IconButton } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { CurveField } from '../../ui/CurveField';
import { NumberRow } from '../../ui/NumberRow';
import { Press } from '../../ui/Press';
import { Row } from '../../ui/Row';
import { Toggle } from '../../ui/Toggle';
import { Txt } from '../../ui/Txt';
import { CORNER, colour } from '../../ui/theme';
import { useDesk } from '../session/desk';
import type { WorkedText } from './useText';

type When = 'in' | 'during' | 'out';
const WHENS: readonly { id: When; name: string }[] = [
  { id: 'in', name: 'Comes' },
  { id: 'during', name: 'While it stands' },
  { id: 'out', name: 'Goes' },
];

/** How the words come, how they move while they stand, and how they go: each a list, so that any two combine. */
export function MotionPanel({ text }: { text: WorkedText }) {
  const [when, setWhen] = useState<When>('in');
  const { ways, showWays } = useDesk();
  return (
    <>
      <Toggle label="Show the ways on the picture" value={ways} onChange={showWays} testID="show-ways" />
      <Choice label="When" options={WHENS} value={when} onChange={setWhen} testID="motion-when" />
      {when === 'during' ? (
        <MotionList<TextDuring>
          key={when}
          text={text}
          when={when}
          kinds={STANDING}
          common={() => unitFields<TextDuring>()}
        />
      ) : (
        <MotionList<TextMotion>
          key={when}
          text={text}
          when={when}
          kinds={COMING}
          common={(m) => commonFields(m, when)}
          ease={{ read: (m) => m.ease, write: (m, ease) => ({ ...m, ease }) }}
        />
      )}
    </>
  );
}

interface ListProps<M> {
  readonly text: WorkedText;
  readonly when: When;
  readonly kinds: readonly MotionKind<M>[];
  readonly common: (motion: M) => readonly MotionField<M>[];
  readonly ease?: {
    read(m: M): TextMotion['ease'];
    write(m: M, ease: TextMotion['ease']): M;
  };
}

function MotionList<M extends TextMotion | TextDuring>({ text, when, kinds, common, ease }: ListProps<M>) {
  const [adding, setAdding] = useState(false);
  const [open, setOpen] = useState(0);
  const held = text.layer.motion[when] as unknown as M[];
  // A template's motion may follow its controls; here it is shown, and from the first change kept, by its values.
  const motions = held.map((m) => plainMotion(m, text.value));
  const put = (next: readonly M[]) =>
    text.put(
      { motion: { ...text.change.motion, [when]: next } } as Parameters<typeof text.put>[0],
      `motion-${when}`,
    );
  const set = (next: readonly M[]) => {
    put(next);
    text.settle();
  };
  const changed = text.change.motion !== undefined && when in text.change.motion;
  const made = (kind: MotionKind<M>): M => {
    const motion = kind.make();
    return when === 'out' ? { ...motion, start: { at: 0, of: 'out' } } : motion;
  };
  return (
    <View style={styles.all}>
      {motions.length === 0 && !adding && (
        <Txt tone="quiet">
          {when === 'during' ? 'The words stand still.' : 'The words are there at once.'}
        </Txt>
      )}
      {motions.map((m, i) => {
        const kind = kinds.find((k) => k.is(m))!;
        const change = (next: M) => put(motions.map((x, j) => (j === i ? next : x)));
        return (
          <View key={i} style={styles.motion} testID={`motion-${when}-${i}`}>
            <View style={styles.head}>
              <Press
                role="button"
                aria-expanded={open === i}
                onPress={() => setOpen(open === i ? -1 : i)}
                style={styles.name}
                testID={`motion-open-${i}`}
              >
                <Txt kind="strong">{kind.name}</Txt>
                <Txt kind="small" tone="quiet">
                  {kind.about}
                </Txt>
              </Press>
              <IconButton
                icon="trash"
                label={`Remove ${kind.name}`}
                onPress={() => set(motions.filter((_, j) => j !== i))}
                testID={`motion-remove-${i}`}
              />
            </View>
            {open === i && (
              <View style={styles.fields}>
                {[...kind.fields, ...common(m)].map((field) => (
                  <FieldRow
                    key={field.id}
                    field={field}
                    motion={m}
                    onChange={change}
                    onSettle={text.settle}
                  />
                ))}
                {ease && !('typing' in (m as TextMotion).away && (m as TextMotion).away.typing) && (
                  <Row name="Curve">
                    <CurveField
                      ease={ease.read(m)}
                      onChange={(e) => change(ease.write(m, e))}
                      onSettle={text.settle}
                    />
                  </Row>
                )}
              </View>
            )}
          </View>
        );
      })}
      {adding && (
        <View style={styles.kinds} role="group" aria-label="Kinds of motion">
          {kinds.map((kind) => (
            <Press
              key={kind.id}
              role="button"
              aria-label={`${kind.name}: ${kind.about}`}
              onPress={() => {
                set([...motions, made(kind)]);
                setOpen(motions.length);
                setAdding(false);
              }}
              style={styles.kind}
              testID={`motion-kind-${kind.id}`}
            >
              <Txt kind="strong">{kind.name}</Txt>
              <Txt kind="small" tone="quiet">
                {kind.about}
              </Txt>
            </Press>
          ))}
        </View>
      )}
      <View style={styles.head}>
        {motions.length < 6 && (
          <Button
            title={adding ? 'None of these' : motions.length === 0 ? 'Add a motion' : 'Add another'}
            icon={adding ? 'x' : 'plus'}
            small
            onPress={() => setAdding(!adding)}
            testID="motion-add"
          />
        )}
        {changed && (
          <Button
            title="Put the template’s back"
            kind="plain"
            onPress={() => {
              const { [when]: _, ...rest } = text.change.motion ?? {};
              text.set({ motion: Object.keys(rest).length > 0 ? rest : undefined } as Parameters<
                typeof text.set
              >[0]);
            }}
            testID={`reset-motion-${when}`}
          />
        )}
      </View>
    </View>
  );
}

function FieldRow<M>({
  field,
  motion,
  onChange,
  onSettle,
}: {
  field: MotionField<M>;
  motion: M;
  onChange: (motion: M) => void;
  onSettle: () => void;
}) {
  const testID = `motion-${field.id}`;
  if (field.kind === 'number') {
    return (
      <NumberRow
        name={field.name}
        value={field.read(motion)}
        min={field.min}
        max={field.max}
        step={field.step}
        unit={field.unit}
        onChange={(n) => onChange(field.write(motion, n))}
        onSettle={onSettle}
        testID={testID}
      />
    );
  }
  if (field.kind === 'choice') {
    return (
      <Row name={field.name}>
        <Choice
          label={field.name}
          options={field.options}
          value={field.read(motion)}
          onChange={(v) => {
            onChange(field.write(motion, v));
            onSettle();
          }}
          testID={testID}
        />
      </Row>
    );
  }
  return (
    <Toggle
      label={field.name}
      value={field.read(motion)}
      onChange={(v) => {
        onChange(field.write(motion, v));
        onSettle();
      }}
      testID={testID}
    />
  );
}

const styles = StyleSheet.create({
  all: { gap: 12 },
  motion: {
    borderWidth: 1,
    borderColor: colour.hairline,
    borderRadius: CORNER,
    backgroundColor: colour.card,
  },
  head: { flexDirection: 'row', alignItems: 'center', flexWrap: 'wrap', gap: 8 },
  name: { flex: 1, minHeight: 52, paddingHorizontal: 12, justifyContent: 'center' },
  fields: { paddingHorizontal: 12, paddingBottom: 12, gap: 6 },
  kinds: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
  kind: {
    width: '47%',
    minHeight: 56,
    padding: 10,
    borderWidth: 1,
    borderColor: colour.edge,
    borderRadius: CORNER,
    backgroundColor: colour.paper,
  },
});
