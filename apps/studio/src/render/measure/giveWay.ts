import { hashKey, type QueryKey, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';

/**
 * Ends a measurement that is under way as soon as it may not be made any more: a render that begins has the machine to
 * itself. It begins anew when it may.
 */
export function useGivesWay(queryKey: QueryKey, may: boolean): void {
  const cache = useQueryClient();
  const id = hashKey(queryKey);
  useEffect(() => {
    if (!may) void cache.cancelQueries({ predicate: (query) => query.queryHash === id });
  }, [may, cache, id]);
}
