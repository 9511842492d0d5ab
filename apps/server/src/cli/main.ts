import { messageOf } from '@fresh-reel/core';
import { CommanderError } from 'commander';
import { type Deeds, programOf } from './program';

/**
 * The command line; what a command needs is loaded once it is known to be one.
 * @param args without the program's own name
 * @returns the exit code: 0 only when all that was asked for is done
 */
export async function main(args: readonly string[]): Promise<number> {
  let code = 0;
  const deeds: Deeds = {
    async list() {
      const { SOURCES } = await import('@fresh-reel/templates/sources');
      for (const t of SOURCES) console.log(`${t.id}\t${t.name}: ${t.about}`);
    },
    async render(command) {
      const { render } = await import('../rendering/render');
      const { written, path, note } = await render(command, (done, count) => {
        if (process.stderr.isTTY) process.stderr.write(`\rframe ${done} of ${count} `);
      });
      console.log(`${written} frames in ${path}`);
      if (note) console.error(note);
    },
    async batch(command) {
      const { batch } = await import('./batch');
      const made = await batch(command, (line) => console.log(line));
      console.log(`${made} titles`);
    },
    async check(command) {
      const { check } = await import('./check');
      const found = await check(command);
      if (found.some((f) => f.wrong)) code = 1;
      if (command.json) console.log(JSON.stringify(found, undefined, 2));
      else if (found.length === 0) console.log('Nothing to look at.');
      else
        for (const { timecode, wrong, item, slot, text } of found)
          console.log(
            [timecode, wrong ? 'wrong' : 'told', [item, slot].filter(Boolean).join('/'), text].join('\t'),
          );
    },
    async exchange(command) {
      const { exchange } = await import('./exchange');
      for (const path of await exchange(command)) console.log(path);
    },
    async open({ path, json }) {
      const { list } = await import('./package');
      const found = await list(path);
      if (json) console.log(JSON.stringify(found, undefined, 2));
      else
        for (const { what, name, bytes } of found)
          console.log([what, name, bytes ?? ''].join('\t').trimEnd());
    },
    async unpack({ path, out }) {
      const { unpack } = await import('./package');
      console.log(await unpack(path, out));
    },
    async pack({ what, out }) {
      const { pack } = await import('./package');
      console.log(await pack(what, out));
    },
    async schema(kind) {
      const { schemaOf } = await import('./schema');
      console.log(JSON.stringify(schemaOf(kind), undefined, 1));
    },
    async follow(command) {
      const { follow } = await import('./follow');
      const sights = await follow(command);
      console.log(
        command.json
          ? JSON.stringify(sights)
          : sights.map((s) => [s.frame, s.x, s.y, s.sure].join('\t')).join('\n'),
      );
    },
    async work(command) {
      const { work } = await import('../renders/work');
      const stop = new AbortController();
      for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => stop.abort());
      await work(command, (line) => console.log(line), stop.signal);
      // Redis that is away would be waited for.
      process.exit(0);
    },
  };
  try {
    // Without a word of what is wanted, all that may be is told.
    await programOf(deeds).parseAsync(args.length > 0 ? args : ['--help'], { from: 'user' });
    return code;
  } catch (error) {
    if (!(error instanceof CommanderError)) {
      console.error(messageOf(error));
      return 1;
    }
    if (error.exitCode === 0) return args.length > 0 ? 0 : 1;
    const of =
      args[0] && !args[0].startsWith('-') && error.code !== 'commander.unknownCommand' ? ` ${args[0]}` : '';
    const said = error.message.replace(/^error: (\w)/, (_, first: string) => first.toUpperCase());
    console.error(`${said.replace(/\.$/, '')}. "fresh-reel${of} --help" says what there is.`);
    return 1;
  }
}
