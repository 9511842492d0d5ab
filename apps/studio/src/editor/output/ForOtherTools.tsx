import {
  EXCHANGE_KINDS,
  EXCHANGES,
  type ExchangeKind,
  type FrameSize,
  fileStem,
  messageOf,
  type Reel,
} from '@fresh-reel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { saveFile } from '../../disk/pickFile';
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
  const [making, setMaking] = useState(false);
  const sheet = async (kind: 'pdf' | 'png') => {
    setMaking(true);
    try {
      const { contactSheet } = await import('./contactSheet');
      saveFile(await contactSheet(reel, kind, terms.ending), `${fileStem(reel.name)}-titles.${kind}`);
    } catch (error) {
      toast({ text: `The contact sheet could not be made. ${messageOf(error)}` });
    } finally {
      setMaking(false);
    }
  };
  return (
    <View style={styles.all}>
      <Txt kind="lead" level={2}>
        For other tools
      </Txt>
      <Txt tone="quiet">
        Where each title stands, with its file as “Each title by itself” names it, and what it says; a contact
        sheet shows each to a client.
      </Txt>
      <View style={styles.row}>
        {EXCHANGE_KINDS.map((kind) => (
          <Button key={kind} title={NAMES[kind]} onPress={() => save(kind)} testID={`save-${kind}`} />
        ))}
        {(['pdf', 'png'] as const).map((kind) => (
          <Button
            key={kind}
            title={`Contact sheet (.${kind})`}
            disabled={making}
            onPress={() => void sheet(kind)}
            testID={`save-sheet-${kind}`}
          />
        ))}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: 10 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
});
