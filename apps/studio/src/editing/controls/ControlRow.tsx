import {
  type Control,
  type ControlValue,
  canBeKeyed,
  framesIn,
  isKeyed,
  putKey,
  resetControl,
  restingFill,
  restingValue,
  secondsAt,
  setControl,
} from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { FontField } from '../../fonts/FontField';
import { IconButton } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { NumberBox } from '../../ui/NumberBox';
import { NumberRow } from '../../ui/NumberRow';
import { Row } from '../../ui/Row';
import { Swatch } from '../../ui/Swatch';
import { Toggle } from '../../ui/Toggle';
import { Txt } from '../../ui/Txt';
import { useDesk, useLocalTime } from '../session/desk';
import { type KeyTarget, sameTarget } from '../session/keyTargets';
import { useGraphicEditor } from '../session/useReelEditor';
import { PathField } from './PathField';

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** One control: its name, the way back, the way to keyframes, and its input. */
export function ControlRow({ control }: { control: Control }) {
  const { graphic, scene } = useGraphicEditor();
  const { when } = control;
  // What depends on another control is offered while that has its value.
  if (when && scene.controlAt(when.control, 0) !== when.is) return null;
  const held = scene.controls[control.id]!;
  const changed = !same(held, restingFill(graphic.template, graphic.fill.look, control, scene.frame));
  return (
    <>
      {isKeyed(held) ? (
        <MovingRow control={control} />
      ) : (
        <ControlInput control={control} value={held} changed={changed} />
      )}
      {changed && control.says !== undefined && (
        <Txt kind="small" tone="quiet" testID={`says-${control.id}`} role="status">
          {control.says}
        </Txt>
      )}
    </>
  );
}

/** A control that changes over time shows its value at the playhead. */
function MovingRow({ control }: { control: Control }) {
  const { graphic, scene } = useGraphicEditor();
  const time = useLocalTime();
  const own = Object.hasOwn(graphic.fill.controls, control.id);
  return <ControlInput control={control} value={scene.localControl(control.id, time)} changed={own} />;
}

/** Starts keyframes at the playhead, or shows those that are there. */
export function OverTime({
  name,
  target,
  keyed,
  start,
}: {
  name: string;
  target: KeyTarget;
  keyed: boolean;
  /** Makes it change over time, from the playhead on. */
  start: () => void;
}) {
  const { keyed: shown, chooseKeyed } = useDesk();
  const on = sameTarget(shown, target);
  return (
    <IconButton
      icon="activity"
      label={keyed ? `${on ? 'Hide' : 'Show'} keyframes of ${name}` : `Change ${name} over time`}
      on={keyed}
      testID={`over-time-${overTimeID(target)}`}
      onPress={() => {
        if (!keyed) start();
        chooseKeyed(keyed && on ? undefined : target);
      }}
    />
  );
}

const overTimeID = (target: KeyTarget): string => {
  if (target.kind === 'control') return target.id;
  return target.kind === 'treatment' ? `${target.id}-${target.key}` : target.key;
};

interface InputProps {
  readonly control: Control;
  readonly value: ControlValue;
  readonly changed: boolean;
}

