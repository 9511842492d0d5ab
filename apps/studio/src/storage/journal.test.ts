import fc from 'fast-check';
import { Journal, type JournalFile, type WrittenGroup } from './journal';

/** A file in memory, that has only so much room. */
class MemoryFile implements JournalFile {
  bytes = new Uint8Array(0);
  closed = false;
  /** @param throws whether it says so by an error when there is no more room, rather than by writing less */
  constructor(
    readonly room = Number.POSITIVE_INFINITY,
    readonly throws = false,
  ) {}

  read(into: Uint8Array, { at }: { at: number }): number {
    const part = this.bytes.subarray(at, at + into.byteLength);
    into.set(part);
    return part.byteLength;
  }

  write(data: Uint8Array, { at }: { at: number }): number {
    if (this.throws && at + data.byteLength > this.room)
      throw new DOMException('No space', 'QuotaExceededError');
    const end = Math.min(this.room, at + data.byteLength);
    if (end > this.bytes.byteLength) {
      const larger = new Uint8Array(end);
      larger.set(this.bytes);
      this.bytes = larger;
    }
    this.bytes.set(data.subarray(0, Math.max(0, end - at)), at);
    return Math.max(0, end - at);
  }

  truncate(size: number): void {
    this.bytes = this.bytes.slice(0, size);
  }
  getSize = () => this.bytes.byteLength;
  flush(): void {}
  close(): void {
    this.closed = true;
  }
}

const frame = fc.record({
  data: fc.uint8Array({ minLength: 1, maxLength: 40 }),
  alpha: fc.option(fc.uint8Array({ minLength: 1, maxLength: 10 }), { nil: undefined }),
  key: fc.boolean(),
  timestamp: fc.double({ min: 0, max: 1e4, noNaN: true }),
  duration: fc.constant(0.04),
});
const groups = fc.array(fc.record({ frames: fc.array(frame, { minLength: 1, maxLength: 5 }) }), {
  minLength: 1,
  maxLength: 5,
});

const written = async (all: readonly WrittenGroup[], file = new MemoryFile()) => {
  const journal = await Journal.open(file, 'one');
  for (const group of all) journal.append(group);
  return { file, journal };
};
/** As they compare: without fields that hold nothing, and zero as JSON keeps it. */
const plain = (group: WrittenGroup) =>
  group.frames.map((f) => [f.key, f.timestamp + 0, f.duration, [...f.data], [...(f.alpha ?? [])]]);
const all = (journal: Journal) => Array.from({ length: journal.groups }, (_, i) => plain(journal.read(i)));

describe('the journal of a render', () => {
  it('gives back each group as it was written', async () => {
    await fc.assert(
      fc.asyncProperty(groups, async (given) => {
        const { file } = await written(given);
        expect(all(await Journal.open(file, 'one'))).toEqual(given.map(plain));
      }),
      { numRuns: 60 },
    );
  });

  it('cut off at any byte, holds every group that was whole, and goes on after it', async () => {
    await fc.assert(
      fc.asyncProperty(groups, fc.double({ min: 0, max: 1, noNaN: true }), async (given, where) => {
        const ends: number[] = [];
        const file = new MemoryFile();
        const journal = await Journal.open(file, 'one');
        for (const group of given) {
          journal.append(group);
          ends.push(file.getSize());
        }
        const cut = Math.round(where * file.getSize());
        file.truncate(cut);
        const whole = ends.filter((end) => end <= cut).length;
        const again = await Journal.open(file, 'one');
        expect(all(again)).toEqual(given.slice(0, whole).map(plain));
        for (const group of given.slice(whole)) again.append(group);
        expect(all(await Journal.open(file, 'one'))).toEqual(given.map(plain));
      }),
      { numRuns: 200 },
    );
  });

  it('with any byte changed, holds the groups before it and none that is wrong', async () => {
    await fc.assert(
      fc.asyncProperty(groups, fc.nat(), fc.integer({ min: 1, max: 255 }), async (given, where, by) => {
        const { file } = await written(given);
        file.bytes[where % file.bytes.length]! ^= by;
        const found = all(await Journal.open(file, 'one'));
        expect(found).toEqual(given.slice(0, found.length).map(plain));
      }),
      { numRuns: 200 },
    );
  });

  it('of what another version of the app wrote, begins anew', async () => {
    const { file } = await written([
      { frames: [{ data: Uint8Array.of(1), key: true, timestamp: 0, duration: 1 }] },
    ]);
    expect((await Journal.open(file, 'two')).groups).toBe(0);
    expect((await Journal.open(file, 'one')).groups).toBe(0);
  });

  it('keeps how a decoder is set up', async () => {
    const config = {
      codec: 'avc1.64001f',
      codedWidth: 1280,
      codedHeight: 720,
      description: Uint8Array.of(1, 100),
    };
    const { file } = await written([
      { frames: [{ data: Uint8Array.of(1), key: true, timestamp: 0, duration: 1 }], config },
    ]);
    expect((await Journal.open(file, 'one')).read(0).config).toEqual(config);
  });

  it.each([false, true])('on a full disk says so, and keeps what was whole (thrown: %s)', async (throws) => {
    const large = { frames: [{ data: new Uint8Array(300), key: true, timestamp: 0, duration: 1 }] };
    const file = new MemoryFile(600, throws);
    const { journal } = await written([large], file);
    expect(() => journal.append(large)).toThrow('The disk is full');
    expect((await Journal.open(file, 'one')).groups).toBe(1);
    journal.close();
    expect(file.closed).toBe(true);
  });
});
