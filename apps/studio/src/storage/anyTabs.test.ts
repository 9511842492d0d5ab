import fc from 'fast-check';
import { type Notes, type Step, settled, steps } from '../testing/tabs/steps';
import { notesOf, Tab, World } from '../testing/tabs/world';

/** How many rows of steps are tried at each kind of address. */
const ROWS = Number(process.env.FRESH_REEL_ROWS ?? 40);

/** Milliseconds after which it hangs. */
const HANGS = 600_000;

/**
 * Tabs that open the same reels in one browser, whose storage may be full, slow or gone at any call, and which are left
 * and killed at any moment. @param secure whether the address has the browser's locks
 */
async function anyTabs(secure: boolean): Promise<void> {
  const row = fc.array(steps(), { minLength: 10, maxLength: 50, size: 'max' });
  await fc.assert(
    fc.asyncProperty(row, async (taken) => {
      jest.useFakeTimers({ now: new Date('2026-06-06T10:00:00Z') });
      try {
        await tryRow(secure, taken);
      } finally {
        jest.useRealTimers();
      }
    }),
    { numRuns: ROWS },
  );
}

async function tryRow(secure: boolean, taken: readonly Step[]): Promise<void> {
  const notes: Notes = { made: 0, wanted: new Set() };
  // Nothing that somebody wants is written over.
  const faults: string[] = [];
  const world = new World(secure, (key, before, now) => {
    if (!key.startsWith('reel/') || before === undefined) return;
    const left = new Set(notesOf(JSON.parse(now)));
    const lost = notesOf(JSON.parse(before)).filter((note) => notes.wanted.has(note) && !left.has(note));
    if (lost.length > 0) faults.push(`${lost} of ${key} was written over`);
  });
  for (const step of taken) await step.take({ world, notes });
  expect(faults).toEqual([]);
  // The store is well again, and everybody has time: each tab shows what is stored.
  world.disk.heal();
  await jest.advanceTimersByTimeAsync(300_000);
  for (const tab of world.tabs) tab?.session?.retrySave();
  await jest.advanceTimersByTimeAsync(300_000);
  for (const tab of world.tabs) {
    // One that could not write what it has before the reel was taken from it says so.
    if (!tab?.present || (tab.state!.lock === 'elsewhere' && tab.state!.save.kind === 'fault')) continue;
    const { id } = tab.present;
    expect({ id, notes: notesOf(tab.present), save: tab.state!.save.kind }).toEqual({
      id,
      notes: notesOf(world.stored(id)!),
      save: 'saved',
    });
  }
  // All are closed, and the app is begun once more: what was wanted is there.
  for (const tab of world.tabs) if (tab) world.close(tab);
  await jest.advanceTimersByTimeAsync(300_000);
  const last = new Tab(world);
  await last.start('one');
  await settled();
  const there = world.allNotes();
  expect([...notes.wanted].filter((note) => !there.has(note))).toEqual([]);
  expect(faults).toEqual([]);
}

it(
  'nothing that was saved is lost, and no tab writes over another’s, whatever happens to tabs and store',
  () => anyTabs(true),
  HANGS,
);

it('the same at an address without locks', () => anyTabs(false), HANGS);
