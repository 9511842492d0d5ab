import { type ReactNode, useMemo, useState } from 'react';
import { FollowingProvider, useFollowingState } from '../editing/follow/useFollowing';
import { type Desk, DeskProvider } from '../editing/session/desk';
import { PathPointProvider } from '../editing/session/pathPoint';
import { type ReelEditor, ReelEditorProvider } from '../editing/session/useReelEditor';
import { GesturesProvider } from '../ui/gestures';
import { type SlotRows, SlotRowsProvider } from './fill/slotRows';

/** What all parts of an editor share: what is edited, gestures as steps of undo, and the rows of its slots. */
export function EditorProviders({
  editor,
  rows,
  children,
}: {
  editor: ReelEditor;
  rows: SlotRows;
  children: ReactNode;
}) {
  const { settle, cancel } = editor;
  const gestures = useMemo(() => ({ begin: settle, cancel }), [settle, cancel]);
  return (
    <ReelEditorProvider value={editor}>
      <GesturesProvider value={gestures}>
        <SlotRowsProvider value={rows}>{children}</SlotRowsProvider>
      </GesturesProvider>
    </ReelEditorProvider>
  );
}

/** What the picture and the sheet beside it share. */
export function DeskProviders({ desk, children }: { desk: Desk; children: ReactNode }) {
  const [point, choosePoint] = useState<number>();
  const [apart, setApart] = useState(false);
  const pathPoint = useMemo(() => ({ point, choosePoint, apart, setApart }), [point, apart]);
  return (
    <DeskProvider value={desk}>
      <WithFollowing>
        <PathPointProvider value={pathPoint}>{children}</PathPointProvider>
      </WithFollowing>
    </DeskProvider>
  );
}

/** What is followed is shared by the picture and the sheet. */
function WithFollowing({ children }: { children: ReactNode }) {
  return <FollowingProvider value={useFollowingState()}>{children}</FollowingProvider>;
}
