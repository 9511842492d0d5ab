import { useLocalSearchParams, useRouter } from 'expo-router';
import { ReelScreen } from '@/editor/ReelScreen';
import { Place } from '@/shell/Place';
import { useStoredReel } from '@/storage/queries';
import { Banner } from '@/ui/Banner';
import { Button } from '@/ui/Button';

export { Stumbled as ErrorBoundary } from '@/shell/Stumbled';

export default function ReelRoute() {
  const { id, begin } = useLocalSearchParams<{ id: string; begin?: string }>();
  const { data, error, isPending } = useStoredReel(id);
  const router = useRouter();
  if (isPending) return null;
  if (data?.kind === 'reel')
    return <ReelScreen key={id} history={data.history} begin={begin !== undefined} />;
  const reason = data?.kind === 'damaged' ? data.reason : (error?.message ?? 'It is not here any more.');
  return (
    <Place title="This reel cannot be opened">
      <Banner kind="fault">{reason}</Banner>
      <Button title="Back to reels" onPress={() => router.replace('/reels')} />
    </Place>
  );
}
