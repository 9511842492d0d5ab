import { freeName, type ListedTemplate, type Template } from '@fresh-reel/core';
import { LISTED } from '@fresh-reel/templates/listed';
import { type UseQueryResult, useQueries, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useMemo } from 'react';
import { keys } from './queries';
import { putBack } from './removed';
import { isShipped, shippedTemplate } from './shipped';
import {
  deleteTemplate,
  listEditions,
  listTemplates,
  readTemplate,
  saveEdition,
  saveTemplate,
} from './templates';

const NONE: readonly ListedTemplate[] = [];

/** Milliseconds that a template stays at hand once nothing shows it: of a thousand in a list most only come by. */
const AT_HAND = 20_000;

/** What asks for what is told of the user's templates. */
export const templatesQuery = {
  queryKey: keys.templates,
  queryFn: listTemplates,
  gcTime: Number.POSITIVE_INFINITY,
};

/**
 * What is told of every template there is: one of the user's stands before the one it was kept from, others of theirs at
 * the front. {@link useTemplate} gives one whole.
 */
export function useTemplates(): {
  readonly templates: readonly ListedTemplate[];
  /** Ids of the user's own. */
  readonly own: ReadonlySet<string>;
  readonly isLoading: boolean;
} {
  const { data = NONE, isLoading } = useQuery(templatesQuery);
  return useMemo(
    () => ({ templates: inOrder(data), own: new Set(data.map((t) => t.id)), isLoading }),
    [data, isLoading],
  );
}

function inOrder(own: readonly ListedTemplate[]): ListedTemplate[] {
  const beside = LISTED.flatMap((t) => [...own.filter((o) => o.from === t.id), t]);
  return [...own.filter(({ from }) => from === undefined || !isShipped(from)), ...beside];
}

/** What asks for one template, whole; `null` where it is not there. */
const whole = (id: string) => ({
  queryKey: keys.template(id),
  queryFn: async () => (await wholeTemplate(id)) ?? null,
  // One that ships stays what it is.
  ...(isShipped(id)
    ? { gcTime: Number.POSITIVE_INFINITY, staleTime: Number.POSITIVE_INFINITY }
    : { gcTime: AT_HAND }),
});

/** One template, whole: one that ships, or one of the user's. Nothing while it is not asked for. */
export function useTemplate(id: string | undefined): {
  readonly template: Template | undefined;
  readonly isOwn: boolean;
  readonly isLoading: boolean;
} {
  const { data, isLoading } = useQuery({
    ...whole(id ?? ''),
    enabled: id !== undefined,
  });
  return { template: data ?? undefined, isOwn: id === undefined || !isShipped(id), isLoading };
}

/** Some of them, in their order; those that are not there are left out. */
export function useSomeTemplates(ids: readonly string[]): {
  readonly templates: readonly Template[];
  readonly isLoading: boolean;
} {
  return useQueries({
    queries: ids.map(whole),
    combine: someOf,
  });
}

const someOf = (results: readonly UseQueryResult<Template | null>[]) => ({
  templates: results.flatMap(({ data }) => data ?? []),
  isLoading: results.some((r) => r.isLoading),
});

/** One template, whole, as it is just now. */
export const wholeTemplate = async (id: string): Promise<Template | undefined> =>
  isShipped(id) ? shippedTemplate(id) : readTemplate(id);

const plain = (template: Template) => JSON.stringify({ ...template, id: '' });

/** Keeps a template among the user's, or the very same that is there already. @returns it as it is there */
export function useKeepTemplate(): (template: Template) => Promise<Template> {
  const changed = useChanged();
  return useCallback(
    async (template) => {
      const listed = [...(await listTemplates()), ...LISTED];
      for (const { id, name } of listed) {
        const there = name === template.name ? await wholeTemplate(id) : undefined;
        if (there && plain(there) === plain(template)) return there;
      }
      const taken = new Set(listed.map((t) => t.id));
      const kept = { ...template, id: freeName(template.id, (id) => taken.has(id)) };
      await saveTemplate(kept);
      await changed(kept.id);
      return kept;
    },
    [changed],
  );
}

/** What a template is kept as: another of the user's, or the newest edition of the one of its id. */
export type KeptKind = 'another' | 'edition';

/** Keeps a template of the user's. */
export function useStoreTemplate(): (template: Template, as: KeptKind) => Promise<Template> {
  const changed = useChanged();
  return async (template, as) => {
    if (as === 'another') await saveTemplate(template);
    const kept = as === 'edition' ? await saveEdition(template) : template;
    await changed(template.id);
    return kept;
  };
}

/** The editions of one of the user's templates, the newest first. */
export function useEditions(id: string) {
  return useQuery({ queryKey: keys.editions(id), queryFn: () => listEditions(id) });
}

/** Takes a template from the user's, and puts it back. */
export function useRemoveTemplate(): {
  readonly remove: (template: Template) => Promise<void>;
  readonly restore: (template: Template) => Promise<void>;
} {
  const changed = useChanged();
  return {
    remove: async (template) => {
      await deleteTemplate(template);
      await changed(template.id);
    },
    restore: async ({ id }) => {
      await putBack({ kind: 'template', id });
      await changed(id);
    },
  };
}

/** Has what lists templates read anew. */
function useChanged(): (id: string) => Promise<void> {
  const client = useQueryClient();
  return useCallback(
    async (id) => {
      for (const queryKey of [keys.templates, keys.editions(id), keys.removed])
        await client.invalidateQueries({ queryKey });
    },
    [client],
  );
}
