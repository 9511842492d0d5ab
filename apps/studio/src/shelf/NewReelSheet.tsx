import { FRAMES, type FrameShape, frameOfClip, rateLabel, reelOfFiles } from '@fresh-reel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useNewReel } from '../shell/useNewReel';
import { fileFacts, type MediaRecord } from '../storage/media';
import { useMediaList } from '../storage/queries';
import { Banner } from '../ui/Banner';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import { useDemoShelf } from './demoShelf';
import { ShelfGrid } from './ShelfGrid';

/** Common practice for films of the web, where the first clip does not decide. */
const RATE = { num: 25, den: 1 } as const;

/** Clips of the shelf, touched in the order in which they are to follow each other, become a reel. */
export function NewReelSheet({ onClose }: { onClose: () => void }) {
  useDemoShelf();
  const { data = [] } = useMediaList();
  const { start, fault } = useNewReel();
  const [chosen, setChosen] = useState<readonly MediaRecord[]>([]);
  const [shape, setShape] = useState<FrameShape | 'first'>('first');
  const clips = [...data.filter((r) => r.kind === 'clip'), ...data.filter((r) => r.kind === 'picture')];
  const numbers = new Map(chosen.map((r, i) => [r.hash, i + 1]));
  const first = chosen.find((r) => r.kind === 'clip');
  const own = first && frameOfClip(fileFacts(first));
  const made =
    own && shape === 'first'
      ? own
      : { frame: FRAMES[shape === 'first' ? 'wide' : shape], rate: own?.rate ?? RATE };
  const toggle = (record: MediaRecord) =>
    setChosen((now) =>
      now.some((r) => r.hash === record.hash) ? now.filter((r) => r.hash !== record.hash) : [...now, record],
    );
  return (
    <Sheet title="New reel from clips" onClose={onClose} testID="new-reel-sheet">
      <Txt tone="quiet">
        {clips.length === 0
          ? 'There are no clips and pictures on the shelf yet. Add some first.'
          : 'Touch clips and pictures in the order in which they follow each other.'}
      </Txt>
      {fault && <Banner kind="fault">{fault}</Banner>}
      <Choice
        label="Frame"
        value={shape}
        options={[
          { id: 'first', name: 'From the first clip' },
          { id: 'wide', name: 'Wide' },
          { id: 'tall', name: 'Tall' },
          { id: 'square', name: 'Square' },
        ]}
        onChange={setShape}
        testID="new-reel-frame"
      />
      <View style={styles.end}>
        <Txt kind="small" tone="quiet" testID="new-reel-facts">
          {`${made.frame.width} × ${made.frame.height}, ${rateLabel(made.rate)} frames a second`}
        </Txt>
        <Button
          title={chosen.length === 0 ? 'Make the reel' : `Make a reel of ${chosen.length}`}
          kind="next"
          disabled={chosen.length === 0}
          onPress={() =>
            void start(stemOf(chosen[0]!.name), (reel) =>
              reelOfFiles(chosen.map(fileFacts), { ...reel, ...made }),
            )
          }
          testID="new-reel-make"
        />
      </View>
      <ShelfGrid records={clips} numbers={numbers} onChoose={toggle} columns={3} />
    </Sheet>
  );
}

/** A file's name without what says its kind. */
const stemOf = (name: string) => name.replace(/\.[^.]{1,5}$/, '').slice(0, 100) || 'Reel';

const styles = StyleSheet.create({
  end: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    alignItems: 'center',
    justifyContent: 'space-between',
    gap: 12,
  },
});
