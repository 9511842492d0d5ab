import { changeItem, framesIn, given, type ReelItem, secondOf, secondsAt } from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { FollowPart } from '../../editing/follow/FollowPart';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { useMediaFacts } from '../../media/useMediaFacts';
import { Choice } from '../../ui/Choice';
import { ColourField } from '../../ui/ColourField';
import { NumberRow } from '../../ui/NumberRow';
import { Row } from '../../ui/Row';
import { Toggle } from '../../ui/Toggle';
import { ClipEndRow } from '../fill/ClipEndRow';
import { TreatmentList } from '../treatments/TreatmentList';
import { FramingPart } from './FramingPart';
import { MeetRow } from './MeetRow';

/** How an item comes and goes, lies in the frame, plays and is heard. */
export function ItemDetails({ item, length }: { item: ReelItem; length: number }) {
  const { reel, edit, settle } = useReelEditor();
  /** Sets parts of the item; one that is `undefined` is taken away. */
  const set = (name: string, parts: object) =>
    edit(
      (r) => changeItem(r, item.id, (held) => given({ ...held, ...parts }) as unknown as ReelItem),
      `${name}-${item.id}`,
    );
  const number: NumberOf = (name, id, value, range, unit, rest, put) => (
    <NumberRow
      name={name}
      value={value}
      min={range[0]}
      max={range[1]}
      step={range[2]}
      unit={unit}
      rest={rest}
      resets
      onChange={put}
      onSettle={settle}
      testID={`item-${id}`}
    />
  );
  /** A stretch of so many frames of the item, in seconds. */
  const over: OverOf = (name, id, count, put) =>
    number(name, id, secondsAt(count ?? 0, reel.rate), [0, secondsAt(length, reel.rate), 0.04], 's', 0, (v) =>
      put(Math.round(framesIn(v, reel.rate)) || undefined),
    );
  return (
    <View style={styles.all}>
      {item.kind === 'graphic' && <MeetRow item={item} />}
      {item.kind !== 'clip' && item.kind !== 'sound' && <FollowPart item={item} />}
      {item.kind === 'colour' && (
        <ColourField
          label="Colour"
          value={item.colour}
          swatches={[]}
          onChange={(colour) => set('colour', { colour })}
          onSettle={settle}
        />
      )}
      {item.kind === 'clip' && <ClipNumbers item={item} number={number} set={set} />}
      {item.kind === 'sound' &&
        number('Begins at', 'from', item.from ?? 0, [0, 3600, 0.01], 's', 0, (v) =>
          set('from', { from: v || undefined }),
        )}
      {(item.kind === 'clip' || item.kind === 'sound') && (
        <Heard item={item} number={number} over={over} set={set} />
      )}
      {item.kind !== 'sound' && (
        <>
          {over('Comes in over', 'fade-in', item.fadeIn, (fadeIn) => set('fade-in', { fadeIn }))}
          {over('Goes out over', 'fade-out', item.fadeOut, (fadeOut) => set('fade-out', { fadeOut }))}
          <FramingPart item={item} />
          <TreatmentList of={{ kind: 'item', item: item.id }} inside={item.kind !== 'graphic'} />
          {(item.kind === 'clip' || item.kind === 'still') && (
            <Row name="In the frame">
              <Choice
                label="In the frame"
                value={item.fit ?? 'fit'}
                options={[
                  { id: 'fit', name: 'All of it' },
                  { id: 'fill', name: 'Fills it' },
                ]}
                onChange={(fit) => {
                  set('fit', { fit: fit === 'fit' ? undefined : fit });
                  settle();
                }}
                testID="item-fit"
              />
            </Row>
          )}
        </>
      )}
    </View>
  );
}

type NumberOf = (
  name: string,
  id: string,
  value: number,
  range: readonly [number, number, number],
  unit: string,
  rest: number,
  put: (value: number) => void,
) => React.JSX.Element;

type OverOf = (
  name: string,
  id: string,
  frames: number | undefined,
  put: (frames: number | undefined) => void,
) => React.JSX.Element;

interface PartProps<T> {
  readonly item: T;
  readonly number: NumberOf;
  readonly set: (name: string, parts: object) => void;
}

function ClipNumbers({ item, number, set }: PartProps<Extract<ReelItem, { kind: 'clip' }>>) {
  const { reel, settle } = useReelEditor();
  const facts = useMediaFacts(item.media);
  const { clip } = item;
  const play = (part: object) => set('clip', { clip: given({ ...clip, ...part }) });
  return (
    <>
      {number(
        'Begins at',
        'in',
        clip.in ?? 0,
        [0, Math.max(0.01, facts?.duration ?? 3600), 0.01],
        's',
        0,
        (v) => play({ in: v || undefined }),
      )}
      {number('Speed', 'speed', (clip.speed ?? 1) * 100, [10, 400, 1], '%', 100, (v) =>
        play({ speed: v === 100 ? undefined : v / 100 }),
      )}
      <ClipEndRow
        value={clip.end}
        onChange={(end) => {
          // A piece of what went round or was stretched goes on from what it shows first.
          const first = secondOf(item, 0, reel.rate, facts?.duration ?? Number.POSITIVE_INFINITY);
          const begins = clip.begun ? { in: Math.max(0, first) || undefined } : {};
          play({ ...begins, end: end === 'hold' ? undefined : end, begun: undefined, over: undefined });
          settle();
        }}
        testID="item-end"
      />
    </>
  );
}

function Heard({
  item,
  number,
  over,
  set,
}: PartProps<Extract<ReelItem, { kind: 'clip' | 'sound' }>> & { over: OverOf }) {
  const { settle } = useReelEditor();
  const held = item.kind === 'clip' ? item.clip : item;
  const put = (name: string, part: object) =>
    set(name, item.kind === 'clip' ? { clip: given({ ...item.clip, ...part }) } : part);
  return (
    <>
      <Toggle
        label="Heard"
        value={held.silent !== true}
        onChange={(on) => {
          put('silent', { silent: on ? undefined : true });
          settle();
        }}
        testID="item-heard"
      />
      {number('Level', 'level', held.level ?? 0, [-60, 12, 0.5], 'dB', 0, (v) =>
        put('level', { level: v || undefined }),
      )}
      {over('Sound comes in over', 'sound-in', item.soundIn, (soundIn) => set('sound-in', { soundIn }))}
      {over('Sound goes out over', 'sound-out', item.soundOut, (soundOut) => set('sound-out', { soundOut }))}
    </>
  );
}

const styles = StyleSheet.create({ all: { gap: 12 } });
