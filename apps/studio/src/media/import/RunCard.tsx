import {
  likelyClip,
  numbersText,
  OFFERED_RATES,
  parseRate,
  rateLabel,
  rateText,
  secondsAt,
} from '@fresh-reel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Txt } from '../../ui/Txt';
import { CORNER, colour } from '../../ui/theme';
import { secondsText } from '../../ui/units';
import type { RunQuestion } from './useImport';

const RATES = OFFERED_RATES.map((r) => ({ id: rateText(r), name: rateLabel(r) }));

/** Asks whether numbered pictures are one clip, and at which rate. */
export function RunCard({ run, answer }: RunQuestion) {
  const [text, setText] = useState('25');
  const rate = parseRate(text);
  const { files, holes } = run;
  const names = `“${files[0]!.name}” to “${files.at(-1)!.name}”`;
  const likely = likelyClip(run);
  const asClip = holes.length === 0 && (
    <Button
      key="clip"
      title="One clip"
      icon="film"
      kind={likely ? 'next' : 'quiet'}
      onPress={() => answer({ as: 'clip', rate })}
      testID="sequence-clip"
    />
  );
  const asPictures = (
    <Button
      key="pictures"
      title={`${files.length} pictures`}
      icon="image"
      kind={likely ? 'quiet' : 'next'}
      onPress={() => answer({ as: 'pictures' })}
      testID="sequence-pictures"
    />
  );
  return (
    <View style={styles.card} testID="sequence-question">
      <Txt kind="strong">
        {holes.length === 0
          ? `${files.length} numbered pictures: ${likely ? 'one clip?' : 'pictures, or one clip?'}`
          : `Numbered pictures, and ${holes.length === 1 ? 'one is' : `${holes.length} are`} missing`}
      </Txt>
      <Txt kind="small">
        {holes.length === 0
          ? `${names} follow each other. As one clip they play for ${secondsText(secondsAt(files.length, rate))}.`
          : `${names}: number ${numbersText(holes)} ${holes.length === 1 ? 'is' : 'are'} not among them, so they cannot be one clip. Find what is missing and add all of them again, or take in those that are here as pictures.`}
      </Txt>
      {holes.length === 0 && (
        <>
          <Txt kind="label" tone="quiet">
            Frames a second
          </Txt>
          <Choice
            label="Frames a second"
            options={RATES}
            value={text}
            onChange={setText}
            testID="sequence-rate"
          />
        </>
      )}
      <View style={styles.buttons}>
        {likely ? [asClip, asPictures] : [asPictures, asClip]}
        <Button
          title="Leave them"
          kind="plain"
          onPress={() => answer({ as: 'nothing' })}
          testID="sequence-leave"
        />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  card: {
    gap: 10,
    padding: 14,
    borderRadius: CORNER,
    borderWidth: 1,
    borderColor: colour.edge,
    backgroundColor: colour.card,
  },
  buttons: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
});
