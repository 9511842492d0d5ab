import { useLocalSearchParams } from 'expo-router';
import { lazy } from 'react';
import { StoredReelRoute } from '@/shell/StoredReelRoute';

export { Stumbled as ErrorBoundary } from '@/shell/Stumbled';

const WorkshopScreen = lazy(() =>
  import('@/workshop/WorkshopScreen').then(({ WorkshopScreen: screen }) => ({ default: screen })),
);

export default function WorkshopRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return (
    <StoredReelRoute id={id} what="template" back={{ title: 'Back to the workshop', path: '/workshop' }}>
      {(history) => <WorkshopScreen key={id} history={history} />}
    </StoredReelRoute>
  );
}
