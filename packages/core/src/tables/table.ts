import Papa from 'papaparse';

/** A table as it was read: every row has a cell for each column. */
export interface Table {
  readonly columns: readonly string[];
  readonly rows: readonly (readonly string[])[];
}

/** A table cannot be used; the message says why and what to do. */
export class TableError extends Error {
  override readonly name = 'TableError';
}

/** Rows at most: each is a render of its own. */
export const MOST_ROWS = 2000;
const MOST_COLUMNS = 200;

/**
 * Reads a table whose first row names its columns: CSV (RFC 4180) with any usual separator, or what a spreadsheet puts
 * on the clipboard. Rows without any words are left out; missing cells at the end of a row are empty.
 * @throws {TableError} when it has no rows, two columns of one name, or more than is of use
 */
export function readTable(text: string): Table {
  const { data } = Papa.parse<string[]>(text.replace(/^\n+/, '').trimEnd(), { skipEmptyLines: 'greedy' });
  const [head = [], ...rest] = data;
  const columns = head.map((name) => name.trim());
  while (columns.at(-1) === '') columns.pop();
  if (columns.length === 0) throw new TableError('The table is empty. Its first row names its columns.');
  if (columns.length > MOST_COLUMNS)
    throw new TableError(`The table has ${columns.length} columns; ${MOST_COLUMNS} is the most.`);
  const seen = new Map<string, number>();
  columns.forEach((name, i) => {
    const known = name === '' ? undefined : seen.get(plainName(name));
    if (known !== undefined)
      throw new TableError(
        `Columns ${known + 1} and ${i + 1} are both named "${name}". Give one another name.`,
      );
    seen.set(plainName(name), i);
  });
  if (rest.length === 0)
    throw new TableError(
      'The table has one row alone. The first names its columns, and each other is a title.',
    );
  if (rest.length > MOST_ROWS)
    throw new TableError(`The table has ${rest.length} rows; ${MOST_ROWS} is the most. Cut it into several.`);
  const wide = rest.findIndex((row) => row.slice(columns.length).some((cell) => cell.trim() !== ''));
  if (wide >= 0)
    throw new TableError(
      `Row ${wide + 2} has ${rest[wide]!.length} cells, and there are ${columns.length} columns. Put a cell with the separator in it in quotes.`,
    );
  return { columns, rows: rest.map((row) => columns.map((_, i) => (row[i] ?? '').trim())) };
}

/** A name as it is compared: case, accents, spaces and signs do not count. */
export const plainName = (name: string): string =>
  name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '');
