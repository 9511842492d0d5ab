import { type Brand, freeName, type History, type Reel } from '@fresh-reel/core';
import { QueryClient, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { deleteBrand, listBrands, saveBrand } from './brand';
import { onStored } from './changes';
import { readHistory } from './histories';
import { listMedia } from './media';
import { changePreferences, FIRST_PREFERENCES, type Preferences, readPreferences } from './preferences';
import { deleteReel, type ListedReel, listReels, readReel, saveReel } from './reels';
import { listRemoved, putBack, type Removed, type RemovedId } from './removed';
import { onChangedElsewhere, type Shared } from './tabs';
import { newestReel } from './unsaved';

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
  brands: ['brands'] as const,
  fonts: ['fonts'] as const,
  media: ['media'] as const,
  templates: ['templates'] as const,
  /** Of the templates: what has them read anew has this one, too. */
  template: (id: string) => ['templates', id] as const,
  editions: (id: string) => ['editions', id] as const,
  removed: ['removed'] as const,
  preferences: ['preferences'] as const,
  /** Small pictures of media, and what is known of it; by media id. */
  thumb: ['thumb'] as const,
  facts: ['facts'] as const,
};

/** What is read anew of each that another tab changed. */
const OF_SHARED: Readonly<Record<Shared, readonly (readonly string[])[]>> = {
  reels: [keys.reels],
  brands: [keys.brands],
  templates: [keys.templates, ['editions']],
  removed: [keys.removed],
  preferences: [keys.preferences],
};

/** Milliseconds in which what another tab changes again and again is read anew once: a drag there is written as it goes. */
const AT_ONCE = 300;

const changing = new Set<Shared>();

onChangedElsewhere((changed) => {
  if (changing.has(changed)) return;
  changing.add(changed);
  setTimeout(() => {
    changing.delete(changed);
    for (const queryKey of OF_SHARED[changed]) void queryClient.invalidateQueries({ queryKey });
  }, AT_ONCE);
});

// Whoever shows a file or a font hears when it comes or goes, in this tab or another.
onStored(({ kind }) => {
  if (kind === 'proxy') return;
  for (const queryKey of kind === 'font' ? [keys.fonts, keys.media] : [keys.media, keys.thumb, keys.facts])
    void queryClient.invalidateQueries({ queryKey });
});

/** Everything that is stored as a reel: the user's, and the benches of the workshop. */
export function useStoredReels() {
  return useQuery({ queryKey: keys.reels, queryFn: listReels });
}

const isMaking = (listed: ListedReel) => listed.kind === 'reel' && listed.summary.making === true;
const reelsAlone = (all: readonly ListedReel[]) => all.filter((listed) => !isMaking(listed));
const benchesAlone = (all: readonly ListedReel[]) => all.filter(isMaking);

/** The user's reels. */
export function useReels() {
  return useQuery({ queryKey: keys.reels, queryFn: listReels, select: reelsAlone });
}

/** Templates that are being made. */
export function useBenches() {
  return useQuery({ queryKey: keys.reels, queryFn: listReels, select: benchesAlone });
}

/** Gives a reel a name that no other has: `Opener`, `Opener 2`, … */
export function useFreeName(): (wanted: string) => string {
  const { data: reels = [] } = useStoredReels();
  return (wanted) => {
    const taken = new Set(reels.flatMap((r) => (r.kind === 'reel' ? [r.summary.name] : [])));
    return freeName(wanted, (name) => taken.has(name), ' ');
  };
}

/** A reel that is opened: it and the steps that were kept of it, and what is stored where that is not the newest. */
export interface OpenedReel {
  readonly history: History<Reel>;
  readonly stored?: Reel;
}

/** A reel as it is stored now: read anew each time it is opened, since another tab may have written it meanwhile. */
export function useStoredReel(id: string) {
  return useQuery({
    queryKey: keys.reel(id),
    queryFn: async () => {
      const stored = await newestReel(id);
      return stored?.kind === 'reel' ? { ...stored, history: await readHistory(stored.reel) } : stored;
    },
    gcTime: 0,
  });
}

