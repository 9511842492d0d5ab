import { Autosave, type SaveState } from './autosave';

/** A store that answers when it is told to. */
function slow() {
  const written: string[] = [];
  const waiting: { document: string; end: (fault?: Error) => void }[] = [];
  const save = (document: string) =>
    new Promise<string>((resolve, reject) => {
      waiting.push({
        document,
        end: (fault) => {
          if (fault) return reject(fault);
          written.push(document);
          resolve(`${document}, stamped`);
        },
      });
    });
  const next = async (fault?: Error) => {
    waiting.shift()!.end(fault);
    await new Promise((resolve) => setTimeout(resolve));
  };
  return { written, waiting, save, next };
}

function made(rest = 0) {
  const store = slow();
  const states: SaveState['kind'][] = [];
  const autosave = new Autosave<string>('a', store.save, (s) => states.push(s.kind), rest);
  return { ...store, states, autosave };
}

describe('writing every version', () => {
  it('one after the other; of those that wait only the newest', async () => {
    const { autosave, written, next, states } = made();
    autosave.allow(true);
    for (const version of ['b', 'c', 'd']) autosave.put(version);
    await next();
    await next();
    expect(written).toEqual(['b', 'd']);
    expect(autosave.unsaved).toBeUndefined();
    // What it goes on from is what was written last, as it lies there.
    expect(autosave.basis).toBe('d, stamped');
    autosave.replace('from elsewhere');
    expect(autosave.basis).toBe('from elsewhere');
    expect(states.at(-1)).toBe('saved');
  });

  it('of a document that begins unwritten, as soon as it may', async () => {
    const { save, next, written } = slow();
    const autosave = new Autosave<string>('kept', save, () => undefined, 0, 'stored');
    expect([autosave.unsaved, autosave.basis]).toEqual(['kept', 'stored']);
    autosave.allow(true);
    await next();
    expect(written).toEqual(['kept']);
    expect([autosave.unsaved, autosave.basis]).toEqual([undefined, 'kept, stamped']);
  });

  it('rests between writes, so that a drag is not written at each of its steps', async () => {
    jest.useFakeTimers();
    const saved: string[] = [];
    const autosave = new Autosave<string>(
      '0',
      async (document) => {
        saved.push(document);
        return document;
      },
      () => undefined,
      200,
    );
    autosave.allow(true);
    for (let ms = 1; ms <= 1000; ms += 10) {
      autosave.put(`${ms}`);
      await jest.advanceTimersByTimeAsync(10);
    }
    await jest.advanceTimersByTimeAsync(200);
    jest.useRealTimers();
    expect(saved.length).toBeLessThan(10);
    expect(saved[0]).toBe('1');
    expect(saved.at(-1)).toBe('991');
    expect(autosave.unsaved).toBeUndefined();
  });

  it('does not rest when all of it has to be written', async () => {
    const { autosave, written, waiting, next } = made(60_000);
    autosave.allow(true);
    for (const [first, second] of ['bc', 'de']) {
      autosave.put(first!);
      void autosave.flush();
      await new Promise((resolve) => setTimeout(resolve));
      await next();
      autosave.put(second!);
      await new Promise((resolve) => setTimeout(resolve));
      expect(waiting).toHaveLength(0);
      const flushed = autosave.flush();
      await new Promise((resolve) => setTimeout(resolve));
      await next();
      await flushed;
    }
    expect(written).toEqual(['b', 'c', 'd', 'e']);
  });

  it('begins when it is allowed, and ends when it is not any more', async () => {
    const { autosave, written, waiting, next } = made();
    autosave.put('b');
    expect(waiting).toHaveLength(0);
    autosave.allow(true);
    autosave.put('c');
    autosave.allow(false);
    await next();
    // What was on its way is written; what came after is not, and does not count as written.
    expect(written).toEqual(['b']);
    expect(waiting).toHaveLength(0);
    expect(autosave.unsaved).toBe('c');
  });

  it('waits for all of it before the reel is let go', async () => {
    const { autosave, written, next } = made();
    autosave.allow(true);
    autosave.put('b');
    autosave.put('c');
    let ended = false;
    const flushed = autosave.flush().then(() => {
      ended = true;
    });
    await next();
    expect(ended).toBe(false);
    await next();
    await flushed;
    expect(written).toEqual(['b', 'c']);
  });

  it('tells a fault, keeps what is unsaved, and tries again', async () => {
    const { autosave, written, states, next } = made();
    autosave.allow(true);
    autosave.put('b');
    await next(new Error('no more room'));
    expect(states.at(-1)).toBe('fault');
    expect(autosave.unsaved).toBe('b');
    void autosave.flush();
    await next();
    expect(written).toEqual(['b']);
  });

  it('takes what another tab wrote as written', () => {
    const { autosave, waiting } = made();
    autosave.replace('theirs');
    autosave.allow(true);
    expect(autosave.unsaved).toBeUndefined();
    expect(waiting).toHaveLength(0);
  });
});
