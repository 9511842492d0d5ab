import { fieldsOfTemplate } from '@fresh-reel/core/make';
import { StyleSheet, View } from 'react-native';
import { Part } from '../ui/Part';
import { Toggle } from '../ui/Toggle';
import { Txt } from '../ui/Txt';
import { FieldRow, fieldsNamed } from './fields/FieldRows';
import { MarkRow } from './fields/MarkRow';
import { PartStrips } from './PartStrips';

/** When things happen: a strip for each part, the stretches, scenes and cues, and the moment its picture shows. */
export function TimesTab({ ways, onWays }: { ways: boolean; onWays: (on: boolean) => void }) {
  const fields = fieldsOfTemplate();
  const timing = fieldsNamed(fields, ['timing']);
  return (
    <View style={styles.all} testID="times-list">
      <Part title="Parts in time">
        <Txt kind="small" tone="quiet">
          Drag a strip to move all that a part does, its ends to set when it is there, and a key to another
          moment.
        </Txt>
        <PartStrips />
        <Toggle
          label="Show the way of the chosen part on the picture"
          value={ways}
          onChange={onWays}
          testID="part-ways"
        />
      </Part>
      <Part title="In, hold and out">
        {timing.flatMap((field) =>
          field.kind === 'part'
            ? field.fields.map((f) => (
                <FieldRow key={f.key} place={{ of: 'template', path: ['timing', f.key] }} field={f} />
              ))
            : [],
        )}
      </Part>
      <Part title="The picture it is found by">
        <MarkRow place={{ of: 'template', path: ['still'] }} name="Its moment" />
      </Part>
      <Part title="Scenes and cues">
        {fieldsNamed(fields, ['scenes', 'cues']).map((field) => (
          <FieldRow key={field.key} place={{ of: 'template', path: [field.key] }} field={field} />
        ))}
      </Part>
      <Part title="The camera">
        {fieldsNamed(fields, ['camera']).map((field) => (
          <FieldRow key={field.key} place={{ of: 'template', path: [field.key] }} field={field} />
        ))}
      </Part>
    </View>
  );
}

const styles = StyleSheet.create({ all: { gap: 24 } });
