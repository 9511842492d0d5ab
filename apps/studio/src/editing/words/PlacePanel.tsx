import { StyleSheet, View } from 'react-native';
import { Choice } from '../../ui/Choice';
import { NumberRow } from '../../ui/NumberRow';
import { Row } from '../../ui/Row';
import { Txt } from '../../ui/Txt';
import { colour } from '../../ui/theme';
import { PathField } from '../controls/PathField';
import { KeyNumber } from './KeyNumber';
import { resetOf, type WorkedText } from './useText';

/** Where the words stand: moved, turned, bent; and how they fit. */
export function PlacePanel({ text }: { text: WorkedText }) {
  const { layer, value, set, put, settle } = text;
  const { along } = layer;
  const kind = along ? ('circle' in along ? 'circle' : 'path') : 'straight';
  const fit = (
    key: 'width' | 'lines' | 'least',
    name: string,
    [min, max, step]: readonly [number, number, number],
    unit: string,
    times = 1,
  ) => (
    <NumberRow
      name={name}
      value={value(layer.fit[key]) * times}
      min={min}
      max={max}
      step={step}
      unit={unit}
      rest={value(text.original.fit[key]) * times}
      onChange={(n) =>
        put({ fit: { ...text.change.fit, [key]: key === 'lines' ? Math.round(n) : n / times } })
      }
      onSettle={settle}
      onReset={text.change.fit && key in text.change.fit ? resetOf(text, 'fit') : undefined}
      testID={`fit-${key}`}
    />
  );
  return (
    <>
      <Txt kind="small" tone="quiet">
        Drag the words on the picture, or use its handles; these do the same by numbers.
      </Txt>
      <KeyNumber layer={text.id} keyName="placing.move" part={0} name="Moved across" min={-2000} max={2000} />
      <KeyNumber layer={text.id} keyName="placing.move" part={1} name="Moved down" min={-2000} max={2000} />
      <KeyNumber layer={text.id} keyName="placing.scale" times={100} unit="%" step={1} min={1} max={400} />
      <KeyNumber layer={text.id} keyName="placing.turn" min={-180} max={180} />
      <KeyNumber layer={text.id} keyName="placing.tilt" part={0} name="Tipped over" min={-90} max={90} />
      <KeyNumber layer={text.id} keyName="placing.tilt" part={1} name="Opened sideways" min={-90} max={90} />
      <KeyNumber layer={text.id} keyName="perspective" />
      <Row name="Runs" onReset={resetOf(text, 'along')} resetID="reset-along">
        <Choice
          label="Runs"
          value={kind}
          options={[
            { id: 'straight', name: 'Straight' },
            { id: 'circle', name: 'Round a circle' },
            { id: 'path', name: 'Along a path' },
          ]}
          onChange={(next) => {
            if (next === 'straight') set({ along: null });
            else if (next === 'circle') {
              set({ along: { circle: { radius: 300, start: 0, side: 'outside' }, position: 0 } });
            } else set({ along: { path: 'M 0.1 0.6 C 0.3 0.3 0.7 0.3 0.9 0.6', position: 0.5 } });
          }}
          testID="text-along"
        />
      </Row>
      {along && 'circle' in along && (
        <View style={styles.part}>
          <NumberRow
            name="Radius"
            value={value(along.circle.radius)}
            min={20}
            max={1200}
            step={1}
            unit="px"
            onChange={(radius) => put({ along: { ...along, circle: { ...along.circle, radius } } })}
            onSettle={settle}
            testID="circle-radius"
          />
          <NumberRow
            name="Starts at"
            value={value(along.circle.start)}
            min={-360}
            max={360}
            step={1}
            unit="°"
            onChange={(start) => put({ along: { ...along, circle: { ...along.circle, start } } })}
            onSettle={settle}
            testID="circle-start"
          />
          <Choice
            label="Side of the circle"
            value={along.circle.side}
            options={[
              { id: 'outside', name: 'Outside' },
              { id: 'inside', name: 'Inside' },
            ]}
            onChange={(side) => set({ along: { ...along, circle: { ...along.circle, side } } })}
            testID="circle-side"
          />
        </View>
      )}
      {along && 'path' in along && (
        <View style={styles.part}>
          {typeof along.path === 'string' ? (
            <PathField target={{ kind: 'text', layer: text.id }} testID="text-path" />
          ) : (
            <Txt kind="small" tone="quiet">
              The template’s own path: draw it in Adjust.
            </Txt>
          )}
        </View>
      )}
      {along && (
        <KeyNumber
          layer={text.id}
          keyName="along.position"
          times={100}
          unit="%"
          step={1}
          min={-60}
          max={160}
        />
      )}
      {fit('width', 'Widest line', [40, 4000, 10], 'px')}
      {fit('lines', 'Most lines', [1, 20, 1], '')}
      {fit('least', 'Shrinks to', [5, 100, 1], '%', 100)}
    </>
  );
}

const styles = StyleSheet.create({
  part: { gap: 6, paddingLeft: 12, borderLeftWidth: 2, borderColor: colour.hairline },
});
