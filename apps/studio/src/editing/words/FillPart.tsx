import { freshPicture, isKeyed, messageOf, type Property, putKey, type TextFill } from '@fresh-reel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { pickFile, SEEN_FILES } from '../../disk/pickFile';
import { importMedia } from '../../media/import/importMedia';
import { mediaId } from '../../storage/media';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { NumberRow } from '../../ui/NumberRow';
import { Row } from '../../ui/Row';
import { Swatch } from '../../ui/Swatch';
import { Txt } from '../../ui/Txt';
import { colour } from '../../ui/theme';
import { OverTime, swatchesOf } from '../controls/ControlRow';
import { useDesk, useLocalTime } from '../session/desk';
import { keyedOf, propertyOf } from '../session/keyTargets';
import { useGraphicEditor } from '../session/useReelEditor';
import { resetOf, type WorkedText } from './useText';

const isPicture = (fill: TextFill) => fill !== 'none' && ('picture' in fill || 'media' in fill);

/** What the letters are filled with. */
export function FillPart({ text }: { text: WorkedText }) {
  const { layer, value, set, put, settle } = text;
  const { graphic } = useGraphicEditor();
  const [fault, setFault] = useState<string>();
  const swatches = swatchesOf(graphic.template.looks);
  const { fill } = layer;
  const kind =
    fill === 'none' ? 'none' : isPicture(fill) ? 'picture' : 'gradient' in fill ? 'gradient' : 'colour';
  const first =
    fill === 'none' || isPicture(fill)
      ? '#FFFFFF'
      : 'gradient' in fill
        ? value(fill.stops[0]![1])
        : value((fill as { colour: string }).colour);
  const choosePicture = async () => {
    const file = await pickFile(SEEN_FILES);
    if (!file) return;
    try {
      setFault(undefined);
      const came = await importMedia(file);
      if (came.kind === 'font' || came.record.kind === 'sound') {
        throw new Error(`“${file.name}” has no picture in it. Choose a picture or a clip.`);
      }
      const media = mediaId(came.record);
      set({ fill: { media: freshPicture(media, came.record.name) } });
    } catch (error) {
      setFault(messageOf(error));
    }
  };
  const gradient = fill !== 'none' && 'gradient' in fill ? fill : undefined;
  return (
    <Row name="Fill" onReset={resetOf(text, 'fill')} resetID="reset-fill">
      <Choice
        label="Fill"
        value={kind}
        options={[
          { id: 'colour', name: 'Colour' },
          { id: 'gradient', name: 'Gradient' },
          { id: 'picture', name: 'Picture or clip' },
          { id: 'none', name: 'None' },
        ]}
        onChange={(next) => {
          if (next === 'picture') void choosePicture();
          else if (next === 'none') set({ fill: 'none' });
          else if (next === 'colour') set({ fill: { colour: first } });
          else {
            set({
              fill: {
                gradient: 'linear',
                angle: 90,
                centre: [0.5, 0.5],
                radius: 0.6,
                stops: [
                  [0, first],
                  [1, '#F2A541'],
                ],
              },
            });
          }
        }}
        testID="text-fill"
      />
      {kind === 'colour' && <FillColour text={text} />}
      {gradient && (
        <>
          {gradient.stops.map(([at, colour], i) => (
            <Swatch
              key={i}
              name={i === 0 ? 'From' : i === gradient.stops.length - 1 ? 'To' : `Stop ${i + 1}`}
              value={value(colour)}
              swatches={swatches}
              onChange={(c) =>
                put({ fill: { ...gradient, stops: gradient.stops.map((s, j) => (j === i ? [at, c] : s)) } })
              }
              onSettle={settle}
              testID={`text-stop-${i}`}
            />
          ))}
          <NumberRow
            name="Direction"
            value={value(gradient.angle)}
            min={-180}
            max={180}
            step={1}
            unit="°"
            onChange={(angle) => put({ fill: { ...gradient, angle } })}
            onSettle={settle}
            testID="text-gradient-angle"
          />
        </>
      )}
      {kind === 'picture' && (
        <Button title="Change it" icon="image" small onPress={() => void choosePicture()} />
      )}
      {fault && (
        <Txt kind="small" tone="red" testID="fill-fault">
          {fault}
        </Txt>
      )}
    </Row>
  );
}

/** A plain colour, which may change over time. */
function FillColour({ text }: { text: WorkedText }) {
  const editor = useGraphicEditor();
  const { scene, edit, settle, graphic } = editor;
  const { surface } = useDesk();
  const time = useLocalTime();
  const target = { kind: 'text', layer: text.id, key: 'fill.colour' } as const;
  const keyed = keyedOf(target, editor);
  const property = propertyOf(text.layer, 'fill.colour') as Property<string> | undefined;
  if (!keyed || property === undefined) return null;
  const { held } = keyed;
  const now = scene.valueAt(property, scene.actualOf(time));
  return (
    <View style={styles.line}>
      <Swatch
        name="Fill"
        value={now}
        swatches={swatchesOf(graphic.template.looks)}
        onChange={(colour) =>
          edit(
            (r) => keyed.write(r, isKeyed(held) ? putKey(held, scene.clock, time, colour) : colour),
            `text-${text.id}-fill`,
          )
        }
        onSettle={settle}
        testID="text-fill-swatch"
      />
      <OverTime
        name="Fill"
        target={target}
        keyed={isKeyed(held)}
        start={() => {
          const at = keyed.localAt(surface.position);
          edit((r) => keyed.write(r, putKey(now, scene.clock, at, now)));
          settle();
        }}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  part: { gap: 6, paddingLeft: 12, borderLeftWidth: 2, borderColor: colour.hairline },
  line: { flexDirection: 'row', alignItems: 'center', gap: 8 },
});
