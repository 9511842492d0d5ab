import { main } from './main';
import { programOf } from './program';
import { asked } from './testing';

/** What the command line says to an editor, and the exit code. */
async function said(...args: string[]): Promise<{ code: number; out: string; wrong: string }> {
  const told: string[] = [];
  const faults: string[] = [];
  const out = jest.spyOn(process.stdout, 'write').mockImplementation((text) => told.push(String(text)) > 0);
  const log = jest.spyOn(console, 'log').mockImplementation((text) => void told.push(`${text}\n`));
  const error = jest.spyOn(console, 'error').mockImplementation((text) => void faults.push(String(text)));
  try {
    return { code: await main(args), out: told.join(''), wrong: faults.join('\n') };
  } finally {
    for (const spy of [out, log, error]) spy.mockRestore();
  }
}

const commands = programOf({} as never).commands.map((command) => command.name());

it.each(commands)('%s says by --help what it takes, each option with words', async (name) => {
  const { code, out } = await said(name, '--help');
  expect([code, out]).toEqual([0, expect.stringContaining(`Usage: fresh-reel ${name}`)]);
  const command = programOf({} as never).commands.find((one) => one.name() === name)!;
  const { options, registeredArguments } = command;
  expect(command.description()).not.toBe('');
  for (const part of [...options, ...registeredArguments]) expect(part.description).not.toBe('');
  for (const { long } of options) expect(out).toContain(long);
});

it('tells all commands by --help, and without a word of what is wanted', async () => {
  const helped = await said('--help');
  const nothing = await said();
  expect([helped.code, nothing.code, nothing.out]).toEqual([0, 1, helped.out]);
  for (const name of commands) expect(helped.out).toMatch(new RegExp(`^  ${name}\\b`, 'm'));
});

it.each([
  [['dance'], `Unknown command 'dance'. "fresh-reel --help" says what there is.`],
  [['rendre', 'a'], /Unknown command 'rendre'[\s\S]*render/],
  [['render', 'a'], /^Required option '--out <folder or film>' not specified\. "fresh-reel render --help"/],
  [['render', 'a', '--out', 'x', '--sise', '9'], /Unknown option '--sise'[\s\S]*--size/],
  [['render', 'a', 'b', '--out', 'x'], /^Too many arguments for 'render'/],
  [
    ['render', 'a', '--out', 'x', '--codec', 'vp9', '--pictures', 'png16'],
    /'--pictures <kind>' cannot be used/,
  ],
  [['render', 'a', '--out'], /'--out <folder or film>' argument missing/],
  [['pack', 'a', '--out', 'a.zip'], '--out: "a.zip" does not end in .freshreel, as packages do.'],
  [['schema', 'film'], /Allowed choices are template, reel, brand, contents/],
  [['work'], /'--redis <address>' not specified/],
  [['work', '--redis', 'here'], '--redis: "here" is no address of a queue, such as redis://machine:6379.'],
])('%j is told what is wrong', async (args, reason) => {
  const { code, out, wrong } = await said(...args);
  expect([code, out, wrong]).toEqual([
    1,
    '',
    reason instanceof RegExp ? expect.stringMatching(reason) : reason,
  ]);
});

it('takes numbers below nought, and what stands in the environment', () => {
  expect(asked('check', 'a', '--loudness', '-16').loudness).toBe(-16);
  expect(asked('check', 'a', '--loudness=-14').loudness).toBe(-14);
  process.env.FRESH_REEL_REDIS = 'redis://queue:6379';
  try {
    expect(asked('work')).toEqual({ redis: 'redis://queue:6379' });
  } finally {
    delete process.env.FRESH_REEL_REDIS;
  }
});
