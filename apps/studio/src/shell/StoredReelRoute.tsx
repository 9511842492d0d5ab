import { useRouter } from 'expo-router';
import { type ReactNode, Suspense } from 'react';
import { type OpenedReel, useStoredReel } from '../storage/queries';
import { Banner } from '../ui/Banner';
import { Button } from '../ui/Button';
import { Place } from './Place';

interface Props {
  readonly id: string;
  /** What it is, in a word. */
  readonly what: string;
  /** Where one goes when it does not open. */
  readonly back: { readonly title: string; readonly path: '/reels' | '/workshop' };
  readonly children: (opened: OpenedReel) => ReactNode;
}

/** What is stored as a reel, on a screen of its own; or why it cannot be opened. */
export function StoredReelRoute({ id, what, back, children }: Props) {
  const { data, error, isPending } = useStoredReel(id);
  const router = useRouter();
  if (isPending) return null;
  if (data?.kind === 'reel') return <Suspense fallback={null}>{children(data)}</Suspense>;
  const reason = data?.kind === 'damaged' ? data.reason : (error?.message ?? 'It is not here any more.');
  return (
    <Place title={`This ${what} cannot be opened`}>
      <Banner kind="fault">{reason}</Banner>
      <Button title={back.title} onPress={() => router.replace(back.path)} />
    </Place>
  );
}
