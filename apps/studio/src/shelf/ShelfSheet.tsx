import { type ReactNode, useState } from 'react';
import type { MediaRecord } from '../storage/media';
import { useMediaList } from '../storage/queries';
import { Field } from '../ui/Field';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import { useDemoShelf } from './demoShelf';
import { found } from './found';
import { ShelfGrid } from './ShelfGrid';

interface Props {
  readonly title: string;
  readonly kinds: readonly MediaRecord['kind'][];
  readonly onChoose: (record: MediaRecord) => void;
  readonly onClose: () => void;
  /** Stands above the files. */
  readonly children?: ReactNode;
}

/** Files on the shelf to choose one from. */
export function ShelfSheet({ title, kinds, onChoose, onClose, children }: Props) {
  useDemoShelf();
  const { data = [] } = useMediaList();
  const [search, setSearch] = useState('');
  const fitting = data.filter((r) => kinds.includes(r.kind));
  return (
    <Sheet title={title} onClose={onClose} testID="shelf-sheet">
      {children}
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
        <Txt tone="quiet">The shelf has nothing that fits here yet. Files that you add are kept on it.</Txt>
      )}
      <ShelfGrid records={found(fitting, search)} onChoose={onChoose} columns={3} />
    </Sheet>
  );
}
