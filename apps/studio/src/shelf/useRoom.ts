import { useQuery } from '@tanstack/react-query';
import { countGone } from '../storage/media';
import { keys } from '../storage/queries';

export interface Room {
  /** Bytes that everything kept here takes, and that are left, as the browser reckons. */
  readonly used: number;
  readonly left: number;
  /** Files that were taken off and can still be put back. */
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
        : { used: usage, left: Math.max(0, quota - usage), gone: await countGone() };
    },
  });
  return data ?? undefined;
}
