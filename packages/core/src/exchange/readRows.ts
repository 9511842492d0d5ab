import { z } from 'zod';
import { MOST_ROWS, readTable, type Table, TableError } from '../tables/table';

/** A row with times, as another tool has written it. */
interface Timed {
  /** As text: a timecode, or seconds. */
  readonly from: string;
  readonly to: string;
  readonly words: readonly string[];
  readonly file?: string;
}

/**
 * Reads a file of another tool as a table: OpenTimelineIO, an edit list in the common 3600 form, WebVTT and SubRip by
 * what they begin with, all else as a table with a separator. What has times comes as columns From, To, Words and a
 * column for each line of the words.
 * @throws {TableError} saying what is wrong with it
 */
export function readRows(text: string): Table {
  const plain = text.replace(/^\uFEFF/, '').replace(/\r\n?/g, '\n');
  if (/^\s*\{/.test(plain)) return tableOf(timelineRows(plain), 'timeline');
  if (/^WEBVTT(\s|$)/.test(plain)) return tableOf(cueRows(plain), 'subtitle file');
  if (/^\s*\d+\s*\n\s*[\d:,.]+ +--> /.test(plain)) return tableOf(cueRows(plain), 'subtitle file');
  if (/^\s*(TITLE:|FCM:|\d{3,6}\s+\S+\s+\S+\s+C\s)/m.test(plain) && EVENT.test(plain))
    return tableOf(eventRows(plain), 'edit list');
  return readTable(plain);
}

function tableOf(rows: readonly Timed[], kind: string): Table {
  if (rows.length === 0) throw new TableError(`There is nothing with a time in this ${kind}.`);
  if (rows.length > MOST_ROWS)
    throw new TableError(
      `This ${kind} has ${rows.length} rows; ${MOST_ROWS} is the most. Cut it into several.`,
    );
  const lines = Math.max(...rows.map((r) => r.words.length));
  const files = rows.some((r) => r.file !== undefined);
  return {
    columns: [
      ...['From', 'To', 'Words'],
      ...(lines > 1 ? Array.from({ length: lines }, (_, i) => `Line ${i + 1}`) : []),
      ...(files ? ['File'] : []),
    ],
    rows: rows.map(({ from, to, words, file }) => [
      ...[from, to, words.join(' ')],
      ...(lines > 1 ? Array.from({ length: lines }, (_, i) => words[i] ?? '') : []),
      ...(files ? [file ?? ''] : []),
    ]),
  };
}

/** `00:00:01.000 --> 00:00:04.000`, hours as one likes, a point or a comma, and where it stands after it. */
const CUE = /^\s*((?:\d+:)?\d{1,2}:\d{2}[.,]\d{1,3}) +--> +((?:\d+:)?\d{1,2}:\d{2}[.,]\d{1,3})(?:\s.*)?$/;

/** Cues of WebVTT (W3C) or SubRip: a line of times, and the lines up to the next empty one. Tags are left out. */
function cueRows(text: string): Timed[] {
  return text.split(/\n{2,}/).flatMap((block) => {
    const lines = block.split('\n');
    const at = lines.findIndex((line) => CUE.test(line));
    if (at < 0) return [];
    const [, from, to] = CUE.exec(lines[at]!)!;
    const words = lines
      .slice(at + 1)
      .map((line) => unescaped(line.replace(/<[^>]*>/g, '')).trim())
      .filter((line) => line !== '');
    return [{ from: from!, to: to!, words }];
  });
}

const NAMED: Readonly<Record<string, string>> = {
  lt: '<',
  gt: '>',
  amp: '&',
  nbsp: '\u00a0',
  lrm: '',
  rlm: '',
};
/** What WebVTT escapes. */
const unescaped = (text: string) =>
  text.replace(/&(lt|gt|amp|nbsp|lrm|rlm);/g, (_, name: string) => NAMED[name]!);

/** An event's line: number, reel, track, C for a cut (others have a length after it), and four timecodes. */
const EVENT =
  /^\s*(\d{1,6})\s+(\S+)\s+(\S+)\s+(C|D|W\d+|K\S*)(?:\s+\d+)?\s+(\d{2}:\d{2}:\d{2}[:;]\d{2})\s+(\d{2}:\d{2}:\d{2}[:;]\d{2})\s+(\d{2}:\d{2}:\d{2}[:;]\d{2})\s+(\d{2}:\d{2}:\d{2}[:;]\d{2})\s*$/m;

/** Events of an edit list: where they stand in the programme, and the name in their comments. Sound alone is no row. */
function eventRows(text: string): Timed[] {
  const rows: (Timed & { words: string[]; file?: string })[] = [];
  let open = false;
  for (const line of text.split('\n')) {
    const event = EVENT.exec(line);
    const [, , reel, track, , , , from, to] = event ?? [];
    if (event) {
      open = !/^(A\d*|AA)$/.test(track!);
      if (open) rows.push({ from: from!, to: to!, words: reel === 'AX' || reel === 'BL' ? [] : [reel!] });
      continue;
    }
    const comment = /^\*\s*(?:FROM|TO)?\s*(CLIP NAME|SOURCE FILE|COMMENT)\s*:\s*(.*)$/i.exec(line);
    const last = rows.at(-1);
    if (!open || !last || !comment) continue;
    const [, name, value] = comment;
    if (/source/i.test(name!)) rows[rows.length - 1] = { ...last, file: value!.trim() };
    else if (/clip/i.test(name!)) rows[rows.length - 1] = { ...last, words: [value!.trim()] };
    else rows[rows.length - 1] = { ...last, words: [...last.words, value!.trim()] };
  }
  return rows;
}

const time = z.object({ value: z.number(), rate: z.number().positive() });
const range = z.object({ start_time: time, duration: time });

/** A thing on a track of a timeline, as far as rows need it. */
const composable = z.object({
  OTIO_SCHEMA: z.string(),
  name: z.string().nullish(),
  source_range: range.nullish(),
  metadata: z.record(z.string(), z.unknown()).nullish(),
  media_reference: z.unknown().optional(),
  media_references: z.record(z.string(), z.unknown()).nullish(),
  active_media_reference_key: z.string().nullish(),
});
const reference = z.object({ target_url: z.string().nullish(), available_range: range.nullish() });
const timeline = z.object({
  OTIO_SCHEMA: z.string().startsWith('Timeline.'),
  global_start_time: time.nullish(),
  tracks: z.object({
    children: z.array(
      z.object({
        OTIO_SCHEMA: z.string(),
        kind: z.string().nullish(),
        children: z.array(composable).max(100_000),
      }),
    ),
  }),
});

const seconds = ({ value, rate }: z.infer<typeof time>) => value / rate;

/** Clips of a timeline (OpenTimelineIO's published schema): where they stand, one after the other, and their names. */
function timelineRows(text: string): Timed[] {
  const read = timeline.safeParse(jsonOf(text));
  if (!read.success)
    throw new TableError('This JSON is no OpenTimelineIO timeline with tracks. Write it out as .otio again.');
  return read.data.tracks.children
    .filter((track) => track.OTIO_SCHEMA.startsWith('Track.') && track.kind !== 'Audio')
    .flatMap(({ children }) => {
      let at = 0;
      return children.flatMap((child): Timed[] => {
        // A transition lies over its neighbours and takes no time of its own.
        if (child.OTIO_SCHEMA.startsWith('Transition.')) return [];
        const key = child.active_media_reference_key ?? 'DEFAULT_MEDIA';
        const media = reference.safeParse(child.media_reference ?? child.media_references?.[key]).data;
        const length = child.source_range?.duration ?? media?.available_range?.duration;
        const from = at;
        at += length ? seconds(length) : 0;
        if (!child.OTIO_SCHEMA.startsWith('Clip.')) return [];
        const { words } = child.metadata ?? {};
        const said = typeof words === 'string' && words !== '' ? words : (child.name ?? '');
        const file = media?.target_url;
        return [
          {
            ...{ from: from.toFixed(4), to: at.toFixed(4), words: said.split('\n').filter(Boolean) },
            ...(file ? { file: decoded(file) } : {}),
          },
        ];
      });
    })
    .sort((a, b) => Number(a.from) - Number(b.from));
}

function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

function decoded(url: string): string {
  try {
    return decodeURI(url);
  } catch {
    return url;
  }
}