/**
 * A reel as a list shows it, as it was at a change of it. Apart from {@link useStoredReel}: what is opened to be edited
 * is never what a list remembers.
 */
export function useListedReel(id: string, changed: string) {
  return useQuery({ queryKey: ['listed', id, changed], queryFn: () => readReel(id), gcTime: 0 });
}

/** Everything on the shelf. */
export function useMediaList() {
  return useQuery({ queryKey: keys.media, queryFn: listMedia });
}

export function useBrands() {
  return useQuery({ queryKey: keys.brands, queryFn: listBrands });
}

/** The brand that is worked with; `null` where there is none, and nothing while that is not known. */
export function useBrand(): Brand | null | undefined {
  const { data } = useBrands();
  const { brand } = usePreferences();
  return data && (data.find(({ id }) => id === brand) ?? data[0] ?? null);
}

export function usePreferences(): Preferences {
  return useQuery({ queryKey: keys.preferences, queryFn: readPreferences }).data ?? FIRST_PREFERENCES;
}

/** Changes some of them at once, and keeps them; before they are read, as soon as they are, so that none is lost. */
export function useSetPreferences(): (part: Partial<Preferences>) => void {
  const client = useQueryClient();
  return (part) => {
    const held = () => client.getQueryData<Preferences>(keys.preferences);
    const change = (now: Preferences) => {
      client.setQueryData(keys.preferences, { ...now, ...part });
      // One that could not be kept counts until the app is closed.
      void changePreferences(part).catch(() => undefined);
    };
    const now = held();
    if (now) return change(now);
    const reading = client.ensureQueryData({ queryKey: keys.preferences, queryFn: readPreferences });
    void reading.then((read) => change(held() ?? read));
  };
}

function useReelMutation<T>(change: (input: T) => Promise<void>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: () => client.invalidateQueries({ queryKey: keys.reels }),
  });
}

/** Writes a reel. While it is being edited, the editor's copy is the newest; only the list is read anew. */
export function useSaveReel() {
  return useReelMutation<Reel>(saveReel);
}

export function useDeleteReel() {
  const client = useQueryClient();
  return useReelMutation<{ readonly id: string; readonly name: string }>(async (stored) => {
    await deleteReel(stored);
    client.removeQueries({ queryKey: keys.reel(stored.id) });
    await client.invalidateQueries({ queryKey: keys.removed });
  });
}

/** What was deleted and can be put back. */
export function useRemoved() {
  return useQuery({ queryKey: keys.removed, queryFn: listRemoved });
}

/** The list in which something is when it is put back. */
const LISTED: Readonly<Record<Removed['kind'], readonly string[]>> = {
  reel: keys.reels,
  media: keys.media,
  template: keys.templates,
  brand: keys.brands,
};

/** Puts something back, or deletes it for good. */
export function useRemovedChange<T extends RemovedId>(change: (removed: T) => Promise<void>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSettled: async (_, __, removed) => {
      await client.invalidateQueries({ queryKey: keys.removed });
      await client.invalidateQueries({ queryKey: LISTED[removed.kind] });
    },
  });
}

/** A brand, and what it was before a change of it; a new one has no before. */
interface BrandChange {
  readonly brand: Brand;
  readonly before?: Brand | undefined;
}

export function useSaveBrand() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ brand, before }: BrandChange) => saveBrand(brand, before),
    onMutate: ({ brand }) => {
      client.setQueryData<Brand[]>(keys.brands, (held = []) =>
        held.some(({ id }) => id === brand.id)
          ? held.map((other) => (other.id === brand.id ? brand : other))
          : [...held, brand],
      );
    },
    onError: () => client.invalidateQueries({ queryKey: keys.brands }),
  });
}

/** Takes a brand out, and puts it back. */
export function useRemoveBrand() {
  const client = useQueryClient();
  const changed = async () => {
    for (const queryKey of [keys.brands, keys.removed]) await client.invalidateQueries({ queryKey });
  };
  return {
    remove: async (brand: Brand) => {
      await deleteBrand(brand);
      await changed();
    },
    restore: async ({ id }: Brand) => {
      await putBack({ kind: 'brand', id });
      await changed();
    },
  };
}
