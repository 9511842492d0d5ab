import type { BrandKit, Reel } from '@fresh-reel/core';
import { QueryClient, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { readBrand, saveBrand } from './brand';
import { listMedia } from './media';
import { deleteReel, listReels, readReel, restoreReel, type StoredReel, saveReel } from './reels';
import { announce } from './tabs';

/** Stored things do not change behind our back, except in another tab, which announces itself. */
export const queryClient = new QueryClient({
  defaultOptions: {
    queries: { staleTime: Number.POSITIVE_INFINITY, retry: false, networkMode: 'always' },
    mutations: { networkMode: 'always' },
  },
});

export const keys = {
  reels: ['reels'] as const,
  reel: (id: string) => ['reel', id] as const,
  brand: ['brand'] as const,
  fonts: ['fonts'] as const,
  media: ['media'] as const,
  templates: ['templates'] as const,
};

export function useReels() {
  return useQuery({ queryKey: keys.reels, queryFn: listReels });
}

/** A reel as it is stored now: read anew each time it is opened, since another tab may have written it meanwhile. */
export function useStoredReel(id: string) {
  return useQuery({ queryKey: keys.reel(id), queryFn: () => readReel(id), gcTime: 0 });
}

/** Everything on the shelf. */
export function useMediaList() {
  return useQuery({ queryKey: keys.media, queryFn: listMedia });
}

export function useBrand() {
  return useQuery({ queryKey: keys.brand, queryFn: readBrand });
}

function useReelMutation<T>(change: (input: T) => Promise<void>, idOf: (input: T) => string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: async (_, input) => {
      announce(idOf(input));
      await client.invalidateQueries({ queryKey: keys.reels });
    },
  });
}

/** Writes a reel. While it is being edited, the editor's copy is the newest; only the list is read anew. */
export function useSaveReel() {
  return useReelMutation<Reel>(saveReel, (reel) => reel.id);
}

export function useDeleteReel() {
  const client = useQueryClient();
  return useReelMutation<string>(
    async (id) => {
      await deleteReel(id);
      client.removeQueries({ queryKey: keys.reel(id) });
    },
    (id) => id,
  );
}

export function useRestoreReel() {
  return useReelMutation<StoredReel>(restoreReel, (stored) => stored.id);
}

export function useSaveBrand() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: saveBrand,
    onMutate: (brand: BrandKit) => {
      client.setQueryData(keys.brand, brand);
    },
    onError: () => client.invalidateQueries({ queryKey: keys.brand }),
  });
}
