import {
  fitted,
  inBox,
  type Links,
  linkedAsNet,
  linkedInOrder,
  linkedToNearest,
  linkedWithin,
  onDisc,
  onGrid,
  onLine,
  onRing,
  onSphere,
  onSpiral,
  type Placed,
  placesOf,
  type Spot,
} from '../geometry/forms';
import { PathRuler } from '../geometry/length';
import { shuffled } from '../motion/random';
import { splitColumns } from '../text/columns';
import type { PaintTools, Size } from './kind';
import { outlinePath } from './outline';
import type { PointsLayer } from './pointsSchema';

/** Links at most: more cannot be seen, nor painted in time. */
const MOST_LINKS = 6000;

/** The form at rest: its places, and which of them are linked. */
export interface Form {
  readonly spots: readonly Spot[];
  readonly links: Links;
  /** Of a list: the line each place is of. */
  readonly lines?: readonly number[];
}

/** How many points a form has: as many as it says, else as there are pictures, or lines of words. */
function manyOf({ form, pictures, words }: PointsLayer, tools: PaintTools): number {
  if ('count' in form && form.count !== undefined) return tools.value(form.count);
  const filled = pictures?.slots.filter((slot) => tools.isFilled(slot)).length ?? 0;
  if (filled > 0) return filled;
  const lines = words ? tools.words(words.slot).text.split('\n') : [];
  return Math.min(4000, Math.max(1, lines.filter((line) => line.trim() !== '').length));
}

function spotsOf(layer: PointsLayer, box: Size, tools: PaintTools): { spots: Spot[]; lines?: number[] } {
  const { value } = tools;
  const { form, seed } = layer;
  switch (form.kind) {
    case 'line':
      return { spots: onLine(manyOf(layer, tools)) };
    case 'ring':
      return { spots: onRing(manyOf(layer, tools)) };
    case 'disc':
      return { spots: onDisc(manyOf(layer, tools)) };
    case 'sphere':
      return { spots: onSphere(manyOf(layer, tools)) };
    case 'box':
      return { spots: inBox(manyOf(layer, tools), seed) };
    case 'spiral':
      return { spots: onSpiral(manyOf(layer, tools), value(form.turns)) };
    case 'grid':
      return { spots: onGrid(form.across, form.down, form.deep).slice(0, 4000) };
    case 'wave':
      return { spots: onGrid(form.across, 1, form.deep).slice(0, 4000) };
    case 'outline': {
      const ruler = new PathRuler(
        outlinePath(form.outline, { x: 0, y: 0, width: box.width, height: box.height }, tools),
      );
      const many = manyOf(layer, tools);
      return {
        spots: Array.from({ length: many }, (_, i): Spot => {
          const { x, y } = ruler.at((i / many) * ruler.length);
          return [x / box.width - 0.5, y / box.height - 0.5, 0];
        }),
      };
    }
    case 'places': {
      const placed = listOf(form.slot, form.columns, tools);
      return { spots: fitted(placed, box.width, box.height), lines: placed.map((p) => p.line) };
    }
  }
}

/** The lines of a slot that have a place; the others are told. */
function listOf(
  slot: string,
  columns: readonly [number, number],
  { words, memo, notice }: PaintTools,
): Placed[] {
  const { text } = words(slot);
  const { placed, without, lines } = memo.of(`places/${columns.join()}/${text}`, () => {
    const written = text.split('\n').map((l) => l.trim());
    const rows = written.map((l) => splitColumns(l));
    return { ...placesOf(rows, [columns[0] - 1, columns[1] - 1]), lines: written };
  });
  const lost = without.map((i) => lines[i]!).filter((l) => l !== '');
  if (lost.length > 0) notice({ kind: 'no-place', slot, words: lost.slice(0, 3).join(', ') });
  return placed;
}

function linksOf(layer: PointsLayer, spots: readonly Spot[], box: Size, deep: number, within: number): Links {
  const { links, form } = layer;
  if (!links) return [];
  switch (links.by) {
    case 'order': {
      if (form.kind === 'grid') return linkedAsNet(form.across, form.down, form.deep);
      if (form.kind === 'wave') return linkedAsNet(form.across, 1, form.deep);
      return linkedInOrder(spots.length, form.kind === 'ring' || form.kind === 'outline');
    }
    case 'middle':
      return spots.map((_, i) => [i, -1] as const);
    case 'nearness':
      return linkedToNearest(sized(spots, box, deep), links.near);
    case 'distance':
      return linkedWithin(sized(spots, box, deep), within, MOST_LINKS);
  }
}

const sized = (spots: readonly Spot[], { width, height }: Size, deep: number) =>
  spots.map(([x, y, z]) => [x * width, y * height, z * deep] as const);

/** The form at rest, made once. */
export function formOf(layer: PointsLayer, box: Size, deep: number, tools: PaintTools): Form {
  const { value, memo, words } = tools;
  const { form, links, seed } = layer;
  const values =
    form.kind !== 'grid' && form.kind !== 'wave' && form.kind !== 'places'
      ? [manyOf(layer, tools), form.kind === 'spiral' ? value(form.turns) : 0]
      : form.kind === 'places'
        ? [words(form.slot).text]
        : [];
  // A list tells what has no place each time.
  if (form.kind === 'places') listOf(form.slot, form.columns, tools);
  const within = links?.by === 'distance' ? value(links.within) : 0;
  const path =
    form.kind === 'outline'
      ? outlinePath(form.outline, { x: 0, y: 0, width: box.width, height: box.height }, tools)
      : undefined;
  const key = `form/${JSON.stringify([form.kind, form, links?.by, links?.near, within, box, deep, seed, values])}`;
  return memo.of(
    key,
    () => {
      const { spots, lines } = spotsOf(layer, box, tools);
      const made = linksOf(layer, spots, box, deep, within)
        .filter(([a, b]) => a < spots.length && b < spots.length)
        .slice(0, MOST_LINKS);
      return { spots, links: made, ...(lines ? { lines } : {}) };
    },
    path,
  );
}

/** When each point begins to come, 0..1 of the time in which they begin. */
export function startsOf({ order, seed }: PointsLayer, many: number, tools: PaintTools): readonly number[] {
  return tools.memo.of(`starts/${order}/${seed}/${many}`, () => {
    const at = (i: number) => (many === 1 ? 0 : i / (many - 1));
    if (order === 'random') {
      const places = new Array<number>(many);
      shuffled(many, seed).forEach((place, i) => {
        places[place] = at(i);
      });
      return places;
    }
    return Array.from({ length: many }, (_, i) => (order === 'forwards' ? at(i) : Math.abs(2 * at(i) - 1)));
  });
}
