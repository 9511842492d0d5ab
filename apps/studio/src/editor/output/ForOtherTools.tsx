import {
  EXCHANGE_KINDS,
  EXCHANGES,
  type ExchangeKind,
  type FrameSize,
  fileStem,
  messageOf,
  type Reel,
} from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { saveFile } from '../../media/files/pickFile';
import { Button } from '../../ui/Button';
import { useToast } from '../../ui/Toast';
import { Txt } from '../../ui/Txt';

interface Props {
  readonly reel: Reel;
  /** Ending and size of the files that the titles are rendered to. */
  readonly ending: string;
  readonly size: FrameSize;
}

const NAMES: Readonly<Record<ExchangeKind, string>> = {
  otio: 'Timeline (.otio)',
  edl: 'Edit list (.edl)',
  vtt: 'Words (.vtt)',
  srt: 'Words (.srt)',
};

/** Where the titles of a reel stand and what they say, as files that other tools open. */
export function ForOtherTools({ reel, ...terms }: Props) {
  const toast = useToast();
  const save = (kind: ExchangeKind) => {
    try {
      const text = EXCHANGES[kind](reel, terms);
      saveFile(new Blob([text], { type: 'text/plain' }), `${fileStem(reel.name)}.${kind}`);
    } catch (error) {
      toast({ text: messageOf(error) });
    }
  };
  return (
    <View style={styles.all}>
      <Txt kind="lead" level={2}>
        For other tools
      </Txt>
      <Txt tone="quiet">
        Where each title stands, with its file as “Each title by itself” names it, and what it says.
      </Txt>
      <View style={styles.row}>
        {EXCHANGE_KINDS.map((kind) => (
          <Button key={kind} title={NAMES[kind]} onPress={() => save(kind)} testID={`save-${kind}`} />
        ))}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: 10 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
});
