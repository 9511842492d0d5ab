import { decodeText, splitColumns } from '@fresh-reel/core';
import { parse } from 'papaparse';

/** Longest list taken: more is hardly read, and would slow the page. */
export const MOST_LINES = 20_000;
const MOST_BYTES = 4 * 1024 * 1024;

export interface ListRead {
  readonly text: string;
  readonly lines: number;
  /** The row that named the columns, when there was one; it is not among the lines. */
  readonly header: string | undefined;
}

/** A list cannot be taken; the message says why and what to do. */
export class ListError extends Error {
  override readonly name = 'ListError';
}

/**
 * Reads a .txt or .csv file as the lines of a list. Columns of a CSV (RFC 4180, any usual separator) or of tabs are set
 * apart by ` | `.
 * @throws {ListError} when the file is empty, not text, or longer than is of use
 */
export async function readListFile(file: File): Promise<ListRead> {
  if (file.size > MOST_BYTES) {
    throw new ListError(`"${file.name}" is larger than 4 MB. A list this long is cut into several reels.`);
  }
  const bytes = new Uint8Array(await file.arrayBuffer());
  const text = decodeText(bytes);
  if (text === undefined)
    throw new ListError(`"${file.name}" is not a text file. Save your list as .txt or .csv.`);
  const lines = /\.csv$/i.test(file.name) ? csvLines(text) : text.replaceAll('\t', ' | ').split('\n');
  const header = namesColumns(lines[0] ?? '') ? lines.shift() : undefined;
  while (lines.length > 0 && lines.at(-1)!.trim() === '') lines.pop();
  if (lines.length === 0) throw new ListError(`"${file.name}" has no words in it. Choose another file.`);
  if (lines.length > MOST_LINES) {
    throw new ListError(
      `"${file.name}" has ${lines.length} lines; ${MOST_LINES} is the most. Cut it into several files.`,
    );
  }
  return { text: lines.join('\n'), lines: lines.length, header };
}

/** Words that head the columns of a list of people and what they did. */
const HEADINGS =
  /^(role|job|position|function|title|department|credit|what they did|name|names|full name|first name|last name|surname|who|person|company|e-?mail|phone|notes?|order|no\.?|#)$/i;

/** Whether a row names what its columns hold, rather than somebody: every cell is a heading, and there are several. */
function namesColumns(row: string): boolean {
  const cells = splitColumns(row).map((c) => c.trim());
  return cells.length > 1 && cells.every((c) => HEADINGS.test(c));
}

function csvLines(text: string): string[] {
  const { data } = parse<string[]>(text.trimEnd(), { skipEmptyLines: false });
  return data.map((row) => row.map((cell) => cell.replace(/\s*\n\s*/g, ' ').trim()).join(' | '));
}
