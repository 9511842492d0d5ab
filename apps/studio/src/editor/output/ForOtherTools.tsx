import {
  editList,
  type FrameSize,
  fileStem,
  messageOf,
  type Reel,
  subRipOf,
  timelineOf,
  webVttOf,
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

type Write = (props: Props) => string;

const LISTS: readonly { ending: string; name: string; write: Write }[] = [
  {
    ending: 'otio',
    name: 'Timeline (.otio)',
    write: ({ reel, ...terms }) => JSON.stringify(timelineOf(reel, terms), undefined, 2),
  },
  { ending: 'edl', name: 'Edit list (.edl)', write: ({ reel, ...terms }) => editList(reel, terms) },
  { ending: 'vtt', name: 'Words (.vtt)', write: ({ reel }) => webVttOf(reel) },
  { ending: 'srt', name: 'Words (.srt)', write: ({ reel }) => subRipOf(reel) },
];

/** Where the titles of a reel stand and what they say, as files that other tools open. */
export function ForOtherTools(props: Props) {
  const toast = useToast();
  const save = (ending: string, write: Write) => {
    try {
      saveFile(new Blob([write(props)], { type: 'text/plain' }), `${fileStem(props.reel.name)}.${ending}`);
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
        {LISTS.map(({ ending, name, write }) => (
          <Button key={ending} title={name} onPress={() => save(ending, write)} testID={`save-${ending}`} />
        ))}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: 10 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
});
