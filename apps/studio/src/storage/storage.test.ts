import { held, room } from '../testing/memoryStorage';

jest.mock('@react-native-async-storage/async-storage', () => jest.requireActual('../testing/memoryStorage'));

import { change, graphicOf, newReel, setSlot, startHistory, undo } from '@fresh-reel/core';
import { templateById } from '@fresh-reel/templates';
import { demoReels } from '../demo/reels';
import { startDemo } from '../demo/start';
import { listBrands, saveBrand } from './brand';
import { inMemory, inPieces } from './bytes';
import { listFonts, storeFont } from './fonts';
import { keepHistory, readHistory } from './histories';
import {
  bytesId,
  clearBrokenImports,
  importLock,
  listMedia,
  readMedia,
  readWhole,
  removeMedia,
  storeIncoming,
  storeMedia,
} from './media';
import { saveQueued } from './queue';
import { deleteReel, listReels, readReel, saveReel } from './reels';
import { DAYS_KEPT, listRemoved, purge, purgeOld, putBack, removeToKeep } from './removed';
import { allKeys, keysWith, StorageError, store } from './store';
import { saveTemplate } from './templates';
import { dropUnsaved, keepUnsaved, keepUnwrittenBrands, newestReel, recoverUnsaved } from './unsaved';

beforeEach(() => {
  held.clear();
  room.left = Number.POSITIVE_INFINITY;
});

const reel = (id: string, changed: string) => ({
  ...newReel(templateById('name-strap'), { id, name: id, now: changed, shape: 'wide' }),
  changed,
});

describe('keys of the store', () => {
  it('are read once for all who ask in one moment, and anew for who asks after a write', async () => {
    const reading = jest.spyOn(store, 'getAllKeys');
    const [all, reels] = await Promise.all([allKeys(), keysWith('reel/'), listMedia(), listBrands()]);
    expect(reading).toHaveBeenCalledTimes(1);
    expect([all, reels]).toEqual([[], []]);
    await saveReel(reel('a', '2026-06-05T10:00:00Z'));
    expect(await keysWith('reel/')).toEqual(['reel/a']);
    reading.mockRestore();
  });

  it('are read anew after a reading that failed', async () => {
    const reading = jest.spyOn(store, 'getAllKeys').mockRejectedValueOnce(new Error('closed'));
    await expect(Promise.all([allKeys(), allKeys()])).rejects.toThrow('closed');
    expect(await allKeys()).toEqual([]);
    reading.mockRestore();
  });
});

describe('what would not open again', () => {
  const good = reel('a', '2026-06-05T10:00:00Z');
  const [track] = good.tracks;
  const bad = {
    ...good,
    tracks: [{ ...track!, items: track!.items.map((i) => ({ ...i, start: Number.NaN })) }],
  };

  it.each(['that is new', 'that was read'])(
    'is not written over a reel %s, and why is told',
    async (which) => {
      await saveReel(good);
      if (which === 'that was read') await readReel('a');
      const before = held.get('reel/a');
      await expect(saveReel(bad)).rejects.toThrow(StorageError);
      await expect(saveReel(bad)).rejects.toThrow(/reel could not be saved.*opene?d? again.*start.*is safe/);
      expect(held.get('reel/a')).toBe(before);
      // What it was taken back to is written.
      await saveReel({ ...good, name: 'Mended' });
      expect((await readReel('a'))!).toMatchObject({ kind: 'reel', reel: { name: 'Mended' } });
    },
  );

  it('is not written of a reel that nobody has written yet, nor into the queue, nor of a template', async () => {
    const fresh = { ...bad, id: 'fresh' };
    await expect(saveReel(fresh)).rejects.toThrow('It would not open again');
    const plan = { format: 'png', size: { width: 64, height: 36 } } as never;
    const render = {
      id: 'q',
      place: 1,
      reelId: 'fresh',
      reelName: 'F',
      plan,
      state: 'waiting',
      frames: 0,
    } as const;
    await expect(saveQueued(render, fresh)).rejects.toThrow('It would not open again');
    const template = { ...templateById('name-strap'), id: 'own', name: '' };
    await expect(saveTemplate(template)).rejects.toThrow(/template could not be saved.*name/);
    expect([...held.keys()]).toEqual([]);
  });
});

