import { z } from 'zod';
import { EXTENTS } from '../formats/extents';
import { RENDER_FORMATS } from '../formats/plan';
import { frameSizeSchema } from '../values/frame';
import { freeName } from '../values/freeName';
import { MOST } from '../values/limits';
import { type LinkFault, linkable, linkFaults } from '../values/linking';
import { type DocumentKind, nested } from '../values/load';
import type { Fill } from './fill';
import { markerSchema, type ReelItem, trackSchema } from './item';
import { rateSchema, type Template } from './template';
import { templateKind } from './templateKind';
import { waySchema } from './way';

/** One template placed in a reel, with all that belongs to it. The reel keeps the template once for all of its kind. */
export interface Graphic {
  readonly id: string;
  readonly template: Template;
  readonly fill: Fill;
  /** Frames of the reel's rate from its beginning. */
  readonly start: number;
}

/** A reel as far as each part of it can tell by itself. */
export const reelShape = z.strictObject({
  format: z.literal('freshreel/reel'),
  version: z.literal(5),
  id: z.string().min(1),
  name: z.string().min(1).max(120),
  /** ISO 8601 instants. */
  created: z.string(),
  changed: z.string(),
  frame: frameSizeSchema,
  rate: rateSchema,
  /**
   * The templates its graphics are made of, each a copy of its own, so that a later change of one breaks nothing; and
   * each once, however many graphics there are of it.
   */
  templates: z.record(z.string().min(1).max(200), nested(templateKind)),
  /** What lies below comes first. */
  tracks: z.array(trackSchema).max(MOST.tracks),
  /** In files of the first kind, which were one JSON: the user's media, by media id, and fonts, by `font:family/weight`. */
  embedded: z
    .record(z.string(), z.strictObject({ name: z.string(), type: z.string(), base64: z.string() }))
    .optional(),
  /** Sub-frame samples of motion blur, and the part of a frame the shutter is open. */
  motionBlur: z
    .strictObject({ samples: z.number().int().min(1).max(64), shutter: z.number().min(0).max(1) })
    .default({ samples: 1, shutter: 0.5 }),
  /** Decibels that all that is heard is louder by. */
  level: z.number().min(-60).max(40).optional(),
  /** What it was last rendered as: the kind of file, its short side in pixels, and what of it. */
  output: z
    .strictObject({
      format: z.enum(RENDER_FORMATS),
      side: z.number().int().min(2).max(8192),
      /** What of it, and between which frames. */
      extent: z.enum(EXTENTS).optional(),
      /** How its files are named: words, with parts of the reel in braces. */
      names: z.string().min(1).max(120).optional(),
      /** Loudness that is wanted of it, in LUFS. */
      loudness: z.number().min(-40).max(-5).optional(),
      /** Rendered to be looked over: quickly, and not in full. */
      draft: z.boolean().optional(),
      range: z.tuple([z.number().int().min(0), z.number().int().min(0)]).optional(),
    })
    .optional(),
  markers: z.array(markerSchema).max(MOST.markers).default([]),
  /** It is the bench on which a template is made: which of its own, and what is out of sight or locked meanwhile. */
  making: z
    .strictObject({
      template: z.string().min(1).max(200),
      hidden: z.array(z.string()).max(3000).default([]),
      locked: z.array(z.string()).max(3000).default([]),
    })
    .optional(),
  /** What was followed through its clips. */
  ways: z.array(waySchema).max(MOST.ways).default([]),
});

export const reelSchema = reelShape.superRefine(({ templates, tracks }, context) => {
  const seen = new Set<string>();
  tracks.forEach(({ items }, t) => {
    items.forEach((item, i) => {
      const path = ['tracks', t, 'items', i];
      for (const fault of itemFaults(item, templates))
        context.addIssue({ code: 'custom', path: [...path, ...fault.path], message: fault.message });
      if (seen.has(item.id))
        context.addIssue({ code: 'custom', path, message: `two items are called "${item.id}"` });
      seen.add(item.id);
    });
  });
});
export type Reel = z.infer<typeof reelShape>;

/**
 * What of an item does not fit to the templates it stands with: that its own is not there, or what is linked wrongly. What
 * was changed of a title goes by the controls of its own template.
 */
export function itemFaults(item: ReelItem, templates: Readonly<Record<string, Template>>): LinkFault[] {
  if (item.kind !== 'graphic') return linkFaults(item, NO_CONTROLS);
  if (!Object.hasOwn(templates, item.template))
    return [{ path: [], message: `the template "${item.template}" is not in it` }];
  const { fill, ...placed } = item;
  const { controls } = templates[item.template]!;
  const driven = Object.keys(item.points ?? {})
    .filter((id) => controls.find((c) => c.id === id)?.kind !== 'point')
    .map((id) => ({
      path: ['points', id],
      message: `"${id}" is no point that could go along with something`,
    }));
  return [...linkFaults(fill, linkable(controls), ['fill']), ...linkFaults(placed, NO_CONTROLS), ...driven];
}

const NO_CONTROLS = linkable([]);

export const reelKind: DocumentKind<Reel> = {
  title: 'reel',
  format: 'freshreel/reel',
  version: 5,
  schema: reelSchema as unknown as z.ZodType<Reel>,
  upgrades: {
    // What changed were the templates in it, which are brought up by their own versions.
    1: (reel) => reel,
    2: withSharedTemplates,
    // Version 4 may be the bench of the workshop.
    3: (reel) => reel,
    // Version 5 has pieces cut out of what goes round or is stretched.
    4: (reel) => reel,
  },
};

/** Version 2 held graphics alone, each with a copy of its template; its markers had no ids. */
function withSharedTemplates(reel: Record<string, unknown>): Record<string, unknown> {
  const templates: Record<string, unknown> = {};
  const keys = new Map<string, string>();
  const tracks = (reel.tracks as { id: string; graphics: Record<string, unknown>[] }[]).map(
    ({ graphics, ...track }) => ({
      ...track,
      items: graphics.map((graphic) => {
        const held = graphic.template as { id?: unknown };
        const text = JSON.stringify(held);
        const wanted = String(held.id ?? 'template');
        const key = keys.get(text) ?? freeName(wanted, (name) => Object.hasOwn(templates, name));
        keys.set(text, key);
        templates[key] = held;
        return { ...graphic, kind: 'graphic', template: key };
      }),
    }),
  );
  const markers = (reel.markers as object[] | undefined)?.map((m, i) => ({ id: `m${i + 1}`, ...m }));
  return { ...reel, templates, tracks, ...(markers ? { markers } : {}) };
}
