import { type Brand, freeName, type Reel, type Template } from '@fresh-reel/core';
import { LISTED } from '@fresh-reel/templates/listed';
import { listBrands, saveBrand } from '../storage/brand';
import { newId } from '../storage/ids';
import { takePreferences } from '../storage/preferences';
import { readReel, saveReel } from '../storage/reels';
import { isShipped, shippedTemplate } from '../storage/shipped';
import { listAllEditions, putTemplates } from '../storage/templates';
import type { Things } from './openPackage';

/** How many of each came in; what was here already, to the letter, did not come again. */
export interface Taken {
  readonly reels: number;
  readonly templates: number;
  readonly brands: number;
}

const same = (a: object, b: object) => JSON.stringify(a) === JSON.stringify(b);

/**
 * Takes several things in, as a backup brings them. Nothing that is here is written over: what has the id of something
 * else comes under one of its own.
 * @param choices what was chosen for the app, as a backup brings it
 * @throws {StorageError}
 */
export async function takeThings({ reels, templates, brands }: Things, choices?: unknown): Promise<Taken> {
  const ids = new Map<string, string>();
  const brandIds = new Map<string, string>();
  const newTemplates = await freshTemplates(templates, ids);
  await putTemplates(newTemplates);
  let reelsTaken = 0;
  for (const reel of reels) if (await takeReel(reel)) reelsTaken++;
  let brandsTaken = 0;
  const held = await listBrands();
  for (const brand of brands) if (await takeBrand(brand, held, ids, brandIds)) brandsTaken++;
  if (choices !== undefined) await takePreferences(choices, { templates: ids, brands: brandIds });
  return {
    reels: reelsTaken,
    templates: new Set(newTemplates.map((t) => t.id)).size,
    brands: brandsTaken,
  };
}

/** Templates that are not here yet, with ids that are free. @param ids takes those that had to change */
async function freshTemplates(templates: readonly Template[], ids: Map<string, string>): Promise<Template[]> {
  const own = await listAllEditions();
  const shipped = await Promise.all(
    templates.filter((t) => isShipped(t.id)).map((t) => shippedTemplate(t.id)),
  );
  const taken = new Set([...own, ...LISTED].map((t) => t.id));
  const known = new Set([...own, ...shipped].map((t) => JSON.stringify(t)));
  const fresh = templates.filter((t) => !known.has(JSON.stringify(t)));
  return fresh.map((template) => {
    if (!ids.has(template.id) && taken.has(template.id)) {
      const id = freeName(template.id, (name) => taken.has(name));
      ids.set(template.id, id);
      taken.add(id);
    }
    return { ...template, id: ids.get(template.id) ?? template.id };
  });
}

async function takeReel(reel: Reel): Promise<boolean> {
  const there = await readReel(reel.id);
  if (there?.kind === 'reel' && same(there.reel, reel)) return false;
  await saveReel(there === null ? reel : { ...reel, id: newId(), name: `${reel.name} again`.slice(0, 120) });
  return true;
}

async function takeBrand(
  brand: Brand,
  held: readonly Brand[],
  ids: ReadonlyMap<string, string>,
  brandIds: Map<string, string>,
): Promise<boolean> {
  const wanted = { ...brand, templates: brand.templates.map((id) => ids.get(id) ?? id) };
  if (held.some((b) => same(b, wanted))) return false;
  const names = new Set(held.map((b) => b.name));
  const id = held.some((b) => b.id === brand.id) ? newId() : brand.id;
  brandIds.set(brand.id, id);
  await saveBrand({
    ...wanted,
    id,
    name: freeName(brand.name, (name) => names.has(name), ' '),
  });
  return true;
}
