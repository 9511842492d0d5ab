import { renameReel } from '@fresh-reel/core';
import { EditedHeader } from './EditedHeader';
import { useReelEditor } from './session/useReelEditor';

/** Above a reel. */
export function ReelHeader() {
  const { reel, edit } = useReelEditor();
  return (
    <EditedHeader
      back={{ label: 'Back to reels', path: '/reels' }}
      name={reel.name}
      what="reel"
      longest={120}
      onRename={(name) => edit((r) => renameReel(r, name))}
      testID="reel-name"
    />
  );
}
