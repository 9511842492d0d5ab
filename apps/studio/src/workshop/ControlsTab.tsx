import type { Control } from '@fresh-reel/core';
import {
  changeControl,
  moveControl,
  placeWords,
  removeControl,
  type Tie,
  tieSentence,
  tiesOf,
  untie,
} from '@fresh-reel/core/make';
import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useReelEditor } from '../editing/session/useReelEditor';
import { FontField } from '../fonts/FontField';
import { Button, IconButton } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Fold } from '../ui/Fold';
import { Icon, type IconName } from '../ui/Icon';
import { NumberBox } from '../ui/NumberBox';
import { digitsOf } from '../ui/NumberRow';
import { Row } from '../ui/Row';
import { Sheet } from '../ui/Sheet';
import { Swatch } from '../ui/Swatch';
import { Toggle } from '../ui/Toggle';
import { Txt } from '../ui/Txt';
import { fieldFor } from './fields/fieldFor';
import { LinkPart } from './fields/LinkPart';
import { useMade, useWorkActions } from './work/useWork';

const ICONS: Readonly<Record<Control['kind'], IconName>> = {
  number: 'sliders-horizontal',
  duration: 'activity',
  colour: 'circle',
  point: 'scan',
  choice: 'list',
  switch: 'circle-check',
  font: 'type',
  path: 'spline',
};

/** What is left adjustable: each control with what it is called, what it may be, and all that is tied to it. */
export function ControlsTab({
  shown,
  onShow,
}: {
  shown: string | undefined;
  onShow: (id: string | undefined) => void;
}) {
  const { template } = useMade();
  const groups = [...new Set(template.controls.map((c) => c.group))];
  const ties = useMemo(() => tiesOf(template), [template]);
  return (
    <View style={styles.all} testID="controls-list">
      {template.controls.length === 0 && (
        <Txt tone="quiet">
          Nothing is adjustable yet. Choose a part, and touch the sliders beside any of its values.
        </Txt>
      )}
      {groups.map((group) => (
        <View key={group} style={styles.group}>
          <Txt kind="lead" level={2}>
            {group}
          </Txt>
          {template.controls
            .filter((c) => c.group === group)
            .map((control) => (
              <ControlCard
                key={control.id}
                control={control}
                ties={ties.filter((t) => t.control === control.id)}
                open={shown === control.id}
                onOpen={() => onShow(shown === control.id ? undefined : control.id)}
              />
            ))}
        </View>
      ))}
    </View>
  );
}

interface CardProps {
  readonly control: Control;
  readonly ties: readonly Tie[];
  readonly open: boolean;
  readonly onOpen: () => void;
}

function ControlCard({ control, ties, open, onOpen }: CardProps) {
  const { make } = useWorkActions();
  return (
    <Fold
      open={open}
      onTurn={onOpen}
      testID={`made-control-${control.id}`}
      openID={`open-control-${control.id}`}
      head={
        <>
          <Icon name={ICONS[control.kind]} size={16} />
          <Txt kind="strong" style={styles.grow} numberOfLines={1}>
            {control.name}
          </Txt>
          <Txt kind="small" tone={ties.length === 0 ? 'red' : 'quiet'}>
            {ties.length === 0 ? 'nothing tied' : `${ties.length} tied`}
          </Txt>
        </>
      }
      side={
        <>
          <IconButton
            icon="arrow-up"
            label={`Move ${control.name} up`}
            onPress={() => make((t) => moveControl(t, control.id, -1))}
          />
          <IconButton
            icon="arrow-down"
            label={`Move ${control.name} down`}
            onPress={() => make((t) => moveControl(t, control.id, 1))}
          />
        </>
      }
    >
      <ControlPage control={control} ties={ties} />
    </Fold>
  );
}

