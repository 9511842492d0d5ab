import { StyleSheet, View } from 'react-native';
import { Button } from '../../ui/Button';
import { Txt } from '../../ui/Txt';
import { CORNER, colour } from '../../ui/theme';
import { bytesText } from '../../ui/units';
import type { CopyQuestion } from './useImport';

/** Asks whether footage that this browser does not play is to go through the app's server. */
export function CopyCard({ file, needs: { why, copySize }, answer }: CopyQuestion) {
  const interlaced = why === 'interlaced';
  const size = copySize === undefined ? 'about as large as it is' : `about ${bytesText(copySize)}`;
  return (
    <View style={styles.card} testID="copy-question">
      <Txt kind="strong">
        {interlaced
          ? `“${file.name}” may be interlaced`
          : `This browser does not play ${why.codec}, which “${file.name}” is made with`}
      </Txt>
      <Txt kind="small">
        {interlaced && 'Its frames hold fields of two moments, so combs show where things move. '}
        {`The server of this app can make a working copy of it, ${size}. The file (${bytesText(file.size)}) goes to that server and to nobody else, and nothing of it stays there. Renders on the command line take the file itself.`}
      </Txt>
      <View style={styles.buttons}>
        <Button
          title="Make a working copy"
          icon="film"
          kind="next"
          onPress={() => answer('copy')}
          testID="copy-make"
        />
        {interlaced && (
          <Button title="Take it as it is" onPress={() => answer('plain')} testID="copy-plain" />
        )}
        <Button title="Leave it" kind="plain" onPress={() => answer('nothing')} testID="copy-leave" />
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
