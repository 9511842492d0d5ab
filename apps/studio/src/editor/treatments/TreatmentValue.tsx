import {
  type ControlValue,
  isKeyed,
  putKey,
  TREATMENTS,
  type Treated,
  type Treatment,
  type TreatmentField,
  valueAt,
} from '@fresh-reel/core';
import { OverTime } from '../../editing/controls/ControlRow';
import { useDesk, useRestingFrame } from '../../editing/session/desk';
import { keyedOf, sameTarget } from '../../editing/session/keyTargets';
import { useAttempt } from '../../editing/session/useAttempt';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { NumberRow } from '../../ui/NumberRow';
import { Row } from '../../ui/Row';
import { Swatch } from '../../ui/Swatch';

interface Props {
  readonly of: Treated;
  readonly treatment: Treatment;
  readonly field: TreatmentField;
}

/** A number or a colour of a treatment; each can change over time. */
export function TreatmentValue({ of, treatment: { id, effect }, field: { key, name, number } }: Props) {
  const editor = useReelEditor();
  const { edit, settle } = editor;
  const { surface, keyed: shown, chooseKeyed } = useDesk();
  const attempt = useAttempt();
  const frame = useRestingFrame(surface);
  const { item } = of;
  const target = {
    ...({ kind: 'treatment', item, id, key } as const),
    ...(of.kind === 'slot' ? { slot: of.slot } : {}),
  };
  const keyed = keyedOf(target, editor);
  if (!keyed) return null;
  const { held, clock } = keyed;
  const time = keyed.localAt(frame);
  const moving = isKeyed(held);
  const size = { width: 1, height: 1 };
  const value = valueAt(held as ControlValue, { clock, time, controls: {}, frame: size });
  const put = (next: ControlValue) =>
    attempt(
      (r) => keyed.write(r, moving ? putKey(held, clock, keyed.localAt(surface.position), next) : next),
      `treatment-${id}-${key}`,
    );
  const rest = (TREATMENTS[effect].fresh as unknown as Record<string, ControlValue>)[key]!;
  const back = () => {
    edit((r) => keyed.reset(r));
    settle();
    if (sameTarget(shown, target)) chooseKeyed(undefined);
  };
  const side = (
    <OverTime
      name={name}
      target={target}
      keyed={moving}
      start={() =>
        attempt((r) => keyed.write(r, putKey(value, clock, keyed.localAt(surface.position), value)))
      }
    />
  );
  const testID = `treatment-${id}-${key}`;
  const onReset = moving || value !== rest ? back : undefined;
  if (!number)
    return (
      <Row name={name} rest={String(rest)} onReset={onReset} side={side}>
        <Swatch
          name={name}
          value={value as string}
          swatches={[]}
          onChange={put}
          onSettle={settle}
          testID={testID}
        />
      </Row>
    );
  const { min, max, step, unit, times } = number;
  return (
    <NumberRow
      name={name}
      value={(value as number) * times}
      min={min * times}
      max={max * times}
      step={step}
      unit={unit}
      rest={(rest as number) * times}
      onChange={(v) => put(v / times)}
      onSettle={settle}
      onReset={onReset}
      side={side}
      testID={testID}
    />
  );
}
