import { freeName, type Template } from '@fresh-reel/core';
import { TEMPLATES } from '@fresh-reel/templates';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useMemo } from 'react';
import { keys } from './queries';
import { deleteTemplate, listTemplates, saveTemplate } from './templates';

const NONE: readonly Template[] = [];

/** Every template there is: the user's first, then those that ship. */
export function useTemplates(): {
  readonly templates: readonly Template[];
  /** Ids of the user's own. */
  readonly own: ReadonlySet<string>;
  readonly isLoading: boolean;
} {
  const { data = NONE, isLoading } = useQuery({ queryKey: keys.templates, queryFn: listTemplates });
  return useMemo(
    () => ({ templates: [...data, ...TEMPLATES], own: new Set(data.map((t) => t.id)), isLoading }),
    [data, isLoading],
  );
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

/** Takes a template from the user's, and puts it back. */
export function useRemoveTemplate(): {
  readonly remove: (template: Template) => Promise<void>;
  readonly restore: (template: Template) => Promise<void>;
} {
  const client = useQueryClient();
  const changed = useCallback(() => client.invalidateQueries({ queryKey: keys.templates }), [client]);
  return {
    remove: async (template) => {
      await deleteTemplate(template.id);
      await changed();
    },
    restore: async (template) => {
      await saveTemplate(template);
      await changed();
    },
  };
}