describe('reels in storage', () => {
  it('come back as they went, the last changed first', async () => {
    const [a, b] = [reel('a', '2026-06-05T10:00:00Z'), reel('b', '2026-06-06T10:00:00Z')];
    await saveReel(a);
    await saveReel(b);
    expect((await listReels()).map((r) => r.id)).toEqual(['b', 'a']);
    expect(await readReel('a')).toEqual({ kind: 'reel', id: 'a', reel: a });
    expect(await readReel('none')).toBeNull();
  });

  it('that are damaged are told apart, last, with their text untouched', async () => {
    await saveReel(reel('good', '2026-06-05T10:00:00Z'));
    held.set('reel/torn', '{"format":"freshreel/re');
    held.set('reel/odd', '{"format":"freshreel/reel","version":1,"id":"odd"}');
    const list = await listReels();
    expect(list.map((r) => r.kind)).toEqual(['reel', 'damaged', 'damaged']);
    expect(list.find((r) => r.id === 'torn')).toMatchObject({
      reason: expect.stringContaining('not complete JSON'),
    });
    expect(held.get('reel/torn')).toBe('{"format":"freshreel/re');
  });

  it('are listed by summaries, which are made where there is none and go with their reel', async () => {
    await saveReel(reel('a', '2026-06-05T10:00:00Z'));
    const [listed] = await listReels();
    expect(listed).toMatchObject({ kind: 'reel', summary: { name: 'a', templates: ['Name strap'] } });
    // Listing opens no reel that has a summary.
    const text = held.get('reel/a')!;
    held.set('reel/a', 'not looked at');
    expect(await listReels()).toEqual([listed]);
    held.set('reel/a', text);
    for (const damaged of [undefined, '{"half', '{"id":"a"}']) {
      if (damaged === undefined) held.delete('summary/a');
      else held.set('summary/a', damaged);
      expect(await listReels()).toEqual([listed]);
      expect(JSON.parse(held.get('summary/a')!).name).toBe('a');
    }
    await deleteReel({ id: 'a', name: 'a' });
    expect([...held.keys()].filter((k) => k.startsWith('summary/'))).toEqual([]);
    await putBack((await listRemoved())[0]!);
    expect(await listReels()).toEqual([listed]);
  });

  it('are put back to the letter after a delete, damaged ones too', async () => {
    held.set('reel/torn', '{"half');
    await deleteReel({ id: 'torn', name: 'A damaged reel' });
    expect(held.has('reel/torn')).toBe(false);
    await putBack((await listRemoved())[0]!);
    expect(held.get('reel/torn')).toBe('{"half');
    expect(await listRemoved()).toEqual([]);
  });

  it('keep their last good version when storage is full', async () => {
    const first = reel('a', '2026-06-05T10:00:00Z');
    await saveReel(first);
    room.left = 10;
    const next = setSlot(first, graphicOf(first, 'a-1').id, 'name', 'New words');
    await expect(saveReel(next)).rejects.toThrow(StorageError);
    await expect(saveReel(next)).rejects.toThrow(/no more room.*last saved version is safe/);
    expect(await readReel('a')).toEqual({ kind: 'reel', id: 'a', reel: first });
  });
});

