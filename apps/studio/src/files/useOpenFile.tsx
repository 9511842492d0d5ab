import { messageOf, type Reel } from '@fresh-reel/core';
import { useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'expo-router';
import { type ReactNode, useState } from 'react';
import { pickFile } from '../disk/pickFile';
import { newId } from '../storage/ids';
import { useSaveReel } from '../storage/queries';
import { useKeepTemplate } from '../storage/useTemplates';
import { useToast } from '../ui/Toast';
import { OpenSheet } from './OpenSheet';
import type { LookedInto } from './openPackage';
import type { Taken } from './takeThings';

/**
 * Opens a file of the user's: shows what is in it, and once that is taken in goes there. A reel becomes one of theirs, a
 * template stands with the others.
 */
export function useOpenFile(): {
  readonly open: () => Promise<void>;
  readonly fault: string | undefined;
  /** What is in the file that was chosen, to be shown. */
  readonly sheet: ReactNode;
} {
  const [fault, setFault] = useState<string>();
  const [looked, setLooked] = useState<{ readonly name: string; readonly into: LookedInto }>();
  const save = useSaveReel();
  const keep = useKeepTemplate();
  const router = useRouter();
  const client = useQueryClient();
  const toast = useToast();
  const orSay = async (name: string, work: () => Promise<void>) => {
    setFault(undefined);
    try {
      await work();
    } catch (error) {
      setFault(`"${name}" could not be opened. ${messageOf(error)}`);
    }
  };
  const open = async () => {
    const file = await pickFile('.freshreel,application/json,.json');
    if (!file) return;
    await orSay(file.name, async () => {
      // What reads packages comes when one is read.
      const { lookInto } = await import('./openPackage');
      setLooked({ name: file.name, into: await lookInto(file) });
    });
  };
  const take = async ({ name, into }: NonNullable<typeof looked>) => {
    await orSay(name, async () => {
      const { opened, damaged } = await into.take();
      if (damaged.length > 0)
        toast({
          text: `Damaged in this file, and left out: ${damaged.map((d) => `“${d}”`).join(', ')}.`,
        });
      if (opened.kind === 'several') {
        const { takeThings } = await import('./takeThings');
        const came = await takeThings(opened.things, opened.choices);
        await client.invalidateQueries();
        toast({ text: cameWords(came) });
        router.push(came.reels > 0 || came.templates === 0 ? '/reels' : '/templates');
        return;
      }
      if (opened.kind === 'template') {
        const { id } = await keep(opened.template);
        router.push(`/templates/${id}`);
        return;
      }
      const own: Reel = { ...opened.reel, id: newId(), changed: new Date().toISOString() };
      await save.mutateAsync(own);
      router.push(`/reels/${own.id}`);
    });
    setLooked(undefined);
  };
  const sheet = looked && (
    <OpenSheet
      name={looked.name}
      into={looked.into}
      onTake={() => take(looked)}
      onClose={() => setLooked(undefined)}
    />
  );
  return { open, fault, sheet };
}

function cameWords({ reels, templates, brands }: Taken): string {
  const count = (n: number, what: string) => (n === 0 ? [] : [n === 1 ? `one ${what}` : `${n} ${what}s`]);
  const came = [...count(reels, 'reel'), ...count(templates, 'template'), ...count(brands, 'brand')];
  return came.length === 0 ? 'All of it is here already.' : `Taken in: ${came.join(', ')}.`;
}
