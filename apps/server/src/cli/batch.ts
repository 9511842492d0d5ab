import { readFile } from 'node:fs/promises';
import { dirname, extname, join, resolve } from 'node:path';
import {
  decodeText,
  type FilmCodec,
  FRAMES,
  type FrameShape,
  filmFacts,
  graphicsOf,
  matchReel,
  namingColumn,
  type Rate,
  type Reel,
  readRows,
  rowNames,
  rowReel,
  sizeOfSide,
  type Table,
} from '@fresh-reel/core';
import { CommandError } from '../rendering/command';
import { withReel } from '../rendering/openedReel';
import { renderReel } from '../rendering/render';

export interface BatchCommand {
  readonly what: string;
  /** A file with a brand that all wear. */
  readonly brand?: string | undefined;
  /** Path of the table. */
  readonly table: string;
  readonly out: string;
  /** Where the files lie that cells name; beside the table, when absent. */
  readonly pictures: string | undefined;
  /** A reel's own shape, or wide, when absent. */
  readonly shapes: readonly FrameShape[] | undefined;
  /** Pattern of the files' names; the first column that is no time, when absent. */
  readonly name: string | undefined;
  /** Numbered PNGs in a folder each, when absent. */
  readonly codec: FilmCodec | undefined;
  readonly rate: Rate | undefined;
  /** Pixels of the shorter side; as the frame shapes have it, when absent. */
  readonly side: number | undefined;
}

/** One row, ready to render. */
interface Title {
  readonly name: string;
  readonly reel: Reel;
}

/**
 * Renders a template or a reel once for each row of a table, in each frame shape. Nothing is rendered while anything is
 * wrong with any row.
 * @param tell is told of each file that is there, and of columns that fill nothing
 * @returns how many files, or folders of pictures, there are
 * @throws {CommandError} naming all that is wrong, with its row
 */
export function batch(command: BatchCommand, tell: (line: string) => void): Promise<number> {
  const wanted = {
    ...{ what: command.what, brand: command.brand },
    ...{ fill: undefined, size: undefined, originals: undefined },
  };
  return withReel(wanted, async (studio, { reel, files, fonts }) => {
    const table = await tableAt(command.table);
    const found = new Map(files);
    const titles = await titlesOf(command, reel, table, tell, async (media, path) => {
      if (found.has(media)) return;
      await studio.addFile(media, path);
      found.set(media, path);
    });
    const frames = command.shapes?.map((shape) => ({ shape, frame: FRAMES[shape] }));
    let made = 0;
    for (const { name, reel: row } of titles) {
      for (const { shape, frame } of frames ?? [{ shape: '', frame: reel.frame }]) {
        const stem = frames && frames.length > 1 ? `${name}-${shape}` : name;
        const ending = command.codec ? `.${filmFacts(command.codec).endings[0]}` : '';
        const { codec, rate, side } = command;
        const out = join(command.out, stem + ending);
        const size = side === undefined ? undefined : sizeOfSide(frame, side);
        const { path } = await renderReel(
          { out, codec, rate, size, frames: undefined, alpha: undefined, timecode: undefined },
          studio,
          { reel: { ...row, name, frame }, files: found, fonts, name: stem },
          () => undefined,
        );
        made++;
        tell(path);
      }
    }
    return made;
  });
}

async function tableAt(path: string): Promise<Table> {
  const bytes = await readFile(path).catch(() => {
    throw new CommandError(`The table "${path}" cannot be read.`);
  });
  const text = decodeText(bytes);
  if (text === undefined)
    throw new CommandError(
      `"${path}" is no text: save the table as CSV (${extname(path) || 'no ending'} is not read).`,
    );
  return readRows(text);
}

/** The reel and the name of each row. @param open makes a file ready that a cell names */
async function titlesOf(
  { name, table: path, pictures }: BatchCommand,
  reel: Reel,
  table: Table,
  tell: (line: string) => void,
  open: (media: string, path: string) => Promise<void>,
): Promise<Title[]> {
  const uses = matchReel(table.columns, reel);
  if (!uses.some((use) => use && 'graphic' in use)) {
    const known = graphicsOf(reel).map(
      ({ template: { id, slots, controls } }) =>
        `The slots of "${id}" are ${slots.map((s) => s.id).join(', ')}; its controls ${controls.map((c) => c.id).join(', ')}.`,
    );
    throw new CommandError(
      `No column of "${path}" is named as anything of "${reel.name}". ${[...new Set(known)].join(' ')}`,
    );
  }
  const idle = table.columns.filter((column, i) => column !== '' && !uses[i]);
  if (idle.length > 0) tell(`Columns that fill nothing: ${idle.join(', ')}.`);
  const names = rowNames(name ?? `{${namingColumn(table, uses)}}`, table);
  const faults: string[] = [];
  const titles: Title[] = [];
  const pathOf = (file: string) => resolve(pictures ?? dirname(path), file);
  const mediaOf = (file: string) => `file:${pathOf(file)}`;
  for (const [i, row] of table.rows.entries()) {
    const { reel: filled, files, faults: wrong } = rowReel(reel, uses, row, mediaOf);
    faults.push(...wrong.map((fault) => `row ${i + 2}: ${fault}`));
    for (const [slot, file] of files)
      await open(mediaOf(file), pathOf(file)).catch(() =>
        faults.push(`row ${i + 2}: the file "${file}" for "${slot}" cannot be read`),
      );
    titles.push({ name: names[i]!, reel: filled });
  }
  if (faults.length > 0) throw new CommandError(`Nothing was rendered. ${faults.join('; ')}.`);
  return titles;
}
