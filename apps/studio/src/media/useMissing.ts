import { graphicsOf, isPicture, isSound, type Reel, ReelScene } from '@fresh-reel/core';
import { FONTS } from '@fresh-reel/fonts';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { assetFile } from '../decode/assets';
import { DOCUMENT_ONLY } from '../engine/documentOnly';
import { listFonts } from '../storage/fonts';
import { lackingMedia } from '../storage/media';
import { keys } from '../storage/queries';
import type { Missing } from './findMissing';

/** A missing file with the slots it shows in, by their names. */
export interface MissingFile extends Missing {
  readonly slots: readonly string[];
}

export interface MissingParts {
  readonly files: readonly MissingFile[];
  /** Font families that neither ship nor are the user's. */
  readonly families: readonly string[];
}

/** Where each file shows in a reel that does not ship with the app. */
function usesOf(reel: Reel): Map<string, { name: string | undefined; slots: string[] }> {
  const uses = new Map<string, { name: string | undefined; slots: string[] }>();
  const add = (media: string, name: string | undefined, slot: string) => {
    if (assetFile(media)) return;
    const held = uses.get(media) ?? { name, slots: [] };
    uses.set(media, { name: held.name ?? name, slots: [...held.slots, slot] });
  };
  for (const { template, fill } of graphicsOf(reel)) {
    for (const [id, held] of Object.entries(fill.slots)) {
      const slot = template.slots.find((s) => s.id === id)?.name ?? id;
      if (isPicture(held)) add(held.media, held.name, slot);
      if (isSound(held)) add(held.sound, held.name, slot);
    }
    // What a template of the user's brings along may be gone as well.
    for (const { id, name, ...slot } of template.slots) {
      const sample =
        'sample' in slot && typeof slot.sample === 'string' ? template.assets[slot.sample] : undefined;
      if (sample !== undefined && !Object.hasOwn(fill.slots, id)) add(sample, undefined, name);
    }
    for (const [layer, { fill: own }] of Object.entries(fill.texts ?? {})) {
      if (typeof own === 'object' && 'media' in own)
        add(own.media.media, own.media.name, `the words “${layer}”`);
    }
  }
  for (const item of reel.tracks.flatMap((t) => t.items)) {
    if ('media' in item) add(item.media, item.name, item.label ?? item.name ?? 'the timeline');
  }
  return uses;
}

/** The hash a file of the user's lies under; an asset that does not ship lies under none. */
const hashIn = (media: string) => media.replace(/^sha256:/, '');

/** Families that a reel names. */
const familiesOf = (reel: Reel): string[] =>
  [...new Set(new ReelScene(reel, DOCUMENT_ONLY).fonts().faces.map((f) => f.family))].sort();

/** What a reel needs and is not here. @param named families that it names */
export async function missingOf(
  reel: Reel,
  named: readonly string[] = familiesOf(reel),
): Promise<MissingParts> {
  const uses = [...usesOf(reel)];
  const lacking = await lackingMedia(uses.map(([media]) => hashIn(media)));
  const files: MissingFile[] = uses.flatMap(([media, use]) =>
    lacking.has(hashIn(media)) ? [{ media, ...use }] : [],
  );
  const own = new Set([...FONTS, ...(await listFonts())].map((f) => f.family));
  return { files, families: named.filter((f) => !own.has(f)) };
}

/** What a reel needs and is not here. */
export function useMissing(reel: Reel): MissingParts {
  const ids = useMemo(() => [...usesOf(reel).keys()].sort(), [reel]);
  const families = useMemo(() => familiesOf(reel), [reel]);
  const { data } = useQuery({
    // Looked for anew when the reel uses other files or fonts, or the shelf or the fonts change; no other change of the
    // reel asks the storage anything.
    queryKey: [...keys.media, 'missing', reel.id, ids, families],
    queryFn: () => missingOf(reel, families),
    placeholderData: (before) => before,
  });
  return data ?? NOTHING;
}

const NOTHING: MissingParts = { files: [], families: [] };
