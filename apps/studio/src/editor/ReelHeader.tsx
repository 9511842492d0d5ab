import { renameReel } from '@fresh-reel/core';
import { useReelEditor } from '../editing/session/useReelEditor';
import { EditedHeader } from './EditedHeader';

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