describe('media in storage', () => {
  const facts = {
    kind: 'picture' as const,
    name: 'a.png',
    type: 'image/png',
    width: 10,
    height: 10,
    alpha: true,
  };
  const bytes = Uint8Array.from({ length: 2_000_003 }, (_, i) => (i * 31) % 256);

  it('goes in pieces and comes back whole', async () => {
    const record = await storeMedia(await inMemory(bytes), facts);
    expect(record.chunks).toBe(3);
    const back = await readMedia(record.hash);
    expect(back!.blob.size).toBe(bytes.length);
    const text = await new Promise<ArrayBuffer>((resolve) => {
      const reader = new FileReader();
      reader.onload = () => resolve(reader.result as ArrayBuffer);
      reader.readAsArrayBuffer(back!.blob);
    });
    expect(Buffer.compare(Buffer.from(text), Buffer.from(bytes))).toBe(0);
  });

  it('is kept once, under its SHA-256', async () => {
    const record = await storeMedia(await inMemory(new TextEncoder().encode('abc')), facts);
    // FIPS 180-2, appendix B.1.
    expect(record.hash).toBe('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad');
    const count = held.size;
    await storeMedia(await inMemory(new TextEncoder().encode('abc')), { ...facts, name: 'again.png' });
    expect(held.size).toBe(count);
  });

  it('has no record without its bytes: a full disk half way leaves none', async () => {
    room.left = 1_500_000;
    await expect(storeMedia(await inMemory(bytes), facts)).rejects.toThrow(StorageError);
    expect([...held.keys()]).toEqual([]);
  });

  it('of an import that was cut off goes at the next start; what is whole stays', async () => {
    const whole = await storeMedia(await inMemory(new TextEncoder().encode('abc')), facts);
    held.set('coming/f00', '1');
    held.set('bytes/f00/0', 'AAAA');
    // Cut off between the record and the end: the file is whole.
    held.set(`coming/${whole.hash}`, '1');
    await clearBrokenImports();
    expect([...held.keys()].sort()).toEqual([`bytes/${whole.hash}/0`, `media/${whole.hash}`]);
  });

  it('is listed, the newest first, and goes with its small pictures', async () => {
    const record = await storeMedia(await inMemory(bytes), facts);
    held.set(`thumb/${record.hash}`, 'data:');
    held.set('media/odd', '{');
    expect((await listMedia()).map((r) => r.name)).toEqual(['a.png']);
    await removeMedia(record);
    expect(await listMedia()).toEqual([]);
    await putBack((await listRemoved())[0]!);
    expect(await listMedia()).toEqual([record]);
    expect(await readMedia(record.hash)).not.toBeNull();
    await removeMedia(record);
    await purge(await listRemoved());
    expect([...held.keys()]).toEqual(['media/odd']);
  });

  it('hashed while it is stored is the same file, and kept once', async () => {
    const bytes = await inMemory(new TextEncoder().encode('abc'));
    const incoming = {
      pieces: bytes.pieces,
      end: async () => ({ hash: bytes.hash, size: bytes.size, facts }),
    };
    const first = await storeIncoming('one', incoming);
    expect(bytesId(first.record)).toBe('one');
    expect(await readMedia(bytes.hash)).toMatchObject({ record: first.record, blob: { size: 3 } });
    expect(await storeIncoming('two', incoming)).toEqual({ record: first.record, again: true });
    expect([...held.keys()].sort()).toEqual(['bytes/one/0', `media/${bytes.hash}`]);
    // What lost a part is stored anew, and nothing of the old stays.
    held.set('bytes/one/1', 'AAAA');
    held.delete('bytes/one/0');
    expect(await storeIncoming('three', incoming)).toMatchObject({ again: false });
    expect([...held.keys()].sort()).toEqual(['bytes/three/0', `media/${bytes.hash}`]);
    expect(await readWhole(bytes.hash)).not.toBeNull();
    // Cut off between the record and the end, it is whole; cut off before, it goes.
    for (const id of ['three', 'four']) held.set(`coming/${id}`, '1');
    held.set('bytes/four/0', 'AAAA');
    await clearBrokenImports();
    expect([...held.keys()].sort()).toEqual(['bytes/three/0', `media/${bytes.hash}`]);
  });

  it('hashed while it is stored leaves nothing when the disk is full or it cannot be read', async () => {
    const end = async () => ({ hash: 'f00', size: 9, facts });
    room.left = 1_500_000;
    const full = storeIncoming('one', { pieces: () => inPieces(bytes), end });
    await expect(full).rejects.toThrow(StorageError);
    room.left = Number.POSITIVE_INFINITY;
    async function* torn() {
      yield bytes.subarray(0, 3);
      throw new Error('The file was moved.');
    }
    await expect(storeIncoming('two', { pieces: torn, end })).rejects.toThrow('moved');
    expect([...held.keys()]).toEqual([]);
  });

  it('deleted, added again and deleted for good leaves the new bytes alone', async () => {
    const bytes = await inMemory(new TextEncoder().encode('abc'));
    const incoming = {
      pieces: bytes.pieces,
      end: async () => ({ hash: bytes.hash, size: bytes.size, facts }),
    };
    const { record } = await storeIncoming('one', incoming);
    await removeMedia(record);
    const again = await storeIncoming('two', incoming);
    await purge(await listRemoved());
    expect(await readMedia(bytes.hash)).toMatchObject({ record: again.record });
    expect([...held.keys()].sort()).toEqual(['bytes/two/0', `media/${bytes.hash}`]);
  });

  it('that lost a piece is missing, not broken', async () => {
    const record = await storeMedia(await inMemory(bytes), facts);
    held.delete(`bytes/${record.hash}/1`);
    expect(await readMedia(record.hash)).toBeNull();
  });
});

