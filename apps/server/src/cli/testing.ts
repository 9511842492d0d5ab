import { type Deeds, programOf } from './program';

/**
 * What a command is, as it was asked for.
 * @param args as they are written, the command's name first
 * @throws {CommandError} or {CommanderError} naming what is wrong
 */
export function asked<K extends keyof Deeds>(...args: [K, ...string[]]): Parameters<Deeds[K]>[0] {
  let found: unknown;
  const deeds = new Proxy({} as Deeds, {
    get: () => (command: unknown) => {
      found = command;
      return Promise.resolve();
    },
  });
  programOf(deeds).parse(args, { from: 'user' });
  return found as Parameters<Deeds[K]>[0];
}
