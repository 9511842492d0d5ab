import { mkdir, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import { EXCHANGE_KINDS, EXCHANGES, type ExchangeKind, frameOfTimecode, messageOf } from '@fresh-reel/core';
import { CommandError } from '../rendering/command';
import { withReel } from '../rendering/openedReel';

export interface ExchangeCommand {
  /** The path of a reel file. */
  readonly what: string;
  /** Where each kind goes that is wanted. */
  readonly files: { readonly [K in ExchangeKind]?: string | undefined };
  /** Timecode of the reel's first frame, as it was written. */
  readonly start: string | undefined;
  /** Of the files that titles are rendered as. */
  readonly ending: string;
}

/**
 * Writes where the titles of a reel stand, and what they say, for other tools.
 * @returns the paths of what was written
 * @throws {CommandError} naming what is wrong; nothing is written then
 */
export function exchange({ what: path, files, start: first, ending }: ExchangeCommand): Promise<string[]> {
  const wanted = EXCHANGE_KINDS.flatMap((kind) => {
    const out = files[kind];
    return out === undefined ? [] : [[kind, out] as const];
  });
  if (wanted.length === 0)
    throw new CommandError(`Say what to write: ${EXCHANGE_KINDS.map((k) => `--${k} out.${k}`).join(', ')}.`);
  const what = { what: path, fill: undefined, size: undefined, originals: undefined };
  return withReel(what, async (_, { reel }) => {
    const texts = wanted.map(([kind, out]) => {
      try {
        const start = first === undefined ? 0 : frameOfTimecode(first, reel.rate);
        return [out, EXCHANGES[kind](reel, { start, ending })] as const;
      } catch (error) {
        throw new CommandError(messageOf(error));
      }
    });
    for (const [path, text] of texts) {
      await mkdir(dirname(path), { recursive: true });
      await writeFile(path, text);
    }
    return texts.map(([path]) => path);
  });
}
