import { z } from 'zod';
import { type ReelItem, reelItemSchema, type Track, trackSchema } from '../documents/item';
import { itemFaults, type Reel, reelShape } from '../documents/reel';
import { type Template, templateShape } from '../documents/template';
import { faultsOfTemplate } from '../documents/templateFaults';
import { templateSchema } from '../documents/templateKind';
import { waySchema } from '../documents/way';
import { layerSchema } from '../layers/registry';
import { MOST } from '../values/limits';
import { type LinkFault, linkable, linkFaults } from '../values/linking';
import { faultText } from '../values/load';
import { EditError } from './place';

/**
 * What an edit made of a reel, if it opens again once it is written: every edit goes through here, so that what can be
 * made and what can be opened are one thing. What is the same object as before is not looked through again.
 * @param before a reel that opens
 * @throws {EditError} saying what there is too much of, or what could not be opened
 */
export function keepable(reel: Reel, before: Reel): Reel {
  if (reel === before) return reel;
  mayHold('a reel', 'tracks', reel.tracks, MOST.tracks);
  mayHold('a reel', 'markers', reel.markers, MOST.markers);
  mayHold('a reel', 'ways that are followed', reel.ways, MOST.ways);
  for (const [key, value] of Object.entries(reel)) {
    if (IN_PARTS.has(key) || value === before[key as keyof Reel]) continue;
    opens((SHAPE[key] ?? z.never()) as z.ZodType, value, [key]);
  }
  if (reel.markers !== before.markers) eachNew(reel.markers, before.markers, MARKER, ['markers']);
  if (reel.ways !== before.ways) waysOpen(reel, before);
  for (const [key, template] of Object.entries(reel.templates))
    if (template !== before.templates[key] && !KNOWN.has(template))
      templateOpens(template, before.templates[key]);
  if (reel.tracks !== before.tracks || reel.templates !== before.templates) tracksOpen(reel, before);
  return reel;
}

const SHAPE: Readonly<Record<string, z.ZodType | undefined>> = reelShape.shape;
const TEMPLATE: Readonly<Record<string, z.ZodType | undefined>> = templateShape.shape;
/** Parts of a reel that are looked through by what they consist of. */
const IN_PARTS: ReadonlySet<string> = new Set(['tracks', 'templates', 'ways', 'markers']);
const MARKER = reelShape.shape.markers.unwrap().element;
const TRACK = trackSchema.omit({ items: true });
const WAY = waySchema.omit({ samples: true });

/** Templates that are known to open: a template never changes once it is made. */
const KNOWN = new WeakSet<Template>();

type Path = readonly (string | number)[];

/** @throws {EditError} */
function mayHold(who: string, what: string, held: readonly unknown[], most: number): void {
  if (held.length > most)
    throw new EditError(
      `That would be ${held.length.toLocaleString('en')} ${what}: ${who} holds ${most.toLocaleString('en')} at most.`,
    );
}

/** @throws {EditError} */
function refuse(where: Path, fault: string): never {
  throw new EditError(
    `That cannot be kept: it could not be opened again (${where.join(' › ')}: ${fault.replace(/\.$/, '')}).`,
  );
}

/** @returns the part as it is read, of which links are known @throws {EditError} */
function opens<T>(schema: z.ZodType<T>, part: unknown, where: Path): T {
  const read = schema.safeParse(part);
  return read.success ? read.data : refuse(where, faultText(read.error));
}

/** @throws {EditError} when there is anything wrong with what lies somewhere */
function faultless([fault]: readonly LinkFault[], where: Path): void {
  if (fault) refuse([...where, ...fault.path], fault.message);
}

/** Looks through those of a list that were not in it before. */
function eachNew(list: readonly object[], before: readonly object[], schema: z.ZodType, where: Path): void {
  const known = new Set(before);
  list.forEach((part, i) => {
    if (!known.has(part)) opens(schema, part, [...where, i]);
  });
}

function waysOpen(reel: Reel, before: Reel): void {
  const known = new Set(before.ways);
  reel.ways.forEach((way, i) => {
    if (known.has(way)) return;
    const { samples, ...rest } = way;
    opens(WAY, rest, ['ways', i]);
    mayHold('a way', 'pictures', samples, MOST.samples);
    // Thousands of rows of numbers, of one shape since they were made by one function.
    if (!samples.every((sample) => sample.every(Number.isFinite))) refuse(['ways', i], 'it is nowhere');
  });
}

/** @param before the same template before it was worked on; what is the same in both is not looked through again */
function templateOpens(template: Template, before: Template | undefined): void {
  const where = ['templates', template.id];
  if (before && template.controls === before.controls) {
    for (const [key, value] of Object.entries(template))
      if (key !== 'layers' && value !== before[key as keyof Template])
        opens((TEMPLATE[key] ?? z.never()) as z.ZodType, value, [...where, key]);
    const known = new Set(before.layers);
    const controls = linkable(template.controls);
    for (const layer of template.layers) {
      if (known.has(layer)) continue;
      const at = [...where, layer.id];
      faultless(linkFaults(opens(layerSchema, layer, at), controls), at);
    }
    mayHold('a template', 'layers side by side', template.layers, MOST.layers);
    const [fault] = faultsOfTemplate(template);
    if (fault) refuse(where, fault);
  } else opens(templateSchema as z.ZodType, template, where);
  KNOWN.add(template);
}

function tracksOpen(reel: Reel, before: Reel): void {
  const stood = new Set(before.tracks);
  // What was on any of the tracks that changed.
  const known = new Set(before.tracks.flatMap((t) => (reel.tracks.includes(t) ? [] : t.items)));
  const ids = new Set<string>();
  for (const track of reel.tracks) {
    for (const item of track.items) {
      if (ids.has(item.id)) refuse(['tracks', track.id], `two items are called "${item.id}"`);
      ids.add(item.id);
      if (item.kind === 'graphic' && !Object.hasOwn(reel.templates, item.template))
        refuse(['tracks', track.id], `the template "${item.template}" is not in the reel`);
    }
    if (!stood.has(track)) trackOpens(track, known, reel.templates);
  }
}

function trackOpens(track: Track, known: ReadonlySet<ReelItem>, templates: Reel['templates']): void {
  const { items, ...rest } = track;
  opens(TRACK, rest, ['tracks', track.id]);
  mayHold('a track', 'things on one track', items, MOST.items);
  for (const item of items) {
    if (known.has(item)) continue;
    const where = ['tracks', track.id, item.id];
    faultless(itemFaults(opens(reelItemSchema, item, where), templates), where);
  }
}