function ControlInput({ control, value, changed }: InputProps) {
  const { settle, graphic, scene, time: times, edit } = useGraphicEditor();
  const { keyed, chooseKeyed, surface } = useDesk();
  const testID = `control-${control.id}`;
  const held = scene.controls[control.id]!;
  const target: KeyTarget = { kind: 'control', id: control.id };
  const rest = restingValue(graphic.template, graphic.fill.look, control, scene.frame);
  const put = (next: ControlValue) =>
    edit(
      (r) =>
        setControl(
          r,
          graphic.id,
          control.id,
          isKeyed(held) ? putKey(held, scene.clock, times.localAt(surface.position), next) : next,
        ),
      `control-${control.id}`,
    );
  const once = (next: ControlValue) => {
    put(next);
    settle();
  };
  const reset = changed
    ? () => {
        edit((r) => resetControl(r, graphic.id, control.id));
        settle();
        if (sameTarget(keyed, target)) chooseKeyed(undefined);
      }
    : undefined;
  const side = canBeKeyed(graphic.template, control) ? (
    <OverTime
      name={control.name}
      target={target}
      keyed={isKeyed(held)}
      start={() => {
        const time = times.localAt(surface.position);
        edit((r) => setControl(r, graphic.id, control.id, putKey(held, scene.clock, time, value)));
        settle();
      }}
    />
  ) : undefined;
  const row = { name: control.name, onReset: reset, resetID: `reset-${control.id}`, side };
  switch (control.kind) {
    case 'number':
      return (
        <NumberRow
          {...row}
          value={value as number}
          min={control.min}
          max={control.max}
          step={control.step}
          unit={control.unit}
          rest={rest as number}
          onChange={put}
          onSettle={settle}
          testID={testID}
        />
      );
    case 'duration': {
      const { rate } = graphic.template;
      const seconds = (frames: number) => secondsAt(frames, rate);
      return (
        <NumberRow
          {...row}
          value={seconds(value as number)}
          min={seconds(control.min)}
          max={seconds(control.max)}
          step={0.1}
          digits={2}
          unit="s"
          rest={seconds(rest as number)}
          onChange={(n) => put(Math.round(framesIn(n, rate)))}
          onSettle={settle}
          testID={testID}
        />
      );
    }
    case 'colour':
      return (
        <Row {...row} rest={String(rest)}>
          <Swatch
            name={control.name}
            value={value as string}
            swatches={swatchesOf(graphic.template.looks)}
            onChange={put}
            onSettle={settle}
            testID={testID}
          />
        </Row>
      );
    case 'point':
      return (
        <Row {...row}>
          <PointInput name={control.name} value={value as [number, number]} put={once} testID={testID} />
        </Row>
      );
    case 'choice':
      return (
        <Row {...row} rest={control.options.find((o) => o.id === rest)?.name}>
          <Choice
            label={control.name}
            options={control.options}
            value={value as string}
            onChange={once}
            testID={testID}
          />
        </Row>
      );
    case 'switch':
      return (
        <Row {...row} rest={rest ? 'on' : 'off'}>
          <Toggle label={control.name} hideLabel value={value as boolean} onChange={once} testID={testID} />
        </Row>
      );
    case 'font':
      return (
        <Row {...row} rest={String(rest)}>
          <FontField name={control.name} value={value as string} onChange={once} testID={testID} />
        </Row>
      );
    case 'path':
      return (
        <Row {...row}>
          <PathField target={{ kind: 'control', id: control.id }} testID={testID} />
        </Row>
      );
  }
}

/** A place on the picture by numbers, in pixels of the layout. */
function PointInput({
  name,
  value: [x, y],
  put,
  testID,
}: {
  name: string;
  value: readonly [number, number];
  put: (value: [number, number]) => void;
  testID: string;
}) {
  const { scene } = useGraphicEditor();
  const { width, height } = scene.frame;
  const box = (id: 'x' | 'y', prefix: string, value: number, onChange: (n: number) => void) => (
    <NumberBox
      label={`${name} ${prefix.toLowerCase()}`}
      prefix={prefix}
      unit="px"
      value={value}
      digits={0}
      step={1}
      onChange={onChange}
      testID={`${testID}-${id}`}
    />
  );
  return (
    <View style={styles.point} testID={testID}>
      {box('x', 'Across', x * width, (n) => put([n / width, y]))}
      {box('y', 'Down', y * height, (n) => put([x, n / height]))}
      <Txt kind="small" tone="quiet" style={styles.hint}>
        Or drag its handle on the picture.
      </Txt>
    </View>
  );
}

/** Every colour the template's looks use, once. */
export function swatchesOf(looks: readonly { controls: Record<string, ControlValue> }[]): string[] {
  const all = looks
    .flatMap((l) => Object.values(l.controls))
    .filter((v): v is string => typeof v === 'string' && v.startsWith('#'));
  return [...new Set(all)].slice(0, 14);
}

const styles = StyleSheet.create({
  point: { flexDirection: 'row', flexWrap: 'wrap', gap: 12, alignItems: 'center' },
  hint: { flexBasis: '100%' },
});
