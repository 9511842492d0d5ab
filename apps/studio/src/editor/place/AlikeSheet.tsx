import { ASPECTS, type Aspect, itemOf, makeAlike, sameKind, timecodeAt, whatChanges } from '@fresh-reel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useDesk } from '../../editing/session/desk';
import { useAttempt } from '../../editing/session/useAttempt';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { Button } from '../../ui/Button';
import { Sheet } from '../../ui/Sheet';
import { Toggle } from '../../ui/Toggle';
import { Txt } from '../../ui/Txt';
import { nameOf } from './itemWords';

const NAMES: Readonly<Record<Aspect, string>> = {
  look: 'Look and colours',
  letters: 'Letters',
  times: 'How long it holds',
  place: 'Place and size',
};

/** Gives titles of one template what one of them has; what will change is told first. */
export function AlikeSheet({ model, onClose }: { model: string; onClose: () => void }) {
  const { reel } = useReelEditor();
  const { chosen } = useDesk();
  const attempt = useAttempt();
  const [aspects, setAspects] = useState<readonly Aspect[]>(['look', 'letters']);
  const all = sameKind(reel, model);
  // Where several are chosen, those; else all of the template.
  const others = chosen.length > 1 ? all.filter((id) => chosen.includes(id)) : all;
  const changing = whatChanges(reel, model, others, aspects);
  const named = (id: string) => {
    const { item } = itemOf(reel, id)!;
    return `${nameOf(reel, item)}, at ${timecodeAt(item.start, reel.rate)}`;
  };
  return (
    <Sheet
      title={`Make others like “${nameOf(reel, itemOf(reel, model)!.item)}”`}
      onClose={onClose}
      testID="alike-sheet"
    >
      {ASPECTS.map((aspect) => (
        <Toggle
          key={aspect}
          label={NAMES[aspect]}
          value={aspects.includes(aspect)}
          onChange={(on) => setAspects((now) => (on ? [...now, aspect] : now.filter((a) => a !== aspect)))}
          testID={`alike-${aspect}`}
        />
      ))}
      <View testID="alike-changes" style={styles.list}>
        <Txt kind="strong">
          {changing.length === 0
            ? `Nothing changes: ${others.length === 0 ? 'there is no other title of this template' : 'they are alike already'}.`
            : `${changing.length === 1 ? 'This one changes' : `These ${changing.length} change`}, their words and pictures stay:`}
        </Txt>
        {changing.map((id) => (
          <Txt key={id} tone="quiet">
            {named(id)}
          </Txt>
        ))}
      </View>
      <View style={styles.row}>
        <Button
          title={changing.length === 1 ? 'Change it' : `Change ${changing.length}`}
          kind="next"
          disabled={changing.length === 0}
          onPress={() => {
            if (attempt((r) => makeAlike(r, model, others, aspects))) onClose();
          }}
          testID="alike-do"
        />
      </View>
    </Sheet>
  );
}

const styles = StyleSheet.create({ list: { gap: 4 }, row: { flexDirection: 'row' } });
