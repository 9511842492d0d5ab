import { mediaId } from '../storage/media';
import { FOOTAGE } from '../storage/preferences';
import { useMediaList, usePreferences, useSetPreferences } from '../storage/queries';
import { Choice } from '../ui/Choice';
import { ColourField } from '../ui/ColourField';
import { Sheet } from '../ui/Sheet';
import { Toggle } from '../ui/Toggle';
import { Txt } from '../ui/Txt';
import { ShelfGrid } from './ShelfGrid';

const KINDS = [
  { id: 'footage', name: 'Footage' },
  { id: 'picture', name: 'A picture of yours' },
  { id: 'plain', name: 'Plain' },
  { id: 'chequers', name: 'Chequers' },
] as const;

const CLIPS: Readonly<Record<(typeof FOOTAGE)[number], string>> = {
  'kites-crossing': 'Sky and kites',
  'crowd-on-the-hill': 'Dark crowd',
  'drifting-sky': 'Bright sky',
};

/** Chooses what lies behind transparent titles: once for every reel and card. */
export function GroundSheet({ onClose }: { onClose: () => void }) {
  const { ground } = usePreferences();
  const set = useSetPreferences();
  const { data = [] } = useMediaList();
  const pictures = data.filter((r) => r.kind === 'picture');
  const [first] = pictures;
  const choose = (kind: (typeof KINDS)[number]['id']) => {
    if (kind === 'footage') set({ ground: { kind, clip: FOOTAGE[0], plays: false } });
    else if (kind === 'plain') set({ ground: { kind, colour: '#3A5A6E' } });
    else if (kind === 'chequers') set({ ground: { kind } });
    else if (first) set({ ground: { kind, media: mediaId(first) } });
  };
  return (
    <Sheet title="What lies behind" onClose={onClose} testID="ground-sheet" beside>
      <Txt kind="small" tone="quiet">
        Titles with transparency are judged over it, here and in Templates. It is never rendered.
      </Txt>
      <Choice
        label="What lies behind"
        value={ground.kind}
        options={first ? KINDS : KINDS.filter((k) => k.id !== 'picture')}
        onChange={choose}
        testID="ground-kind"
      />
      {ground.kind === 'footage' && (
        <>
          <Choice
            label="Which footage"
            value={ground.clip}
            options={FOOTAGE.map((id) => ({ id, name: CLIPS[id] }))}
            onChange={(clip) => set({ ground: { ...ground, clip } })}
            testID="ground-clip"
          />
          <Toggle
            label="It plays along"
            value={ground.plays}
            onChange={(plays) => set({ ground: { ...ground, plays } })}
            testID="ground-plays"
          />
        </>
      )}
      {ground.kind === 'plain' && (
        <ColourField
          label="Colour behind"
          value={ground.colour}
          swatches={['#101418', '#3A5A6E', '#7A8C5A', '#C9B79C', '#F4F1EA']}
          onChange={(colour) => set({ ground: { kind: 'plain', colour } })}
          onSettle={() => undefined}
        />
      )}
      {ground.kind === 'picture' && (
        <ShelfGrid
          records={pictures}
          columns={3}
          onChoose={(record) => set({ ground: { kind: 'picture', media: mediaId(record) } })}
        />
      )}
      {!first && (
        <Txt kind="small" tone="quiet">
          A picture that you add to the Shelf can lie behind, too.
        </Txt>
      )}
    </Sheet>
  );
}
