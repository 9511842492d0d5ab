import { whileRendering } from './whileRendering';

/** Locks that were asked for; each is let go once. */
const locks: { released: boolean; release: () => Promise<void> }[] = [];
const request = jest.fn(async () => {
  const lock = {
    released: false,
    release: async () => {
      lock.released = true;
    },
  };
  locks.push(lock);
  return lock;
});
const settled = () => new Promise((resolve) => setTimeout(resolve, 0));

/** Whether the browser would ask before the page is left. */
const asks = () => {
  const leaving = new Event('beforeunload', { cancelable: true });
  window.dispatchEvent(leaving);
  return leaving.defaultPrevented;
};

beforeAll(() => {
  Object.defineProperty(navigator, 'wakeLock', { value: { request }, configurable: true });
});
afterEach(async () => {
  whileRendering(false);
  await settled();
  locks.length = 0;
  request.mockClear();
});

it('the screen stays awake and leaving is asked about while a render goes on, and no longer', async () => {
  expect(asks()).toBe(false);
  whileRendering(true);
  whileRendering(true);
  await settled();
  expect([asks(), locks.map((l) => l.released)]).toEqual([true, [false]]);
  whileRendering(false);
  await settled();
  expect([asks(), locks.map((l) => l.released)]).toEqual([false, [true]]);
});

it('a lock that the browser took away is asked for again when the page is seen', async () => {
  whileRendering(true);
  await settled();
  locks[0]!.released = true;
  document.dispatchEvent(new Event('visibilitychange'));
  await settled();
  expect(locks).toHaveLength(2);
  // One that is held is not asked for twice.
  document.dispatchEvent(new Event('visibilitychange'));
  await settled();
  expect(locks).toHaveLength(2);
});

it('a render that ends before the lock came lets it go; one that is refused changes nothing', async () => {
  whileRendering(true);
  whileRendering(false);
  await settled();
  expect(locks.map((l) => l.released)).toEqual([true]);
  request.mockRejectedValueOnce(new Error('Battery low'));
  whileRendering(true);
  await settled();
  expect(asks()).toBe(true);
});
