import { z } from 'zod';
import { FIRST_BRAND } from './brand';
import { jsonOf, store, write } from './store';

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
  signature: '',
  singleKeys: true,
  notices: false,
};

const KEY = 'preferences';

/** What does not read is as it was in the beginning. */
export async function readPreferences(): Promise<Preferences> {
  return preferencesSchema.parse(jsonOf(await store.getItem(KEY)) ?? {});
}

/** @throws {StorageError} */
export async function savePreferences(preferences: Preferences): Promise<void> {
  await write({ [KEY]: JSON.stringify(preferences) });
}
