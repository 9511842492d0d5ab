import type { Brand } from '../documents/brand';
import type { Reel } from '../documents/reel';
import { changeItem } from '../edit/items';
import { graphicOf, reelWearing } from '../edit/reel';
import { graphicsOf } from '../reel/graphicTime';
import { framesIn, type Rate } from '../time/rate';
import { frameOfTimecode } from '../time/timecode';
import { type ColumnUse, matchColumns, rowFill } from './rowFill';
import { plainName, type Table } from './table';

/** What a column of a table says of a reel: what one of its graphics is filled with, when a row is, or whose it is. */
export type ReelUse = (ColumnUse & { readonly graphic: string }) | { readonly of: 'from' | 'to' | 'brand' };

/** Names of columns that say when a row begins and ends, as they are compared (common practice). */
const TIMES = {
  from: ['from', 'start', 'at', 'in', 'time', 'timecode', 'begin', 'begins', 'tc', 'tcin', 'timecodein'],
  to: ['to', 'end', 'ends', 'out', 'until', 'tcout', 'timecodeout'],
} as const;

/** Names of columns that say which brand a row wears (common practice). */
const BRANDS = ['brand', 'client', 'series'];

/** A use as one text, to compare and to choose by. */
export function keyOfUse(use: ReelUse): string {
  if (!('graphic' in use)) return use.of;
  return [use.graphic, use.of, 'id' in use ? use.id : ''].join('/');
}

/**
 * All that columns may fill in a reel, with a name for each; things of several graphics say of which.
 * @param brands those that rows may wear
 */
export function reelUses(
  reel: Reel,
  brands: readonly Brand[] = [],
): { readonly use: ReelUse; readonly name: string }[] {
  const graphics = graphicsOf(reel);
  const fills = graphics.flatMap(({ id, template }, i) => {
    const name = (own: string) => (graphics.length > 1 ? `${i + 1}. ${template.name}: ${own}` : own);
    const of = { graphic: id };
    return [
      ...template.slots.map((s) => ({
        use: { of: 'slot', id: s.id, ...of } as const,
        name: name(s.name),
      })),
      { use: { of: 'look', ...of } as const, name: name('Look') },
      ...template.controls.map((c) => ({
        use: { of: 'control', id: c.id, ...of } as const,
        name: name(c.name),
      })),
    ];
  });
  const times = [
    { use: { of: 'from' } as const, name: 'When it begins' },
    { use: { of: 'to' } as const, name: 'When it ends' },
  ];
  const worn = { use: { of: 'brand' } as const, name: 'The brand it wears' };
  return [...fills, ...times, ...(brands.length > 0 ? [worn] : [])];
}

/**
 * What each column fills, by its name: of the first graphic that has it, and nothing twice.
 * @param brands those that rows may wear
 */
export function matchReel(
  columns: readonly string[],
  reel: Reel,
  brands: readonly Brand[] = [],
): (ReelUse | undefined)[] {
  const found: (ReelUse | undefined)[] = columns.map(() => undefined);
  for (const { id, template } of graphicsOf(reel)) {
    const open = columns.map((column, i) => (found[i] ? '' : column));
    matchColumns(open, template).forEach((use, i) => {
      if (use) found[i] = { ...use, graphic: id };
    });
  }
  const offer = (of: 'from' | 'to' | 'brand', names: readonly string[]) => {
    const at = columns.findIndex((column, i) => !found[i] && names.includes(plainName(column)));
    if (at >= 0) found[at] = { of };
  };
  offer('from', TIMES.from);
  offer('to', TIMES.to);
  if (brands.length > 0) offer('brand', BRANDS);
  return found;
}

/** The column that rows are called by: the first that has a name and says no time. */
export function namingColumn({ columns }: Table, uses: readonly (ReelUse | undefined)[]): string {
  return (
    columns.find((name, i) => name !== '' && (!uses[i] || 'graphic' in uses[i])) ?? columns.find(Boolean)!
  );
}

/** A reel as a row has it: see `rowFill`. */
export interface RowReel {
  readonly reel: Reel;
  /** Files that cells name, and the slots they are for. */
  readonly files: readonly (readonly [slot: string, file: string])[];
  readonly faults: readonly string[];
}

/**
 * The reel with what a row says; what no column fills stays as it is. What a row fills lies over the brand it wears.
 * @param media makes a media id of a file's name
 * @param brands those that rows may wear, by name
 */