describe('a page that is left in the middle of a write', () => {
  it('keeps the brand that was on its way, and writes it at the next start', async () => {
    await startDemo(async () => []);
    const [brand] = await listBrands();
    const writing = saveBrand({ ...brand!, name: 'Typed just now' });
    keepUnwrittenBrands();
    await writing;
    // The page was gone before the write was done.
    await saveBrand(brand!);
    await recoverUnsaved();
    expect((await listBrands()).map((b) => b.name)).toEqual(['Typed just now']);
    // Once, and nothing is kept of what was written.
    await saveBrand(brand!);
    keepUnwrittenBrands();
    await recoverUnsaved();
    expect((await listBrands()).map((b) => b.name)).toEqual([brand!.name]);
  });
});

describe('a brand that two tabs change', () => {
  it('has what each of them changed, also what was on its way when a page was left', async () => {
    await startDemo(async () => []);
    const [brand] = await listBrands();
    const colours = { ...brand!.colours, main: '#123456' };
    await Promise.all([
      saveBrand({ ...brand!, name: 'Of one tab' }, brand),
      saveBrand({ ...brand!, colours }, brand),
    ]);
    expect(await listBrands()).toEqual([{ ...brand, name: 'Of one tab', colours }]);
    const writing = saveBrand({ ...brand!, name: 'Typed just now' }, brand);
    keepUnwrittenBrands();
    await writing;
    await saveBrand({ ...brand!, name: 'As if it had not been written', colours: brand!.colours });
    await recoverUnsaved();
    expect(await listBrands()).toEqual([{ ...brand, name: 'Typed just now' }]);
  });

  it('that was taken out in one of them does not come back by half', async () => {
    await startDemo(async () => []);
    const [brand] = await listBrands();
    await removeToKeep('brand', brand!.id, brand!.name);
    await saveBrand({ ...brand!, name: 'Too late' }, brand);
    expect(await listBrands()).toEqual([]);
  });
});

