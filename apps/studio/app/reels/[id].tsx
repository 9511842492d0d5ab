import { useLocalSearchParams, useRouter } from 'expo-router';
import { lazy, Suspense } from 'react';
import { loadEditor } from '@/editor/loadEditor';
import { Place } from '@/shell/Place';
import { useStoredReel } from '@/storage/queries';
import { Banner } from '@/ui/Banner';
import { Button } from '@/ui/Button';

export { Stumbled as ErrorBoundary } from '@/shell/Stumbled';

const ReelScreen = lazy(loadEditor);

export default function ReelRoute() {
  const { id, begin } = useLocalSearchParams<{ id: string; begin?: string }>();
  const { data, error, isPending } = useStoredReel(id);
  const router = useRouter();
  if (isPending) return null;
  if (data?.kind === 'reel')
    return (
      <Suspense fallback={null}>
        <ReelScreen key={id} history={data.history} begin={begin !== undefined} />
      </Suspense>
    );
  const reason = data?.kind === 'damaged' ? data.reason : (error?.message ?? 'It is not here any more.');
  return (
    <Place title="This reel cannot be opened">
      <Banner kind="fault">{reason}</Banner>
      <Button title="Back to reels" onPress={() => router.replace('/reels')} />
    </Place>
  );
}