function ControlPage({ control, ties }: { control: Control; ties: readonly Tie[] }) {
  const { template, make, choose } = useMade();
  const [edited, setEdited] = useState<Tie>();
  const change = (part: Partial<Record<string, unknown>>, gesture?: string) =>
    make((t) => changeControl(t, control.id, part), gesture && `control-${control.id}-${gesture}`);
  const field = edited && fieldFor(template, edited.place);
  return (
    <>
      <TypedField
        label="Name"
        value={control.name}
        onDone={(name) => change({ name })}
        testID={`control-name-${control.id}`}
      />
      <TypedField
        label="Group"
        value={control.group}
        onDone={(group) => change({ group: group || 'Settings' })}
        testID={`control-group-${control.id}`}
      />
      <KindFields control={control} change={change} />
      <TypedField
        label="What it says once it is changed, if anything"
        value={control.says ?? ''}
        onDone={(says) => change({ says: says.trim() || undefined })}
        testID={`control-says-${control.id}`}
      />
      {(control.kind === 'colour' || control.kind === 'font') && (
        <BrandRole control={control} change={change} />
      )}
      <Txt kind="strong">What it sets</Txt>
      {ties.map((tie, i) => (
        <View key={i} style={styles.tie} testID={`tie-${control.id}-${i}`}>
          <Txt style={styles.grow}>{tieSentence(template, tie)}</Txt>
          <IconButton
            icon="pencil"
            label={`Change how ${control.name} sets ${placeWords(template, tie.place)}`}
            onPress={() => {
              if (tie.place.of !== 'template') choose([tie.place.of.layer]);
              setEdited(tie);
            }}
            testID={`tie-edit-${control.id}-${i}`}
          />
          <IconButton
            icon="x"
            label={`Untie ${placeWords(template, tie.place)}`}
            onPress={() => make((t) => untie(t, tie.place))}
            testID={`untie-${control.id}-${i}`}
          />
        </View>
      ))}
      {ties.length === 0 && (
        <Txt tone="quiet">
          Nothing yet. Choose a part, touch the curve beside a value, and let it come from this control.
        </Txt>
      )}
      <View style={styles.row}>
        <Button
          title="Take the control away"
          kind="danger"
          small
          onPress={() => make((t) => removeControl(t, control.id))}
          testID={`remove-control-${control.id}`}
        />
      </View>
      {edited && field && (
        <Sheet
          title={placeWords(template, edited.place)}
          onClose={() => setEdited(undefined)}
          testID="tie-sheet"
        >
          <LinkPart place={edited.place} field={field} onUntied={() => setEdited(undefined)} />
        </Sheet>
      )}
    </>
  );
}

interface ChangeProps {
  readonly control: Control;
  readonly change: (part: Partial<Record<string, unknown>>, gesture?: string) => boolean;
}

const UNITS = ['', '%', 'px', '°', '×'] as const;