describe('a reel whose last change was not written', () => {
  const [T0, T1, T2] = ['2026-06-05T10:00:00Z', '2026-06-05T10:01:00Z', '2026-06-05T10:02:00Z'];
  const named = (name: string, changed: string) => ({ ...reel('a', T0), name, changed });
  const names = async () =>
    (await listReels()).flatMap((r) => (r.kind === 'reel' ? [r.summary.name] : [])).sort();

  it('is put in place of the version it goes on from, at the start or when it is opened', async () => {
    for (const again of [() => recoverUnsaved(), () => newestReel('a')]) {
      await saveReel(named('as written', T0));
      keepUnsaved(named('as left', T1), T0, 'me');
      await again();
      expect(await newestReel('a')).toMatchObject({ reel: { name: 'as left' } });
      expect(await names()).toEqual(['as left']);
    }
  });

  it('is put beside what another tab wrote meanwhile, once, and that stays as it is', async () => {
    await saveReel(named('of the other tab', T1));
    keepUnsaved(named('as left', T2), T0, 'me');
    expect(await recoverUnsaved()).toEqual(['as left, from another tab']);
    expect(await recoverUnsaved()).toEqual([]);
    expect(await names()).toEqual(['as left, from another tab', 'of the other tab']);
  });

  it('is nothing to keep when it was written after all, or newer work was', async () => {
    await saveReel(named('the same', T1));
    keepUnsaved(named('the same', T2), T0, 'me');
    expect(await recoverUnsaved()).toEqual([]);
    keepUnsaved(named('before', T1), T0, 'me');
    dropUnsaved('a', 'me');
    expect(await recoverUnsaved()).toEqual([]);
    expect(await names()).toEqual(['the same']);
  });

  it('waits while there is no room, and is what one sees meanwhile', async () => {
    await saveReel(named('as written', T0));
    keepUnsaved(named('as left', T1), T0, 'me');
    room.left = 0;
    expect(await recoverUnsaved()).toEqual([]);
    expect(await newestReel('a')).toMatchObject({
      reel: { name: 'as left' },
      stored: { name: 'as written' },
    });
    // Of two that go different ways, what is stored: the other waits for room beside it.
    room.left = Number.POSITIVE_INFINITY;
    await saveReel(named('of the other tab', T2));
    room.left = 0;
    expect(await newestReel('a')).toMatchObject({ reel: { name: 'of the other tab' } });
    room.left = Number.POSITIVE_INFINITY;
    expect(await recoverUnsaved()).toEqual(['as left, from another tab']);
  });

  it('is kept by each tab for itself, and none lets go of another’s', async () => {
    await saveReel(named('as written', T0));
    keepUnsaved(named('of one', T1), T0, 'one');
    keepUnsaved(named('of two', T2), T0, 'two');
    dropUnsaved('a', 'three');
    expect(await recoverUnsaved()).toEqual(['of two, from another tab']);
    expect(await names()).toEqual(['of one', 'of two, from another tab']);
  });

  it('waits while another tab has it', async () => {
    await saveReel(named('as written', T0));
    keepUnsaved(named('as left', T1), T0, 'me');
    const locks = (value: unknown) =>
      Object.defineProperty(globalThis.navigator, 'locks', { value, configurable: true });
    locks({ request: (_: string, __: object, work: (lock: null) => unknown) => work(null) });
    expect(await newestReel('a')).toMatchObject({ reel: { name: 'as written' } });
    locks(undefined);
    expect(await newestReel('a')).toMatchObject({ reel: { name: 'as left' } });
  });
});

describe('what was deleted', () => {
  const facts = { kind: 'picture', name: 'a.png', type: 'image/png', alpha: false } as const;
  const day = (n: number) => new Date(Date.UTC(2026, 5, n));

  it('stays for thirty days, several at once, and goes after that', async () => {
    for (const [i, id] of ['a', 'b', 'c'].entries()) {
      await saveReel(reel(id, '2026-06-05T10:00:00Z'));
      await removeToKeep('reel', id, id, day(1 + i));
    }
    expect((await listRemoved()).map((r) => r.id)).toEqual(['c', 'b', 'a']);
    await purgeOld(day(2 + DAYS_KEPT));
    expect((await listRemoved()).map((r) => r.id)).toEqual(['c', 'b']);
    for (const removed of await listRemoved()) await putBack(removed);
    expect((await listReels()).map((r) => r.id).sort()).toEqual(['b', 'c']);
  });

  it('makes room when there is no more, so that work is saved', async () => {
    await saveReel(reel('a', '2026-06-05T10:00:00Z'));
    await removeToKeep('reel', 'a', 'a', day(1));
    const put = held.delete.bind(held);
    room.left = 0;
    // What is deleted gives its room back.
    held.delete = (key: string) => {
      room.left += held.get(key)?.length ?? 0;
      return put(key);
    };
    await saveReel(reel('b', '2026-06-06T10:00:00Z'));
    held.delete = put;
    expect((await listReels()).map((r) => r.id)).toEqual(['b']);
    expect(await listRemoved()).toEqual([]);
  });

  it('is not put back without its bytes, and stays where it is', async () => {
    const record = await storeMedia(await inMemory(new TextEncoder().encode('abc')), facts);
    await removeMedia(record);
    held.delete(`bytes/${record.hash}/0`);
    await expect(putBack((await listRemoved())[0]!)).rejects.toThrow(/bytes of “a\.png” are gone/);
    expect(await listMedia()).toEqual([]);
    expect(await listRemoved()).toHaveLength(1);
  });

  it('that was added again meanwhile keeps its bytes', async () => {
    const bytes = await inMemory(new TextEncoder().encode('abc'));
    await removeMedia(await storeMedia(bytes, facts));
    const again = await storeMedia(bytes, facts);
    await purge(await listRemoved());
    expect(await readMedia(again.hash)).not.toBeNull();
  });

  it('a file that could not be taken off is still there', async () => {
    const record = await storeMedia(await inMemory(new TextEncoder().encode('abc')), facts);
    room.left = 0;
    await expect(removeMedia(record)).rejects.toThrow(StorageError);
    expect(await listMedia()).toEqual([record]);
  });
});

