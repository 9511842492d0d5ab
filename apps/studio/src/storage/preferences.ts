import { z } from 'zod';
import { FIRST_BRAND } from './brand';
import { jsonOf, store, write } from './store';
import { tellTabs, whileHeld } from './tabs';

/** Clips of the demo that can lie behind a transparent title, by their files. */
export const FOOTAGE = ['kites-crossing', 'crowd-on-the-hill', 'drifting-sky'] as const;

const groundSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('footage'),
    clip: z.enum(FOOTAGE),
    /** Whether it plays along: without a graphics card it takes its share of the machine. */
    plays: z.boolean(),
  }),
  z.strictObject({ kind: z.literal('picture'), media: z.string().min(1) }),
  z.strictObject({ kind: z.literal('plain'), colour: z.string().regex(/^#[0-9A-Fa-f]{6}$/) }),
  z.strictObject({ kind: z.literal('chequers') }),
]);

/** What lies behind transparent titles while they are looked at. It is never rendered. */
export type Ground = z.infer<typeof groundSchema>;

const FIRST_GROUND = { kind: 'footage', clip: 'kites-crossing', plays: false } as const;

const groupSchema = z.strictObject({
  name: z.string().min(1).max(40),
  /** Ids of its templates. */
  templates: z.array(z.string()).max(500),
});

/** A group of templates of the user's own making. */
export type TemplateGroup = z.infer<typeof groupSchema>;

/** What the user has chosen once for all of the app. */
const preferencesSchema = z.object({
  ground: groundSchema.catch(FIRST_GROUND),
  /** The brand that is worked with. */
  brand: z.string().catch(FIRST_BRAND),
  /** Whether templates are shown in that brand, and begin in it. */
  wearing: z.boolean().catch(false),
  /** Ids of templates that come first. */
  favourites: z.array(z.string()).max(500).catch([]),
  /** Ids of templates that were used last, the newest first. */
  recent: z.array(z.string()).max(40).catch([]),
  /** Groups of templates that the user has made, in the order in which they were. */
  groups: z.array(groupSchema).max(100).catch([]),
  /** Who the files are from that are handed on; nobody, when empty. */
  signature: z.string().max(120).catch(''),
  /** Whether single letters and signs are keys in Place. */
  singleKeys: z.boolean().catch(true),
  /** Whether the end of a render is told outside the page. */
  notices: z.boolean().catch(false),
});

export type Preferences = z.infer<typeof preferencesSchema>;

/** As they are before anything was chosen. */
export const FIRST_PREFERENCES: Preferences = {
  ground: FIRST_GROUND,
  brand: FIRST_BRAND,
  wearing: false,
  favourites: [],
  recent: [],
  groups: [],
  signature: '',
  singleKeys: true,
  notices: false,
};

const KEY = 'preferences';

/** What does not read is as it was in the beginning. */
export async function readPreferences(): Promise<Preferences> {
  return preferencesSchema.parse(jsonOf(await store.getItem(KEY)) ?? {});
}

/**
 * Changes what was chosen, from what is kept now: another tab may have chosen something else meanwhile.
 * @throws {StorageError}
 */
function changeFrom(by: (now: Preferences) => Preferences): Promise<void> {
  return whileHeld(KEY, async () => {
    await write({ [KEY]: JSON.stringify(by(await readPreferences())) });
    tellTabs('preferences');
  });
}

/** Chooses some of it; the rest stays as it is kept, whichever tab chose it. @throws {StorageError} */
export const changePreferences = (part: Partial<Preferences>): Promise<void> =>
  changeFrom((now) => ({ ...now, ...part }));

/** Templates of a group with one more, or one less; a group without any is none. Groups are told apart by their names. */
export function regrouped(
  groups: readonly TemplateGroup[],
  name: string,
  template: string,
  isIn: boolean,
): TemplateGroup[] {
  const held = groups.find((g) => g.name === name) ?? { name, templates: [] };
  const others = held.templates.filter((id) => id !== template);
  const next = { name, templates: isIn ? [...others, template] : others };
  const all = groups.includes(held) ? groups.map((g) => (g === held ? next : g)) : [...groups, next];
  return all.filter((g) => g.templates.length > 0);
}

/** Groups with one of another name; what another group of that name holds comes first in it. */
export function renamedGroup(groups: readonly TemplateGroup[], from: string, to: string): TemplateGroup[] {
  const held = groups.find((g) => g.name === from);
  if (!held || from === to) return [...groups];
  const there = groups.find((g) => g.name === to);
  const next = { name: to, templates: [...new Set([...(there?.templates ?? []), ...held.templates])] };
  return groups.flatMap((g) => (g === there ? [] : g === held ? [next] : [g]));
}

/** What a backup renamed as it came in, by the id it had: of templates, and of brands. */
export interface Renamed {
  readonly templates: ReadonlyMap<string, string>;
  readonly brands: ReadonlyMap<string, string>;
}

/**
 * Takes in what was chosen elsewhere, as a backup brings it. Favourites and groups come beside those that are here; the
 * rest counts where nothing was chosen here yet.
 * @throws {StorageError}
 */
export async function takePreferences(brought: unknown, renamed: Renamed): Promise<void> {
  const came = preferencesSchema.parse(brought ?? {});
  const template = (id: string) => renamed.templates.get(id) ?? id;
  const own = {
    ...came,
    brand: renamed.brands.get(came.brand) ?? came.brand,
    favourites: came.favourites.map(template),
    recent: came.recent.map(template),
    groups: came.groups.map((g) => ({ ...g, templates: g.templates.map(template) })),
  };
  const text = await store.getItem(KEY);
  if (text === null) return changeFrom(() => own);
  const both = (a: readonly string[], b: readonly string[], most: number) =>
    [...new Set([...a, ...b])].slice(0, most);
  const grouped = (groups: readonly TemplateGroup[]) =>
    own.groups.reduce<readonly TemplateGroup[]>(
      (all, { name, templates }) => templates.reduce((g, id) => regrouped(g, name, id, true), all),
      groups,
    );
  await changeFrom((here) => ({
    ...here,
    favourites: both(here.favourites, own.favourites, 500),
    recent: both(here.recent, own.recent, 40),
    groups: grouped(here.groups).slice(0, 100),
  }));
}
