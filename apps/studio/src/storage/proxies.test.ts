import { held, room } from '../testing/memoryStorage';

jest.mock('@react-native-async-storage/async-storage', () => jest.requireActual('../testing/memoryStorage'));

import { inMemory, inPieces } from './bytes';
import { listMedia, removeMedia, storeMedia } from './media';
import { clearBrokenProxies, dropProxies, readProxy, storeProxy } from './proxies';
import { listRemoved, purge } from './removed';
import { StorageError } from './store';

beforeEach(() => {
  held.clear();
  room.left = Number.POSITIVE_INFINITY;
});

const bytes = Uint8Array.from({ length: 2_000_000 }, (_, i) => (i * 31) % 256);
const keep = (hash: string) => storeProxy(hash, { size: bytes.length, side: 960 }, inPieces(bytes));
const bytesHeld = () => [...held.keys()].filter((k) => k.startsWith('bytes/proxy-'));

describe('proxies in storage', () => {
  it('are there with their bytes, and are none when a part of those is gone', async () => {
    await keep('one');
    expect(await readProxy('one')).toEqual({ size: 2_000_000, chunks: 3, side: 960 });
    expect(await readProxy('two')).toBeNull();
    held.delete('bytes/proxy-one/1');
    expect(await readProxy('one')).toBeNull();
  });

  it('go with their clip when that is deleted for good, not before', async () => {
    const clip = await storeMedia(await inMemory(Uint8Array.of(1, 2, 3)), {
      kind: 'clip',
      name: 'shot.mp4',
      type: 'video/mp4',
      alpha: false,
    });
    await keep(clip.hash);
    await removeMedia(clip);
    expect(await readProxy(clip.hash)).not.toBeNull();
    await purge(await listRemoved());
    expect([await readProxy(clip.hash), bytesHeld()]).toEqual([null, []]);
  });

  it('leave nothing behind when they cannot be kept, or were cut off', async () => {
    room.left = 1_500_000;
    await expect(keep('one')).rejects.toThrow(StorageError);
    expect(bytesHeld()).toEqual([]);
    room.left = Number.POSITIVE_INFINITY;
    await keep('two');
    held.set('bytes/proxy-three/0', 'AAAA');
    await clearBrokenProxies();
    expect(new Set(bytesHeld().map((k) => k.split('/')[1]))).toEqual(new Set(['proxy-two']));
  });

  it('make room for what the user brings, before anything that was deleted does', async () => {
    const old = await storeMedia(await inMemory(Uint8Array.of(9)), {
      kind: 'sound',
      name: 'old.wav',
      type: 'audio/wav',
      alpha: false,
    });
    await removeMedia(old);
    await keep('one');
    room.left = 1_000_000;
    await storeMedia(await inMemory(bytes.subarray(0, 900_000)), {
      kind: 'clip',
      name: 'new.mp4',
      type: 'video/mp4',
      alpha: false,
    });
    expect((await listMedia()).map((m) => m.name)).toEqual(['new.mp4']);
    expect(await listRemoved()).toHaveLength(1);
    expect(await dropProxies()).toBe(false);
  });
});