describe('several tabs', () => {
  const held1 = new Set<string>();
  const locks = {
    request: async (name: string, a: unknown, b?: unknown) => {
      const work = (b ?? a) as (lock: object | null) => unknown;
      if (held1.has(name)) return work(null);
      held1.add(name);
      try {
        return await work({});
      } finally {
        held1.delete(name);
      }
    },
  };
  beforeEach(() =>
    Object.defineProperty(globalThis.navigator, 'locks', { value: locks, configurable: true }),
  );
  afterEach(() => {
    held1.clear();
    Object.defineProperty(globalThis.navigator, 'locks', { value: undefined, configurable: true });
  });

  it('what another one is bringing in is left alone; what nobody is, goes', async () => {
    for (const hash of ['f00', 'f11']) {
      held.set(`coming/${hash}`, '1');
      held.set(`bytes/${hash}/0`, 'AAAA');
    }
    held1.add(importLock('f00'));
    await clearBrokenImports();
    expect([...held.keys()].sort()).toEqual(['bytes/f00/0', 'coming/f00']);
  });
});

describe('fonts', () => {
  it('one damaged record leaves the others as they are', async () => {
    held.set('font/odd', '{"half');
    const facts = { name: 'a.ttf', family: 'A', weight: 400, axes: {}, letters: 3 };
    const record = await storeFont(new Uint8Array([1, 2, 3]), facts);
    expect(await listFonts()).toEqual([record]);
  });
});

describe('steps of a reel', () => {
  it('are there again as long as the reel is as it was left', async () => {
    const first = reel('a', '2026-06-05T10:00:00Z');
    const second = { ...first, name: 'Second' };
    const history = change(startHistory(first), second);
    await keepHistory(history);
    const stored = { ...second, changed: '2026-06-06T10:00:00Z' };
    expect(undo(await readHistory(stored)).present).toEqual(first);
    expect((await readHistory({ ...stored, name: 'Third' })).past).toEqual([]);
  });

  it('are as many as there is room for, the last ones', async () => {
    let history = startHistory({ ...reel('a', ''), name: '0' });
    for (let n = 1; n < 100; n++) history = change(history, { ...history.present, name: String(n) });
    await keepHistory(history);
    const kept = await readHistory(history.present);
    expect(kept.past.map((r) => r.name)).toEqual(Array.from({ length: 40 }, (_, i) => String(59 + i)));
  });
});

describe('the first start', () => {
  it('puts in a brand and reels from templates of each use, once', async () => {
    const titles = async () => demoReels('').slice(0, 4);
    await startDemo(titles);
    expect(
      (await listReels()).map((r) => (r.kind === 'reel' ? r.summary.templates.join() : '')).sort(),
    ).toEqual(['Four corners', 'Freeze print', 'Gust sting', 'Name strap']);
    expect((await listBrands()).map((b) => b.name)).toEqual(['Thistledown Kite Weekend']);
    await removeToKeep('reel', 'demo-strap', 'Marit');
    await startDemo(titles);
    expect(await listReels()).toHaveLength(3);
  });

  it('a damaged brand is none, and stays where it is', async () => {
    held.set('brand/main', '{"format":"freshreel/brand","version":1}');
    expect(await listBrands()).toEqual([]);
    expect(held.has('brand/main')).toBe(true);
  });
});