/** What a control of its kind may be, and what it begins as. */
function KindFields({ control, change }: ChangeProps) {
  const { settle } = useReelEditor();
  const plain = typeof control.default !== 'object' || Array.isArray(control.default);
  const number = (key: 'min' | 'max' | 'step' | 'default', name: string) => {
    const held = (control as unknown as Record<string, number>)[key]!;
    const step = control.kind === 'number' ? control.step : 1;
    return (
      <Row name={name}>
        <NumberBox
          label={`${name} of ${control.name}`}
          unit={control.kind === 'number' ? control.unit : 'f'}
          value={held}
          digits={Math.max(digitsOf(step), Number.isInteger(held) ? 0 : 2)}
          step={key === 'step' ? 0.1 : step}
          onChange={(v) => change({ [key]: v }, key)}
          onSettle={settle}
          testID={`control-${key}-${control.id}`}
        />
      </Row>
    );
  };
  const byShape = (
    <Txt kind="small" tone="quiet">
      Its default differs by the shape of the frame.
    </Txt>
  );
  switch (control.kind) {
    case 'number':
    case 'duration':
      return (
        <>
          <View style={styles.range}>
            {number('min', 'Least')}
            {number('max', 'Most')}
            {control.kind === 'number' && number('step', 'Step')}
            {plain && number('default', 'Begins at')}
          </View>
          {!plain && byShape}
          {control.kind === 'number' && (
            <Choice
              label="Unit"
              value={control.unit === '' ? 'none' : control.unit}
              options={UNITS.map((u) => ({ id: u === '' ? 'none' : u, name: u === '' ? 'No unit' : u }))}
              onChange={(u) => change({ unit: u === 'none' ? '' : u })}
              testID={`control-unit-${control.id}`}
            />
          )}
        </>
      );
    case 'colour':
      return plain ? (
        <Row name="Begins as">
          <Swatch
            name={`Default of ${control.name}`}
            value={control.default as string}
            swatches={[]}
            onChange={(next) => change({ default: next }, 'default')}
            onSettle={settle}
            testID={`control-default-${control.id}`}
          />
        </Row>
      ) : (
        byShape
      );
    case 'switch':
      return plain ? (
        <Toggle
          label="On at the start"
          value={control.default as boolean}
          onChange={(on) => change({ default: on })}
          testID={`control-default-${control.id}`}
        />
      ) : (
        byShape
      );
    case 'choice':
      return (
        <>
          {control.options.map((option, i) => (
            <TypedField
              key={option.id}
              label={`Option ${i + 1}`}
              value={option.name}
              onDone={(name) =>
                change({
                  options: control.options.map((o, j) =>
                    j === i && name.trim() ? { ...o, name: name.trim() } : o,
                  ),
                })
              }
              testID={`option-${control.id}-${option.id}`}
            />
          ))}
          {plain && (
            <Row name="Begins as">
              <Choice
                label={`Default of ${control.name}`}
                value={control.default as string}
                options={control.options}
                onChange={(id) => change({ default: id })}
                testID={`control-default-${control.id}`}
              />
            </Row>
          )}
        </>
      );
    case 'font':
      return plain ? (
        <Row name="Begins as">
          <FontField
            name={`Default of ${control.name}`}
            value={control.default as string}
            onChange={(family) => change({ default: family })}
            testID={`control-default-${control.id}`}
          />
        </Row>
      ) : (
        byShape
      );
    case 'point':
    case 'path':
      return (
        <Txt kind="small" tone="quiet">
          {control.kind === 'point'
            ? 'Its user drags a handle with its name on the picture. Where it begins is set under Try it, and kept with “Samples and defaults”.'
            : 'Its user draws it on the picture.'}
        </Txt>
      );
  }
}

const ROLES = {
  colour: ['main', 'second', 'dark', 'light'],
  font: ['heading', 'text'],
} as const;

/** Which of the brand's colours or fonts it takes when the brand is worn. */
function BrandRole({ control, change }: ChangeProps) {
  const roles = control.kind === 'font' ? ROLES.font : ROLES.colour;
  return (
    <Row name="Of the brand">
      <Choice
        label={`What ${control.name} takes of the brand`}
        value={control.brand ?? 'none'}
        options={[
          { id: 'none', name: 'Nothing' },
          ...roles.map((r) => ({ id: r as string, name: r.charAt(0).toUpperCase() + r.slice(1) })),
        ]}
        onChange={(role) => change({ brand: role === 'none' ? undefined : role })}
        testID={`control-brand-${control.id}`}
      />
    </Row>
  );
}

/** Words that count when the field is left. */
export function TypedField({
  label,
  value,
  onDone,
  testID,
  multiline,
  maxLength = 200,
}: {
  label: string;
  value: string;
  onDone: (text: string) => void;
  testID: string;
  multiline?: boolean;
  maxLength?: number;
}) {
  const [typed, setTyped] = useState<string>();
  const done = () => {
    if (typed !== undefined && typed !== value) onDone(typed);
    setTyped(undefined);
  };
  return (
    <Field
      label={label}
      value={typed ?? value}
      onChangeText={setTyped}
      onBlur={done}
      onSubmitEditing={multiline ? undefined : done}
      multiline={multiline ?? false}
      maxLength={maxLength}
      testID={testID}
    />
  );
}

const styles = StyleSheet.create({
  all: { gap: 20 },
  group: { gap: 8 },
  grow: { flex: 1 },
  range: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 14 },
  tie: { flexDirection: 'row', alignItems: 'center', gap: 4 },
  row: { flexDirection: 'row' },
});
