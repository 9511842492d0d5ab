import { mkdir, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import { EXCHANGE_KINDS, EXCHANGES, frameOfTimecode, messageOf } from '@fresh-reel/core';
import { CommandError, parsedArgs, TEXT, USAGE } from './command';
import { withReel } from './openedReel';

/**
 * Writes where the titles of a reel stand, and what they say, for other tools.
 * @returns the paths of what was written
 * @throws {CommandError} naming what is wrong; nothing is written then
 */
export function exchange(args: readonly string[]): Promise<string[]> {
  const { values, positionals } = parsedArgs(args, {
    otio: TEXT,
    edl: TEXT,
    vtt: TEXT,
    srt: TEXT,
    start: TEXT,
    ending: TEXT,
  });
  if (positionals.length !== 1) throw new CommandError(`Name one reel file.\n${USAGE}`);
  const wanted = EXCHANGE_KINDS.filter((kind) => values[kind] !== undefined);
  if (wanted.length === 0)
    throw new CommandError(
      `Say what to write: ${EXCHANGE_KINDS.map((k) => `--${k} out.${k}`).join(', ')}.\n${USAGE}`,
    );
  const { ending = 'webm' } = values;
  if (!/^[a-z0-9]{1,8}$/i.test(ending)) throw new CommandError(`--ending: "${ending}" is none, such as mov.`);
  const what = { what: positionals[0]!, fill: undefined, size: undefined, originals: undefined };
  return withReel(what, async (_, { reel }) => {
    const texts = wanted.map((kind) => {
      try {
        const start = values.start === undefined ? 0 : frameOfTimecode(values.start, reel.rate);
        return [values[kind]!, EXCHANGES[kind](reel, { start, ending })] as const;
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
