import { faultOfValue, takesWords } from '../documents/controls';
import type { ControlValue, Fill } from '../documents/fill';
import { freshPicture } from '../documents/fill';
import type { Control, Template } from '../documents/template';
import { fileStem } from '../formats/plan';
import { framesIn, secondsAt } from '../time/rate';
import { plainName, type Table } from './table';

/** What a column fills: a slot, a control, or the look. */
export type ColumnUse =
  | { readonly of: 'slot'; readonly id: string }
  | { readonly of: 'control'; readonly id: string }
  | { readonly of: 'look' };

/** What each column of a table fills, by name or id; nothing of those that suit none, or one that is taken. */
export function matchColumns(columns: readonly string[], template: Template): (ColumnUse | undefined)[] {
  const uses = new Map<string, ColumnUse>();
  const offer = (use: ColumnUse, ...names: string[]) => {
    for (const name of names) if (!uses.has(plainName(name))) uses.set(plainName(name), use);
  };
  // Slots first: they are what tables are for. An id is never another's name before its own.
  for (const { id } of template.slots) offer({ of: 'slot', id }, id);
  for (const { id, name } of template.slots) offer({ of: 'slot', id }, name);
  offer({ of: 'look' }, 'look');
  for (const { id } of template.controls) offer({ of: 'control', id }, id);
  for (const { id, name } of template.controls) offer({ of: 'control', id }, name);
  const taken = new Set<string>();
  return columns.map((column) => {
    const use = uses.get(plainName(column));
    const what = use && (use.of === 'look' ? 'look' : `${use.of} ${use.id}`);
    if (!what || taken.has(what)) return undefined;
    taken.add(what);
    return use;
  });
}

/** A row's fill, the files it names, and what is wrong with it. */
export interface RowFill {
  readonly fill: Fill;
  /** Names of files, by the slot they are for. */
  readonly files: ReadonlyMap<string, string>;
  readonly faults: readonly string[];
}

/**
 * The fill of a row. An empty cell leaves a slot empty, and a control as it is. Pictures and sounds are named by file.
 * @param media makes a media id of a file's name
 */
export function rowFill(
  template: Template,
  uses: readonly (ColumnUse | undefined)[],
  row: readonly string[],
  media: (file: string) => string,
): RowFill {
  const slots: Fill['slots'] = {};
  const controls: Fill['controls'] = {};
  const files = new Map<string, string>();
  const faults: string[] = [];
  let look: string | undefined;
  uses.forEach((use, i) => {
    const cell = row[i] ?? '';
    if (!use) return;
    if (use.of === 'slot') {
      const slot = template.slots.find((s) => s.id === use.id)!;
      if (takesWords(slot)) slots[slot.id] = cell;
      else if (cell === '') slots[slot.id] = null;
      else {
        files.set(slot.id, cell);
        slots[slot.id] = slot.kind === 'sound' ? { sound: media(cell) } : freshPicture(media(cell));
      }
    } else if (cell === '') return;
    else if (use.of === 'look') {
      look = template.looks.find((l) => [l.id, l.name].some((n) => plainName(n) === plainName(cell)))?.id;
      if (look === undefined)
        faults.push(
          `there is no look "${cell}"; the looks are ${template.looks.map((l) => l.name).join(', ')}`,
        );
    } else {
      const control = template.controls.find((c) => c.id === use.id)!;
      const value = cellValue(control, cell, template);
      const fault = faultOfCell(control, value, cell, template);
      if (fault) faults.push(fault);
      else controls[control.id] = value;
    }
  });
  return { fill: { slots, controls, ...(look === undefined ? {} : { look }) }, files, faults };
}

function faultOfCell(
  control: Control,
  value: ControlValue,
  cell: string,
  { rate }: Template,
): string | undefined {
  const fault = faultOfValue(control, value);
  if (!fault || control.kind !== 'duration') return fault;
  const [least, most] = [control.min, control.max].map((frames) => secondsAt(frames, rate).toFixed(1));
  return `"${control.id}" takes seconds from ${least} to ${most}, not "${cell}"`;
}

const YES = new Set(['yes', 'true', 'on', '1', 'x', 'y']);
const NO = new Set(['no', 'false', 'off', '0', 'n']);

/** A cell as a control takes it; what it cannot be read as is left for its own check to refuse. */
function cellValue(control: Control, cell: string, template: Template): ControlValue {
  switch (control.kind) {
    case 'number':
      return numberOf(cell);
    case 'duration':
      // Seconds, as the app shows them.
      return Math.round(framesIn(numberOf(cell.replace(/\s*s(ec(onds?)?)?\.?$/i, '')), template.rate));
    case 'switch': {
      const word = cell.toLowerCase();
      return YES.has(word) ? true : NO.has(word) ? false : cell;
    }
    case 'choice':
      return (
        control.options.find((o) => [o.id, o.name].some((n) => plainName(n) === plainName(cell)))?.id ?? cell
      );
    case 'colour':
      return /^[0-9a-f]{6}$/i.test(cell) ? `#${cell}` : cell;
    case 'point':
      return cell.split(/[\s;|]+|,\s+/).map(numberOf) as unknown as ControlValue;
    default:
      return cell;
  }
}

/** A number with a point or a comma for its decimals; NaN of anything else. */
function numberOf(text: string): number {
  return /^[-+]?\d+([.,]\d+)?$/.test(text.trim()) ? Number(text.trim().replace(',', '.')) : Number.NaN;
}

/**
 * File names of a table's rows, by a pattern with columns in braces: `{name}`, and `{#}` for the row's number. Two that
 * come out alike are numbered.
 * @throws {Error} naming a column that is not there
 */
export function rowNames(pattern: string, { columns, rows }: Table): string[] {
  const places = new Map(columns.map((column, i) => [plainName(column), i]));
  const taken = new Set<string>();
  const digits = String(rows.length).length;
  return rows.map((row, n) => {
    const filled = pattern.replace(/\{([^{}]*)\}/g, (_, column: string) => {
      if (column.trim() === '#') return String(n + 1).padStart(digits, '0');
      const at = places.get(plainName(column));
      if (at === undefined)
        throw new Error(
          `"{${column}}" is no column of the table; they are ${columns.filter(Boolean).join(', ')}, and {#}.`,
        );
      return row[at]!;
    });
    const stem = fileStem(filled);
    let name = stem;
    for (let i = 2; taken.has(name); i++) name = `${stem}-${i}`;
    taken.add(name);
    return name;
  });
}
