import { useLocalSearchParams } from 'expo-router';
import { loadEditor } from '@/editor/loadEditor';
import { later } from '@/shell/later';
import { StoredReelRoute } from '@/shell/StoredReelRoute';

export { Stumbled as ErrorBoundary } from '@/shell/Stumbled';

const ReelScreen = later(loadEditor);

export default function ReelRoute() {
  const { id, begin } = useLocalSearchParams<{ id: string; begin?: string }>();
  return (
    <StoredReelRoute id={id} what="reel" back={{ title: 'Back to reels', path: '/reels' }}>
      {(opened) => <ReelScreen key={id} opened={opened} begin={begin !== undefined} />}
    </StoredReelRoute>
  );
}
