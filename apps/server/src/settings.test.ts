import { readSettings } from './settings';

describe('what a server is told', () => {
  it('is this machine alone, without a token, where nothing is said', () => {
    expect(readSettings([], {})).toMatchObject({ port: 4173, host: '127.0.0.1', token: undefined });
  });

  it('by arguments, else by the environment', () => {
    const env = { PORT: '5000', FRESH_REEL_DATA: '/data', FRESH_REEL_MOST_FRAMES: '250' };
    const told = readSettings(['--port', '5001', '--redis', 'redis://queue:6379'], env);
    expect(told).toMatchObject({ port: 5001, data: '/data', redis: 'redis://queue:6379' });
    expect(told.limits).toMatchObject({ frames: 250, jobs: 200 });
  });

  it('asks for a token wherever other machines reach it: the one that is given, else one of its own', () => {
    for (const host of ['127.0.0.1', '127.1.2.3', 'localhost', '::1'])
      expect(readSettings(['--host', host], {}).token).toBeUndefined();
    const [one, two] = [0, 1].map(() => readSettings(['--host', '0.0.0.0'], {}).token!);
    expect(one!.length).toBeGreaterThanOrEqual(24);
    expect(one).not.toBe(two);
    const given = 'a-token-of-twenty-letters';
    expect(readSettings(['--host', '192.168.1.5', '--token', given], {}).token).toBe(given);
  });

  it.each([
    [['--port', 'eighty'], {}],
    [['--token', 'short'], {}],
    [['--redis', 'http://queue'], {}],
    [[], { FRESH_REEL_MOST_JOBS: '-1' }],
    [[], { FRESH_REEL_MOST_SECONDS: '9999999999' }],
    [['--colour', 'red'], {}],
  ])('refuses %j %j', (args, env) => {
    expect(() => readSettings(args, env)).toThrow();
  });
});
