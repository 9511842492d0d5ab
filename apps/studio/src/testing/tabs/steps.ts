import { addMarker } from '@fresh-reel/core';
import fc from 'fast-check';
import type { ReelSession } from '../../editing/session/reelSession';
import { notesOf, Tab, type World } from './world';

/** What is known of the notes that were put in. */
export interface Notes {
  made: number;
  /** Those that are in the reel as its editor left it: each has to be somewhere at the end. */
  readonly wanted: Set<string>;
}

/** The world, and what has to be so in it. */
export interface Run {
  readonly world: World;
  readonly notes: Notes;
}

/** Lets everything that waits for nothing but its turn happen. */
export const settled = () => jest.advanceTimersByTimeAsync(0);

/** Something that happens to tabs or to the store; after it, what has to be so is looked at. */
export interface Step {
  take(run: Run): Promise<void>;
  /** What it is, for who reads what went wrong. */
  toString(): string;
}

const step = (name: string, does: (run: Run) => unknown): Step => ({
  toString: () => name,
  async take(run) {
    await does(run);
    await settled();
    holds(run, name);
  },
});

const TABS = [0, 0, 0, 1, 1, 2] as const;

/** What has to be so after each step. */
function holds({ world }: Run, after: string): void {
  const open = world.tabs.flatMap((t) => (t?.session ? [{ tab: t, state: t.state!, reel: t.present! }] : []));
  for (const id of ['one', 'two']) {
    const holding = open.filter(({ state, reel }) => reel.id === id && state.lock === 'held');
    if (holding.length > 1) throw new Error(`After “${after}” two tabs may change ${id}.`);
    for (const { state, reel } of holding) {
      if (state.save.kind !== 'saved') continue;
      const stored = notesOf(world.stored(id)!);
      if (notesOf(reel).join() !== stored.join())
        throw new Error(`After “${after}” ${notesOf(reel)} counts as saved, and ${stored} is stored.`);
    }
  }
}

/** Does something to a reel as its editor, and keeps account of which notes that leaves. */
function changing({ notes }: Run, tab: Tab, does: () => void): void {
  const before = notesOf(tab.present!);
  const might = tab.session!.mayEdit;
  does();
  const now = notesOf(tab.present!);
  if (!might && before.join() !== now.join()) throw new Error('One who only looks has changed something.');
  for (const note of before) if (!now.includes(note)) notes.wanted.delete(note);
  for (const note of now) if (!before.includes(note)) notes.wanted.add(note);
}

/** Notes that only a tab that is killed knew of are lost, and nobody was told that they were saved. */
function forgive({ world, notes }: Run, tab: Tab): void {
  if (!tab.present) return;
  const kept = new Set([...world.allNotes()]);
  const atOnce = [...world.disk.atOnce.values()].join();
  for (const note of notesOf(tab.present))
    if (!kept.has(note) && !atOnce.includes(`\\"${note}\\"`)) notes.wanted.delete(note);
}

/** Opens a reel in a tab. */
function open({ world }: Run, index: number, reel: string): void {
  const opened = new Tab(world);
  world.tabs[index] = opened;
  void opened.start(reel).catch(() => {
    // The store did not answer: the page says so, and one opens it again.
    if (world.tabs[index] === opened) world.tabs[index] = undefined;
    world.kill(opened);
  });
}

/** Every kind of step. What needs a tab with a reel opens one where there is none. */
export const steps = (): fc.Arbitrary<Step> => {
  const tab = fc.constantFrom(...TABS);
  const id = fc.constantFrom('one', 'one', 'one', 'two');
  const inTab = (name: string, does: (run: Run, tab: Tab, index: number) => unknown) =>
    fc.tuple(tab, id).map(([index, reel]) =>
      step(`tab ${index} ${name}`, (run) => {
        const there = run.world.tabs[index];
        if (!there) open(run, index, reel);
        else if (there.session) return does(run, there, index);
      }),
    );
  const changes = (name: string, change: (session: ReelSession, run: Run) => void) =>
    inTab(name, (run, there) => changing(run, there, () => change(there.session!, run)));
  const kinds: [weight: number, fc.Arbitrary<Step>][] = [
    [
      10,
      changes('puts in a note', (session, { notes }) => {
        const frame = ++notes.made;
        session.edit((reel) => addMarker(reel, frame, 'note', `n${frame}.`).reel);
      }),
    ],
    [2, changes('goes a step back', (session) => session.undo())],
    [1, changes('goes a step on', (session) => session.redo())],
    [1, changes('drops a gesture', (session) => session.cancel())],
    [3, inTab('takes it over', (_, there) => there.session!.takeOver())],
    [1, inTab('tries again to save', (_, there) => there.session!.retrySave())],
    [1, inTab('is hidden', (_, there) => there.session!.hide())],
    [
      1,
      inTab('leaves its reel, and opens it again', (_, there) => {
        const { id } = there.present!;
        there.session!.close();
        there.session = undefined;
        void there.start(id).catch(() => undefined);
      }),
    ],
    [
      2,
      inTab('is closed', ({ world }, there, index) => {
        world.close(there);
        world.tabs[index] = undefined;
      }),
    ],
    [
      2,
      inTab('is killed', (run, there, index) => {
        forgive(run, there);
        run.world.kill(there);
        run.world.tabs[index] = undefined;
      }),
    ],
    [
      2,
      fc
        .constantFrom('full' as const, 'gone' as const)
        .map((what) =>
          step(`the store is ${what}`, ({ world: { disk } }) =>
            Object.assign(disk.weather, { [what]: true }),
          ),
        ),
    ],
    [
      2,
      fc.constant(
        step('the store is slow', ({ world: { disk } }) => {
          disk.weather.slow = true;
        }),
      ),
    ],
    [3, fc.constant(step('the store is well', ({ world: { disk } }) => disk.heal()))],
    [
      6,
      fc
        .constantFrom(1, 150, 250, 1200, 2500, 120_000)
        .map((ms) => step(`${ms} ms go by`, () => jest.advanceTimersByTimeAsync(ms))),
    ],
  ];
  return fc.oneof(...kinds.map(([weight, arbitrary]) => ({ weight, arbitrary })));
};
