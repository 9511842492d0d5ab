import { adjustPicture, type PictureFill } from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { useGraphicEditor } from '../../editing/session/useReelEditor';
import { Choice } from '../../ui/Choice';
import { NumberRow } from '../../ui/NumberRow';
import { Row } from '../../ui/Row';
import { Toggle } from '../../ui/Toggle';
import { Txt } from '../../ui/Txt';
import { BlendChoice } from './BlendChoice';

/** How a picture or clip sits in its slot. It can be dragged in the preview as well; these do it by numbers. */
export function Framing({ slot, held, crops }: { slot: string; held: PictureFill; crops: boolean }) {
  const { graphic, edit, settle } = useGraphicEditor();
  const put = (part: Partial<PictureFill>, gesture = Object.keys(part).join()) =>
    edit((r) => adjustPicture(r, graphic.id, slot, held, part), `frame-${slot}-${gesture}`);
  const set = (part: Partial<PictureFill>) => {
    put(part);
    settle();
  };
  const [across, down] = held.flip ?? [false, false];
  const number = (
    id: string,
    name: string,
    value: number,
    [min, max, step]: readonly [number, number, number],
    unit: string,
    rest: number,
    write: (v: number) => Partial<PictureFill>,
  ) => (
    <NumberRow
      name={name}
      value={value}
      min={min}
      max={max}
      step={step}
      unit={unit}
      rest={rest}
      onChange={(v) => put(write(v), id)}
      onSettle={settle}
      resets
      testID={`frame-${slot}-${id}`}
    />
  );
  return (
    <View style={styles.all} testID={`framing-${slot}`}>
      {crops && (
        <>
          <Txt kind="small" tone="quiet">
            Drag it in the preview to choose what stays in view.
          </Txt>
          <Choice
            label="Fill or fit"
            value={held.fit ?? 'fill'}
            options={[
              { id: 'fill', name: 'Fill the slot' },
              { id: 'fit', name: 'Show all of it' },
            ]}
            onChange={(fit) => set({ fit, scale: 1 })}
            testID={`frame-${slot}-fit`}
          />
          {number('x', 'Focus across', Math.round(held.focus[0] * 100), [0, 100, 1], '%', 50, (v) => ({
            focus: [v / 100, held.focus[1]],
          }))}
          {number('y', 'Focus down', Math.round(held.focus[1] * 100), [0, 100, 1], '%', 50, (v) => ({
            focus: [held.focus[0], v / 100],
          }))}
          {number('scale', 'Scale', Math.round(held.scale * 100), [10, 400, 1], '%', 100, (v) => ({
            scale: v / 100,
          }))}
        </>
      )}
      {number('turn', 'Turn', Math.round(held.turn), [-180, 180, 1], '°', 0, (turn) => ({ turn }))}
      <View style={styles.pair}>
        <Toggle
          label="Flip across"
          value={across}
          onChange={(v) => set({ flip: [v, down] })}
          testID={`frame-${slot}-flip-across`}
        />
        <Toggle
          label="Flip down"
          value={down}
          onChange={(v) => set({ flip: [across, v] })}
          testID={`frame-${slot}-flip-down`}
        />
      </View>
      {number('opacity', 'Opacity', Math.round((held.opacity ?? 1) * 100), [0, 100, 1], '%', 100, (v) => ({
        opacity: v / 100,
      }))}
      <Row
        name="Blend"
        rest="Normal"
        onReset={held.blend && held.blend !== 'normal' ? () => set({ blend: 'normal' }) : undefined}
        resetID={`reset-frame-${slot}-blend`}
      >
        <BlendChoice value={held.blend} onChange={(blend) => set({ blend })} testID={`frame-${slot}-blend`} />
      </Row>
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: 6, paddingTop: 4 },
  pair: { flexDirection: 'row', gap: 24, flexWrap: 'wrap' },
});
