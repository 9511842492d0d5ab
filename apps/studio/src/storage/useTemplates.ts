import { freeName, type Template } from '@fresh-reel/core';
import { TEMPLATES } from '@fresh-reel/templates';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useMemo } from 'react';
import { keys } from './queries';
import { putBack } from './removed';
import { deleteTemplate, listEditions, listTemplates, saveEdition, saveTemplate } from './templates';

const NONE: readonly Template[] = [];

/** Every template there is: one of the user's stands before the one it was kept from, others of theirs at the front. */
export function useTemplates(): {
  readonly templates: readonly Template[];
  /** Ids of the user's own. */
  readonly own: ReadonlySet<string>;
  readonly isLoading: boolean;
} {
  const { data = NONE, isLoading } = useQuery({ queryKey: keys.templates, queryFn: listTemplates });
  return useMemo(
    () => ({ templates: inOrder(data), own: new Set(data.map((t) => t.id)), isLoading }),
    [data, isLoading],
  );
}

function inOrder(own: readonly Template[]): Template[] {
  const shipped = new Set(TEMPLATES.map((t) => t.id));
  const stands = ({ from }: Template) => from !== undefined && shipped.has(from);
  const beside = TEMPLATES.flatMap((t) => [...own.filter((o) => o.from === t.id), t]);
  return [...own.filter((t) => !stands(t)), ...beside];
}

const plain = (template: Template) => JSON.stringify({ ...template, id: '' });

/**
 * A template as it will stand among others: the very same that is there already, or with an id that is free.
 */
export function among(template: Template, others: readonly Template[]): Template {
  const same = others.find((other) => plain(other) === plain(template));
  if (same) return same;
  const taken = new Set(others.map((t) => t.id));
  return { ...template, id: freeName(template.id, (id) => taken.has(id)) };
}

/** Keeps a template among the user's. @returns it as it is there */
export function useKeepTemplate(): (template: Template) => Promise<Template> {
  const client = useQueryClient();
  return useCallback(
    async (template) => {
      const others = [...(await listTemplates()), ...TEMPLATES];
      const kept = among(template, others);
      if (others.includes(kept)) return kept;
      await saveTemplate(kept);
      await client.invalidateQueries({ queryKey: keys.templates });
      return kept;
    },
    [client],
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
  return async (id) => {
    for (const queryKey of [keys.templates, keys.editions(id), keys.removed])
      await client.invalidateQueries({ queryKey });
  };
}
