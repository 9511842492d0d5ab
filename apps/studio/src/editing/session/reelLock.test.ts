import type { Reel } from '@fresh-reel/core';
import type { holdReel } from '../../storage/tabs';
import { ReelLock } from './reelLock';

jest.mock('@react-native-async-storage/async-storage', () => require('../../testing/memoryStorage'));

type Holding = Parameters<typeof holdReel>[1];

/** A lock whose other tabs are played by the test. */
function setUp(unsaved?: Reel) {
  const log: string[] = [];
  const asked: Holding[] = [];
  const autosave = {
    unsaved,
    allow: (may: boolean) => void log.push(may ? 'may write' : 'may not write'),
    flush: async () => void log.push('written'),
    replace: (reel: Reel) => void log.push(`takes over ${reel.name}`),
  };
  const lock = new ReelLock(
    'r',
    autosave,
    { state: (s) => void log.push(s), stored: (reel) => void log.push(`shows ${reel.name}`) },
    (_, holding) => {
      asked.push(holding);
      return () => void log.push('let go');
    },
    async () => ({ kind: 'reel', id: 'r', reel: { name: 'newer' } as Reel }) as never,
  );
  return { log, asked, lock };
}
const settled = () => new Promise((resolve) => setTimeout(resolve, 0));

describe('the right to change a reel', () => {
  it('is asked for, and used only once it is held', async () => {
    const { log, asked, lock } = setUp();
    lock.open();
    expect(log).toEqual([]);
    asked[0]!.onHeld();
    await settled();
    expect(log).toEqual(['may write', 'held']);
  });

  it('that comes after another tab had it begins with what that tab wrote', async () => {
    const { log, asked, lock } = setUp();
    lock.open();
    asked[0]!.onRefused();
    asked[0]!.onHeld();
    await settled();
    expect(log).toEqual(['elsewhere', 'takes over newer', 'shows newer', 'may write', 'held']);
  });

  it('is taken from the other tab, and waited for again when it is taken back', async () => {
    const { log, asked, lock } = setUp();
    lock.open();
    asked[0]!.onRefused();
    lock.take();
    expect(asked.map((a) => a.take)).toEqual([false, true]);
    asked[1]!.onHeld();
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
    const kept = setUp({ name: 'mine' } as Reel);
    kept.lock.open();
    kept.asked[0]!.onRefused();
    await kept.lock.written();
    expect(kept.log).toEqual(['elsewhere']);
  });

  it('is let go after everything is written, and nothing is told any more', async () => {
    const { log, asked, lock } = setUp();
    lock.open();
    await lock.close();
    expect(log).toEqual(['written', 'may not write', 'let go']);
    asked[0]!.onHeld();
    await settled();
    expect(log).toEqual(['written', 'may not write', 'let go']);
  });
});
