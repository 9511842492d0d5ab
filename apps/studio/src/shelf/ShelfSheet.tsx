import { useState } from 'react';
import type { MediaRecord } from '../storage/media';
import { useMediaList } from '../storage/queries';
import { Field } from '../ui/Field';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import { found } from './found';
import { ShelfGrid } from './ShelfGrid';

interface Props {
  readonly title: string;
  readonly kinds: readonly MediaRecord['kind'][];
  readonly onChoose: (record: MediaRecord) => void;
  readonly onClose: () => void;
}

/** Files on the shelf to choose one from. */
export function ShelfSheet({ title, kinds, onChoose, onClose }: Props) {
  const { data = [] } = useMediaList();
  const [search, setSearch] = useState('');
  const fitting = data.filter((r) => kinds.includes(r.kind));
  return (
    <Sheet title={title} onClose={onClose} testID="shelf-sheet">
      {fitting.length > 6 && (
        <Field
          label="Search the shelf"
          hideLabel
          placeholder="Search"
          value={search}
          onChangeText={setSearch}
        />
      )}
      {fitting.length === 0 && (
        <Txt tone="quiet">
          The shelf has nothing for this slot yet. Files that you put in any slot are kept here.
        </Txt>
      )}
      <ShelfGrid records={found(fitting, search)} onChoose={onChoose} columns={3} />
    </Sheet>
  );
}
