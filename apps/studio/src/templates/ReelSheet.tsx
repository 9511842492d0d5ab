import { useReels } from '../storage/queries';
import type { ReelSummary } from '../storage/summaries';
import { Button } from '../ui/Button';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import { secondsText } from '../ui/units';

interface Props {
  readonly onChoose: (reel: ReelSummary) => void;
  readonly onClose: () => void;
}

/** Which reel a title goes into. */
export function ReelSheet({ onChoose, onClose }: Props) {
  const { data: reels = [] } = useReels();
  const summaries = reels.flatMap((r) => (r.kind === 'reel' ? [r.summary] : []));
  return (
    <Sheet title="Into which reel?" onClose={onClose} testID="reel-sheet">
      <Txt tone="quiet">
        {summaries.length > 0
          ? 'It comes where the last title is over.'
          : 'There is no reel yet. Choose “Use” to begin one.'}
      </Txt>
      {summaries.map((reel) => (
        <Button
          key={reel.id}
          title={`${reel.name}, ${secondsText(reel.seconds)}`}
          icon="film"
          onPress={() => onChoose(reel)}
          testID={`into-${reel.id}`}
        />
      ))}
    </Sheet>
  );
}
