import {
  type FramingKey,
  framedIn,
  framingClock,
  framingHeld,
  holdFraming,
  isKeyed,
  layoutFrame,
  putFraming,
  putKey,
  type ReelItem,
} from '@fresh-reel/core';
import { OverTime } from '../../editing/controls/ControlRow';
import { useDesk, useRestingFrame } from '../../editing/session/desk';
import { FRAMING_NAMES, sameTarget } from '../../editing/session/keyTargets';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { NumberRow } from '../../ui/NumberRow';
import { Row } from '../../ui/Row';
import { BlendChoice } from '../fill/BlendChoice';

interface NumberOf {
  readonly name: string;
  readonly id: string;
  readonly key: FramingKey;
  /** Which of several numbers. */
  readonly part?: number;
  readonly min: number;
  readonly max: number;
  readonly step: number;
  readonly unit: string;
  /** Shown times this. */
  readonly times?: number;
}

const PERCENT = { unit: '%', times: 100, step: 1 } as const;
const PIXELS = { min: -1920, max: 1920, step: 1, unit: '' } as const;

/** What of an item's framing is set by numbers. */
const NUMBERS: readonly NumberOf[] = [
  { name: 'Opacity', id: 'opacity', key: 'opacity', min: 0, max: 1, ...PERCENT },
  { name: 'Size', id: 'scale', key: 'scale', min: 0.05, max: 4, ...PERCENT },
  { name: 'To the right', id: 'x', key: 'move', part: 0, ...PIXELS },
  { name: 'Down', id: 'y', key: 'move', part: 1, ...PIXELS },
  { name: 'Turn', id: 'turn', key: 'turn', min: -180, max: 180, step: 1, unit: '°' },
  { name: 'Cut off on the left', id: 'crop-left', key: 'crop', part: 0, min: 0, max: 1, ...PERCENT },
  { name: 'Cut off on the right', id: 'crop-right', key: 'crop', part: 2, min: 0, max: 1, ...PERCENT },
  { name: 'Cut off above', id: 'crop-top', key: 'crop', part: 1, min: 0, max: 1, ...PERCENT },
  { name: 'Cut off below', id: 'crop-bottom', key: 'crop', part: 3, min: 0, max: 1, ...PERCENT },
];

/** How an item lies in the frame, in numbers; each can change over time. */
export function FramingPart({ item }: { item: ReelItem }) {
  const { edit, settle } = useReelEditor();
  return (
    <>
      {NUMBERS.map((number) => (
        <FramingNumber key={number.id} item={item} of={number} />
      ))}
      <Row name="Laid over what is below">
        <BlendChoice
          value={item.framing?.blend}
          onChange={(blend) => {
            edit((r) => holdFraming(r, item.id, 'blend', blend));
            settle();
          }}
          testID="item-blend"
        />
      </Row>
    </>
  );
}

function FramingNumber({ item, of }: { item: ReelItem; of: NumberOf }) {
  const { reel, edit, settle } = useReelEditor();
  const { surface, keyed, chooseKeyed } = useDesk();
  const frame = useRestingFrame(surface);
  const { key, part, times = 1 } = of;
  const now = framedIn(reel, item, frame, layoutFrame(reel.frame))[key] as number | readonly number[];
  const value = typeof now === 'number' ? now : now[part ?? 0]!;
  const target = { kind: 'item', item: item.id, key } as const;
  const moving = isKeyed(framingHeld(item, key));
  const put = (shown: number) => {
    const next = shown / times;
    const whole = typeof now === 'number' ? next : now.map((v, i) => (i === part ? next : v));
    edit((r) => putFraming(r, item.id, key, whole, frame), `framing-${item.id}`);
  };
  const rest = key === 'scale' || key === 'opacity' ? 1 : 0;
  return (
    <NumberRow
      name={of.name}
      value={value * times}
      min={of.min * times}
      max={of.max * times}
      step={of.step}
      unit={of.unit}
      onChange={put}
      onSettle={settle}
      onReset={
        moving || value !== rest
          ? () => {
              edit((r) =>
                moving || typeof now === 'number'
                  ? holdFraming(r, item.id, key, undefined)
                  : putFraming(
                      r,
                      item.id,
                      key,
                      now.map((v, i) => (i === part ? rest : v)),
                      frame,
                    ),
              );
              settle();
              if (moving && sameTarget(keyed, target)) chooseKeyed(undefined);
            }
          : undefined
      }
      side={
        part === undefined || part === 0 ? (
          <OverTime
            name={FRAMING_NAMES[key]}
            target={target}
            keyed={moving}
            start={() => {
              const at = Math.max(0, surface.position - item.start);
              edit((r) =>
                holdFraming(
                  r,
                  item.id,
                  key,
                  putKey(now as never, framingClock(r, item), at, now as never) as never,
                ),
              );
              settle();
            }}
          />
        ) : undefined
      }
      testID={`item-${of.id}`}
    />
  );
}