export function rowReel(
  reel: Reel,
  uses: readonly (ReelUse | undefined)[],
  row: readonly string[],
  media: (file: string) => string,
  brands: readonly Brand[] = [],
): RowReel {
  const wanted = cellOf(uses, row, 'brand');
  const brand = brands.find(({ name }) => plainName(name) === plainName(wanted));
  const unknown = wanted !== '' && !brand;
  const graphics = [...new Set(uses.flatMap((use) => (use && 'graphic' in use ? [use.graphic] : [])))];
  return graphics.reduce<RowReel>(
    (so, id) => {
      const { template, fill: own } = graphicOf(so.reel, id);
      const its = uses.map((use) => (use && 'graphic' in use && use.graphic === id ? use : undefined));
      const { fill, files, faults } = rowFill(template, its, row, media);
      const whole = {
        ...own,
        ...(fill.look === undefined ? {} : { look: fill.look }),
        slots: { ...own.slots, ...fill.slots },
        controls: { ...own.controls, ...fill.controls },
      };
      return {
        reel: changeItem(so.reel, id, (item) => (item.kind === 'graphic' ? { ...item, fill: whole } : item)),
        files: [...so.files, ...files],
        faults: [...so.faults, ...faults],
      };
    },
    {
      reel: brand ? reelWearing(reel, brand) : reel,
      files: [],
      faults: unknown
        ? [`there is no brand "${wanted}"; the brands are ${brands.map((b) => b.name).join(', ')}`]
        : [],
    },
  );
}

/** What a row says in the column of a use; nothing where there is no such column. */
const cellOf = (
  uses: readonly (ReelUse | undefined)[],
  row: readonly string[],
  of: 'from' | 'to' | 'brand',
): string => (row[uses.findIndex((use) => use?.of === of)] ?? '').trim();

/** When a row begins and ends, in frames of the reel; what it does not say is absent. */
export interface RowTimes {
  readonly from?: number;
  readonly to?: number;
}

/** Seconds in an hour: lists of events often count their beginning as a whole one (common practice). */
const HOUR = 3600;

/**
 * The times of every row. Where all of them begin an hour or more in, the whole hours before the first count as the
 * reel's beginning.
 * @throws {Error} naming a row whose time cannot be read
 */
export function timesOfRows(
  uses: readonly (ReelUse | undefined)[],
  rows: readonly (readonly string[])[],
  rate: Rate,
): { readonly times: readonly RowTimes[]; readonly hours: number } {
  const cell = (row: readonly string[], of: 'from' | 'to', n: number): number | undefined => {
    const text = cellOf(uses, row, of);
    if (text === '') return undefined;
    try {
      return frameOfText(text, rate);
    } catch (error) {
      throw new Error(`Row ${n + 2}: ${(error as Error).message}`);
    }
  };
  const read = rows.map((row, n) => ({ from: cell(row, 'from', n), to: cell(row, 'to', n) }));
  const first = Math.min(...read.flatMap((t) => t.from ?? []));
  const hour = framesIn(HOUR, rate);
  const hours = Number.isFinite(first) ? Math.floor(first / Math.floor(hour)) : 0;
  const begins = Math.round(hours * hour);
  const times = read.map(({ from, to }) => ({
    ...(from === undefined ? {} : { from: Math.max(0, from - begins) }),
    ...(to === undefined ? {} : { to: Math.max(0, to - begins) }),
  }));
  return { times, hours };
}

/**
 * A time as people and programs write it: a timecode with frames (`01:00:12:05`, `;` for drop-frame), hours, minutes
 * and seconds with parts of them (`00:12.5`, `1:02:03,250`), or seconds (`12.5`).
 * @returns the nearest frame
 * @throws {Error} saying how times are written
 */
export function frameOfText(text: string, rate: Rate): number {
  if (/^\d{2}:\d{2}:\d{2}[:;]\d{2}$/.test(text)) return frameOfTimecode(text, rate);
  const parts = /^(?:(?:(\d+):)?(\d{1,2}):)?(\d+(?:[.,]\d+)?)\s*s?$/.exec(text);
  if (!parts) throw new Error(`"${text}" is no time. Write it as 00:00:12:05, 0:12.2 or 12.2.`);
  const [h, m, s] = [parts[1] ?? '0', parts[2] ?? '0', parts[3]!.replace(',', '.')].map(Number);
  return Math.round(framesIn(h! * HOUR + m! * 60 + s!, rate));
}
