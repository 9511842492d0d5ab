import type { Reel } from '@fresh-reel/core';
import type { holdReel } from '../../storage/tabs';
import { ReelLock } from './reelLock';

jest.mock('@react-native-async-storage/async-storage', () => require('../../testing/memoryStorage'));

type Holding = Parameters<typeof holdReel>[1];

/** A lock whose other tabs are played by the test. */
function setUp(unsaved?: Reel, { changed = 'later', room = true, readable = Number.POSITIVE_INFINITY } = {}) {
  const log: string[] = [];
  const asked: Holding[] = [];
  const autosave = {
    unsaved,
    basis: { changed: 'before' } as Reel,
    allow: (may: boolean) => void log.push(may ? 'may write' : 'may not write'),
    flush: async () => void log.push('written'),
    replace: (reel: Reel) => void log.push(`takes over ${reel.name}`),
  };
  const lock = new ReelLock(
    'r',
    autosave,
    {
      state: (s) => void log.push(s),
      stored: (reel) => void log.push(`shows ${reel.name}`),
      beside: (name) => void log.push(`is beside: ${name}`),
      noRoom: () => void log.push('has no room for both'),
      left: () => void log.push('kept what is not written'),
    },
    {
      hold: (_, holding) => {
        asked.push(holding);
        return () => void log.push('let go');
      },
      put: async () => [],
      read: async () => {
        if (readable-- <= 0) throw new Error('The store does not answer.');
        return { kind: 'reel', id: 'r', reel: { name: 'newer', changed } as Reel };
      },
      beside: async (reel) => (room ? `${reel.name}, too` : undefined),
    },
  );
  return { log, asked, lock };
}
const settled = () => new Promise((resolve) => setTimeout(resolve, 0));

describe('the right to change a reel', () => {
  it('is asked for, and used only once it is held', async () => {
    const { log, asked, lock } = setUp(undefined, { changed: 'before' });
    lock.open();
    expect(log).toEqual([]);
    asked[0]!.onHeld({});
    await settled();
    expect(log).toEqual(['may write', 'held']);
  });

  it('begins with what was written since the reel was read here', async () => {
    const { log, asked, lock } = setUp();
    lock.open();
    asked[0]!.onHeld({});
    await settled();
    expect(log).toEqual(['takes over newer', 'shows newer', 'may write', 'held']);
  });

  it('is not used while the store does not say what is newest', async () => {
    const { log, asked, lock } = setUp(undefined, { readable: 0 });
    lock.open();
    asked[0]!.onHeld({});
    await settled();
    expect(log).toEqual([]);
    await lock.close();
    expect(log).not.toContain('may write');
  });

  it('is asked of the store, for a tab that was asleep', async () => {
    const { asked, lock } = setUp();
    lock.open();
    expect(await lock.isHeld()).toBe(false);
    asked[0]!.onHeld({ isHeld: async () => false });
    expect(await lock.isHeld()).toBe(false);
  });

  it('that comes after another tab had it begins with what that tab wrote', async () => {
    const { log, asked, lock } = setUp();
    lock.open();
    asked[0]!.onRefused();
    asked[0]!.onHeld({});
    await settled();
    expect(log).toEqual(['elsewhere', 'takes over newer', 'shows newer', 'may write', 'held']);
  });

  it('is taken from the other tab, and waited for again when it is taken back', async () => {
    const { log, asked, lock } = setUp();
    lock.open();
    asked[0]!.onRefused();
    lock.take();
    expect(asked.map((a) => a.take)).toEqual([false, true]);
    asked[1]!.onHeld({});
    await settled();
    asked[1]!.onLost();
    expect(log.slice(-3)).toEqual(['may not write', 'elsewhere', 'let go']);
    expect(asked[2]!.take).toBe(false);
  });

  it('shows what the other tab writes, but never over what is not written here', async () => {
    const seen = setUp();
    seen.lock.open();
    await seen.lock.written();
    expect(seen.log).toEqual([]);
    seen.asked[0]!.onRefused();
    await seen.lock.written();
    expect(seen.log).toContain('shows newer');
  });

  it.each([
    [
      'is kept beside what another tab wrote',
      {},
      ['elsewhere', 'is beside: mine, too', 'takes over newer', 'shows newer'],
    ],
    ['stays where nothing else was written', { changed: 'before' }, ['elsewhere']],
    ['stays where there is no room for it', { room: false }, ['elsewhere', 'has no room for both']],
  ])('what could not be written here %s', async (_, world, told) => {
    const { log, asked, lock } = setUp({ name: 'mine' } as Reel, world);
    lock.open();
    asked[0]!.onRefused();
    await lock.written();
    expect(log).toEqual(told);
  });

  it('what cannot be written when the reel is left is kept', async () => {
    const { log, lock } = setUp({ name: 'mine' } as Reel);
    lock.open();
    await lock.close();
    expect(log).toEqual(['written', 'kept what is not written', 'may not write', 'let go']);
  });

  it('is let go after everything is written, and nothing is told any more', async () => {
    const { log, asked, lock } = setUp();
    lock.open();
    await lock.close();
    expect(log).toEqual(['written', 'may not write', 'let go']);
    asked[0]!.onHeld({});
    await settled();
    expect(log).toEqual(['written', 'may not write', 'let go']);
  });
});
