import {
  type Brand,
  decodeText,
  graphicsOf,
  matchReel,
  messageOf,
  namingColumn,
  type Reel,
  ReelScene,
  type ReelUse,
  type RowTimes,
  readRows,
  reelWearing,
  rowNames,
  rowReel,
  type Table,
  TableError,
  timesOfRows,
} from '@fresh-reel/core';
import { useMemo, useState } from 'react';
import { DOCUMENT_ONLY } from '../../engine/documentOnly';
import { type MediaRecord, mediaId } from '../../storage/media';
import { useBrand, useBrands, useMediaList, usePreferences } from '../../storage/queries';

/** A row, ready to be looked at, rendered and placed. */
export interface Row {
  readonly number: number;
  /** The stem of its files. */
  readonly name: string;
  /** What its cells say that are not times. */
  readonly words: string;
  readonly reel: Reel;
  readonly faults: readonly string[];
  readonly times: RowTimes;
}

export interface ReadTable {
  readonly table: Table;
  readonly uses: readonly (ReelUse | undefined)[];
  readonly rows: readonly Row[];
  /** The graphic that rows are copies of: the first that a column fills. */
  readonly graphic: string | undefined;
  /** The frame of the reel that stands for a row. */
  readonly still: number;
  /** Names of files that rows name and the Shelf has not. */
  readonly missing: readonly string[];
  /** Why its times cannot be read. */
  readonly timesFault: string | undefined;
  /** Whole hours that its first time counts from. */
  readonly hours: number;
}

const NO_BRANDS: readonly Brand[] = [];

/** Bytes of a table at most: it is read whole. */
const MOST_BYTES = 16 * 1024 * 1024;

/** A table that fills a reel: read, matched, corrected by hand. */
export function useTable(own: Reel) {
  const [source, setSource] = useState<{ table: Table; from: string }>();
  const [fault, setFault] = useState<string>();
  /** What columns fill, where that was corrected; by their index. */
  const [chosen, setChosen] = useState<ReadonlyMap<number, ReelUse | undefined>>(new Map());
  const { data: shelf } = useMediaList();
  const { data: brands = NO_BRANDS } = useBrands();
  const brand = useBrand();
  const { wearing } = usePreferences();
  const reel = useMemo(() => (wearing && brand ? reelWearing(own, brand) : own), [own, wearing, brand]);

  const take = (read: () => Table, from: string) => {
    try {
      const table = read();
      setSource({ table, from });
      setChosen(new Map());
      setFault(undefined);
    } catch (error) {
      if (!(error instanceof TableError)) throw error;
      setFault(error.message);
    }
  };
  const open = async (file: File) => {
    if (file.size > MOST_BYTES) return setFault(`"${file.name}" is larger than 16 MB. Cut it into several.`);
    const text = decodeText(new Uint8Array(await file.arrayBuffer()));
    take(() => {
      if (text === undefined)
        throw new TableError(
          `"${file.name}" is no text. Save the table as CSV, or copy its cells and paste them.`,
        );
      return readRows(text);
    }, file.name);
  };
  const paste = (text: string) => take(() => readRows(text), 'what was pasted');

  const read = useMemo(
    () => (source ? readTable(reel, source.table, chosen, shelf ?? [], brands) : undefined),
    [reel, source, chosen, shelf, brands],
  );
  const choose = (column: number, use: ReelUse | undefined) =>
    setChosen((before) => new Map(before).set(column, use));
  return { read, brands, from: source?.from, fault, open, paste, choose, close: () => setSource(undefined) };
}

function readTable(
  reel: Reel,
  table: Table,
  chosen: ReadonlyMap<number, ReelUse | undefined>,
  shelf: readonly MediaRecord[],
  brands: readonly Brand[],
): ReadTable {
  const uses = matchReel(table.columns, reel, brands).map((use, i) => (chosen.has(i) ? chosen.get(i) : use));
  const graphics = new Set(uses.flatMap((use) => (use && 'graphic' in use ? [use.graphic] : [])));
  const graphic = graphicsOf(reel).find((g) => graphics.has(g.id))?.id;
  const names = rowNames(`{${namingColumn(table, uses)}}`, table);
  const [timed, timesFault] = timesIn(uses, table, reel);
  const plain = (name: string) => name.toLowerCase().replace(/\.[^.]+$/, '');
  const onShelf = (file: string) =>
    shelf.find((r) => r.name.toLowerCase() === file.toLowerCase()) ??
    shelf.find((r) => plain(r.name) === plain(file));
  const all = new Set<string>();
  const rows = table.rows.map((row, i): Row => {
    const media = (file: string) => {
      const found = onShelf(file);
      return found ? mediaId(found) : `missing:${file}`;
    };
    const filled = rowReel(reel, uses, row, media, brands);
    const missing = filled.files.flatMap(([, file]) => (onShelf(file) ? [] : [file]));
    for (const file of missing) all.add(file);
    return {
      ...{
        number: i + 1,
        name: names[i]!,
        reel: filled.reel,
        faults: [...filled.faults, ...missing.map((file) => `"${file}" is not on the Shelf`)],
      },
      words: row
        .filter((cell, c) => cell !== '' && uses[c]?.of !== 'from' && uses[c]?.of !== 'to')
        .join(', '),
      times: timed.times[i] ?? {},
    };
  });
  return {
    table,
    uses,
    rows,
    missing: [...all],
    graphic,
    still: graphic === undefined ? 0 : new ReelScene(reel, DOCUMENT_ONLY).stillOf(graphic),
    timesFault,
    hours: timed.hours,
  };
}

function timesIn(uses: ReadTable['uses'], table: Table, reel: Reel) {
  try {
    return [timesOfRows(uses, table.rows, reel.rate), undefined] as const;
  } catch (error) {
    return [{ times: [], hours: 0 }, messageOf(error)] as const;
  }
}
