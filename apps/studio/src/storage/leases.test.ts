import { BrowserLocks } from '../testing/tabs/browserLocks';
import { type Lease, LeaseLocks, type LeaseStore } from './leases';
import type { Locks } from './locks';

/** Leases in memory, as all tabs have them. */
function leaseStore(): LeaseStore {
  const leases = new Map<string, Lease>();
  return {
    change: async (name, by) => {
      const lease = by(leases.get(name));
      if (lease) leases.set(name, lease);
      else leases.delete(name);
      return lease;
    },
    drop: (name, holder) => {
      if (leases.get(name)?.holder === holder) leases.delete(name);
    },
  };
}

/** Two tabs at an address with the browser's locks, and two at one without; channels are left out. */
const addresses: [string, () => [Locks, Locks]][] = [
  [
    'locks',
    () => {
      const all = new BrowserLocks();
      return [all.of({ alive: true }), all.of({ alive: true })];
    },
  ],
  [
    'leases',
    () => {
      const store = leaseStore();
      return [new LeaseLocks(store, undefined), new LeaseLocks(store, undefined)];
    },
  ],
];

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());
const go = (ms: number) => jest.advanceTimersByTimeAsync(ms);

/** Work that goes on until it is ended. */
function going() {
  let end: () => void = () => undefined;
  const done = new Promise<string>((resolve) => {
    end = () => resolve('done');
  });
  return { end: () => end(), work: jest.fn(() => done) };
}

// What W3C Web Locks (chapter 3, "API") says of `request`, as far as the app uses it.
describe.each(addresses)('%s', (_, address) => {
  it('are held by one at a time, for as long as it works, and then by who waits', async () => {
    const [one, two] = address();
    const [first, second] = [going(), going()];
    const answer = one.request('a', {}, first.work);
    await go(0);
    void two.request('a', {}, second.work);
    await go(300_000);
    expect([first.work.mock.calls.length, second.work.mock.calls.length]).toEqual([1, 0]);
    first.end();
    expect(await answer).toBe('done');
    await go(10_000);
    expect(second.work).toHaveBeenCalled();
  });

  it('are asked for where they are free alone, and are apart by their names', async () => {
    const [one, two] = address();
    void one.request('a', {}, going().work);
    await go(0);
    expect(await two.request('a', { ifAvailable: true }, (lock) => lock)).toBeNull();
    expect(await two.request('b', { ifAvailable: true }, (lock) => lock)).not.toBeNull();
  });

  it('are taken from who has them, which is told', async () => {
    const [one, two] = address();
    const lost = one.request('a', {}, going().work).catch((error: DOMException) => error.name);
    await go(0);
    const second = going();
    void two.request('a', { steal: true }, second.work);
    await go(30_000);
    expect(await lost).toBe('AbortError');
    expect(second.work).toHaveBeenCalled();
  });

  it('are not waited for any more when that is said', async () => {
    const [one, two] = address();
    const first = going();
    void one.request('a', {}, first.work);
    await go(0);
    const [second, leaving] = [going(), new AbortController()];
    const waited = two
      .request('a', { signal: leaving.signal }, second.work)
      .catch((error: DOMException) => error.name);
    await go(0);
    leaving.abort();
    expect(await waited).toBe('AbortError');
    first.end();
    await go(10_000);
    expect(second.work).not.toHaveBeenCalled();
  });
});

it('a lease whose tab is gone without a word is over by itself, and one that is left is free at once', async () => {
  const store = leaseStore();
  const [one, two] = [new LeaseLocks(store, undefined), new LeaseLocks(store, undefined)];
  await store.change('a', () => ({ holder: 'gone', until: Date.now() + 60_000 }));
  const second = going();
  void two.request('a', {}, second.work);
  await go(50_000);
  expect(second.work).not.toHaveBeenCalled();
  await go(20_000);
  expect(second.work).toHaveBeenCalled();
  void one.request('b', {}, going().work);
  await go(0);
  one.leave();
  expect(await two.request('b', { ifAvailable: true }, (lock) => lock)).not.toBeNull();
});
