import { Choice } from '../../ui/Choice';
import { Sheet } from '../../ui/Sheet';
import { useGraphicEditor } from '../session/useReelEditor';
import { LettersPanel } from './LettersPanel';
import { MotionPanel } from './MotionPanel';
import { PlacePanel } from './PlacePanel';
import { useText } from './useText';

export type TextTab = 'letters' | 'place' | 'motion';

const TABS: readonly { id: TextTab; name: string }[] = [
  { id: 'letters', name: 'Letters' },
  { id: 'place', name: 'Place' },
  { id: 'motion', name: 'Motion' },
];

/** How a text is set, placed and moved. */
export function TextSheet({
  layer,
  tab,
  onTab,
  onClose,
}: {
  layer: string;
  tab: TextTab;
  onTab: (tab: TextTab) => void;
  onClose: () => void;
}) {
  const text = useText(layer);
  const { graphic } = useGraphicEditor();
  if (!text) return null;
  const { words } = text.layer;
  const slot = 'slot' in words ? graphic.template.slots.find((s) => s.id === words.slot) : undefined;
  return (
    <Sheet title={text.layer.name ?? slot?.name ?? 'Words'} onClose={onClose} testID="text-sheet">
      <Choice label="What to change" options={TABS} value={tab} onChange={onTab} testID="text-tab" />
      {tab === 'letters' && <LettersPanel text={text} />}
      {tab === 'place' && <PlacePanel text={text} />}
      {tab === 'motion' && <MotionPanel text={text} />}
    </Sheet>
  );
}
