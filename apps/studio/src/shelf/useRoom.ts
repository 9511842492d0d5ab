import { useQuery } from '@tanstack/react-query';
import { keys } from '../storage/queries';
import { listRemoved } from '../storage/removed';

export interface Room {
  /** Bytes that everything kept here takes, and that are left, as the browser reckons. */
  readonly used: number;
  readonly left: number;
  /** Files and reels that were deleted and can still be put back. */
  readonly gone: number;
}

/** How much room the browser gives and how much is taken. Nothing where it does not tell. */
export function useRoom(): Room | undefined {
  const { data } = useQuery({
    queryKey: [...keys.media, 'room'],
    queryFn: async (): Promise<Room | null> => {
      const { usage, quota } = (await navigator.storage?.estimate?.()) ?? {};
      return usage === undefined || quota === undefined
        ? null
        : { used: usage, left: Math.max(0, quota - usage), gone: (await listRemoved()).length };
    },
  });
  return data ?? undefined;
}
