import { isKeyed, type Property, putKey } from '@fresh-reel/core';
import { NumberRow } from '../../ui/NumberRow';
import { OverTime } from '../controls/ControlRow';
import { useDesk, useLocalTime } from '../session/desk';
import { keyedOf, propertyOf, TEXT_KEYS, type TextKey } from '../session/keyTargets';
import { useGraphicEditor } from '../session/useReelEditor';

interface Props {
  readonly layer: string;
  readonly keyName: TextKey;
  readonly name?: string;
  /** Which of two numbers, for places. */
  readonly part?: 0 | 1;
  readonly min?: number;
  readonly max?: number;
  /** Shown times this. */
  readonly times?: number;
  readonly unit?: string;
  readonly step?: number;
}

/** A number of a text layer that can change over time. */
export function KeyNumber({ layer: id, keyName, name, part, times = 1, ...range }: Props) {
  const editor = useGraphicEditor();
  const { scene, edit, settle, graphic } = editor;
  const { keyed: shown, chooseKeyed, surface } = useDesk();
  const time = useLocalTime();
  const target = { kind: 'text', layer: id, key: keyName } as const;
  const keyed = keyedOf(target, editor);
  const layer = scene.textLayer(id);
  if (!keyed || !layer) return null;
  const facts = TEXT_KEYS[keyName];
  const { held } = keyed;
  const moving = isKeyed(held);
  const now = scene.valueAt(
    propertyOf(layer, keyName) as Property<number | [number, number]>,
    scene.actualOf(time),
  );
  const value = part === undefined ? (now as number) : (now as [number, number])[part];
  const whole = (n: number) => {
    if (part === undefined) return n;
    const both = [...(now as [number, number])] as [number, number];
    both[part] = n;
    return both;
  };
  const put = (n: number) =>
    edit(
      (r) => keyed.write(r, moving ? putKey(held, scene.clock, time, whole(n / times)) : whole(n / times)),
      `text-${id}-${keyName}`,
    );
  const own = graphic.fill.texts?.[id] ?? {};
  const changed = keyName.startsWith('placing.')
    ? own.placing !== undefined &&
      JSON.stringify(now) !==
        JSON.stringify(keyName === 'placing.scale' ? 1 : part === undefined ? 0 : [0, 0])
    : (keyName === 'along.position' ? 'along' : keyName) in own;
  return (
    <NumberRow
      name={name ?? facts.name}
      value={value * times}
      min={(range.min ?? facts.min) * (range.min === undefined ? times : 1)}
      max={(range.max ?? facts.max) * (range.max === undefined ? times : 1)}
      step={range.step ?? facts.step * times}
      unit={range.unit ?? facts.unit}
      onChange={put}
      onSettle={settle}
      onReset={
        changed || moving
          ? () => {
              edit((r) => keyed.reset(r));
              settle();
              if (moving && shown) chooseKeyed(undefined);
            }
          : undefined
      }
      side={
        part === 1 ? undefined : (
          <OverTime
            name={facts.name}
            target={target}
            keyed={moving}
            start={() => {
              const at = keyed.localAt(surface.position);
              edit((r) => keyed.write(r, putKey(now as number, scene.clock, at, now as number)));
              settle();
            }}
          />
        )
      }
      testID={`text-${keyName.replace('.', '-')}${part === undefined ? '' : part === 0 ? '-x' : '-y'}`}
    />
  );
}
