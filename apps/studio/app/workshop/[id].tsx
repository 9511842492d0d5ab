import { useLocalSearchParams } from 'expo-router';
import { later } from '@/shell/later';
import { StoredReelRoute } from '@/shell/StoredReelRoute';

export { Stumbled as ErrorBoundary } from '@/shell/Stumbled';

const WorkshopScreen = later(async () => (await import('@/workshop/WorkshopScreen')).WorkshopScreen);

export default function WorkshopRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return (
    <StoredReelRoute id={id} what="template" back={{ title: 'Back to the workshop', path: '/workshop' }}>
      {(opened) => <WorkshopScreen key={id} opened={opened} />}
    </StoredReelRoute>
  );
}
