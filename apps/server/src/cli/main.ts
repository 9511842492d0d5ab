import { messageOf } from '@fresh-reel/core';
import { CommandError, parseRenderCommand, USAGE } from './command';

/** The command line; what a command needs is loaded once it is known to be one. @returns the exit code: 0 only when all that was asked for is done. */
export async function main(args: readonly string[]): Promise<number> {
  const [verb, ...rest] = args;
  try {
    if (verb === 'list') {
      const { SOURCES } = await import('@fresh-reel/templates/sources');
      for (const t of SOURCES) console.log(`${t.id}\t${t.name}: ${t.about}`);
      return 0;
    }
    if (verb === 'render') {
      const command = parseRenderCommand(rest);
      const { render } = await import('./render');
      const { written, path, note } = await render(command, (done, count) => {
        if (process.stderr.isTTY) process.stderr.write(`\rframe ${done} of ${count} `);
      });
      console.log(`${written} frames in ${path}`);
      if (note) console.error(note);
      return 0;
    }
    if (verb === 'batch') {
      const { batch, parseBatchCommand } = await import('./batch');
      const made = await batch(parseBatchCommand(rest), (line) => console.log(line));
      console.log(`${made} titles`);
      return 0;
    }
    if (verb === 'exchange') {
      const { exchange } = await import('./exchange');
      for (const path of await exchange(rest)) console.log(path);
      return 0;
    }
    if (verb === 'open') {
      const { listed } = await import('./package');
      const { found, json } = await listed(rest);
      if (json) console.log(JSON.stringify(found, undefined, 2));
      else
        for (const { what, name, bytes } of found)
          console.log([what, name, bytes ?? ''].join('\t').trimEnd());
      return 0;
    }
    if (verb === 'unpack' || verb === 'pack') {
      const commands = await import('./package');
      console.log(await commands[verb](rest));
      return 0;
    }
    if (verb === 'schema') {
      const { schemaOf } = await import('./schema');
      console.log(JSON.stringify(schemaOf(rest), undefined, 1));
      return 0;
    }
    if (verb === 'check') {
      const { check, parseCheckCommand } = await import('./check');
      const command = parseCheckCommand(rest);
      const found = await check(command);
      if (command.json) console.log(JSON.stringify(found, undefined, 2));
      else if (found.length === 0) console.log('Nothing to look at.');
      else
        for (const { timecode, wrong, item, slot, text } of found)
          console.log(
            [timecode, wrong ? 'wrong' : 'told', [item, slot].filter(Boolean).join('/'), text].join('\t'),
          );
      return found.some((f) => f.wrong) ? 1 : 0;
    }
    if (verb === 'work') {
      const { parseWorkCommand, work } = await import('../renders/work');
      const stop = new AbortController();
      for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => stop.abort());
      await work(parseWorkCommand(rest, process.env), (line) => console.log(line), stop.signal);
      // Redis that is away would be waited for.
      process.exit(0);
    }
    if (verb === 'follow') {
      const { follow, parseFollowCommand } = await import('./follow');
      const command = parseFollowCommand(rest);
      const sights = await follow(command);
      console.log(
        command.json
          ? JSON.stringify(sights)
          : sights.map((s) => [s.frame, s.x, s.y, s.sure].join('\t')).join('\n'),
      );
      return 0;
    }
    throw new CommandError(verb ? `There is no command "${verb}".\n${USAGE}` : USAGE);
  } catch (error) {
    console.error(messageOf(error));
    return 1;
  }
}
