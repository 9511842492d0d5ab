import { messageOf, type Template } from '@fresh-reel/core';
import { benchOf } from '@fresh-reel/core/make';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { newId } from '../storage/ids';
import { useFreeName, useSaveReel } from '../storage/queries';
import { useTemplates } from '../storage/useTemplates';

/** Puts a template on a bench of its own and opens it. */
export function useBegin() {
  const router = useRouter();
  const save = useSaveReel();
  const freeName = useFreeName();
  const { own } = useTemplates();
  const [fault, setFault] = useState<string>();
  const begin = async (template: Template) => {
    const bench = benchOf(template, {
      ...{ id: newId(), name: freeName(template.name), now: new Date().toISOString() },
    });
    try {
      await save.mutateAsync(bench);
      router.push(`/workshop/${bench.id}`);
    } catch (error) {
      setFault(messageOf(error));
    }
  };
  return {
    fault,
    begin,
    /** A built-in template is copied; one of the user's own is worked on as its next edition. */
    open: (template: Template) =>
      begin(
        own.has(template.id)
          ? template
          : { ...template, id: newId(), from: template.id, name: `${template.name} of mine`.slice(0, 80) },
      ),
  };
}
