import type { ClipSource } from './clip';

/** Ten frames a second, for ten seconds; draws nothing, but tells what was read. */
function source(width: number, height: number) {
  const drawn: number[] = [];
  let open = true;
  let [stalled, broken] = [false, false];
  const clip: ClipSource = {
    facts: { width, height, duration: 10, sound: false },
    async *samples(from) {
      if (broken) throw new Error('These bytes are no clip.');
      if (stalled) await new Promise(() => undefined);
      for (let i = Math.max(0, Math.floor(from * 10 + 1e-9)); i < 100; i++) {
        yield { timestamp: i / 10, draw: () => drawn.push(i), close: () => undefined };
      }
    },
    dispose: () => {
      open = false;
    },
  };
  const stall = () => {
    stalled = true;
  };
  const fail = () => {
    broken = true;
  };
  return { clip, drawn, isOpen: () => open, stall, fail };
}

let mockOwn = source(1920, 1080);
let mockProxy: ReturnType<typeof source> | undefined;

jest.mock('./clipSource', () => ({
  openClip: async () => mockOwn.clip,
  openProxy: async () => mockProxy && { ...mockProxy.clip, side: 960 },
}));

import { ClipReader } from './clipReader';

class Canvas {
  constructor(
    readonly width: number,
    readonly height: number,
  ) {}
  getContext() {
    return { clearRect: () => undefined };
  }
}

beforeEach(() => {
  mockOwn = source(1920, 1080);
  mockProxy = source(960, 540);
  (globalThis as { OffscreenCanvas?: unknown }).OffscreenCanvas = Canvas;
});

describe('a clip with a proxy', () => {
  it('is read from it while a frame needs no more pixels, and from itself when it does', async () => {
    const reader = (await ClipReader.open('sha256:a', true))!;
    reader.keepTo(960, false);
    await reader.ready([1.2]);
    expect([mockOwn.drawn, mockProxy!.drawn]).toEqual([[], [12]]);
    // Facts are those of the clip.
    expect(reader.frame(1.2)).toMatchObject({ width: 1920, height: 1080, image: { width: 960 } });
    reader.keepTo(1600, false);
    expect(reader.has(1.2)).toBe(false);
    await reader.ready([1.2]);
    expect(mockOwn.drawn).toEqual([12]);
    expect(reader.frame(1.2)).toMatchObject({ image: { width: 1600 } });
    reader.keepTo(800, false);
    await reader.ready([1.3]);
    expect(mockProxy!.drawn).toEqual([12, 13]);
  });

  it('is read from itself where proxies are not asked for: in renders', async () => {
    const reader = (await ClipReader.open('sha256:a', false))!;
    reader.keepTo(320, false);
    await reader.ready([0.5]);
    expect([mockOwn.drawn, mockProxy!.drawn]).toEqual([[5], []]);
  });

  it('whose pixels become too few while it is decoded gives the frame of the clip', async () => {
    const reader = (await ClipReader.open('sha256:a', true))!;
    reader.keepTo(480, false);
    await reader.ready([0]);
    const coming = reader.ready([7]);
    reader.keepTo(1920, false);
    await coming;
    expect(reader.has(7)).toBe(true);
    expect(reader.frame(7)).toMatchObject({ image: { width: 1920 } });
    expect(mockOwn.drawn).toEqual([70]);
  });

  it('goes by in the proxy, and stands in the clip itself', async () => {
    const reader = (await ClipReader.open('sha256:a', true))!;
    reader.keepTo(1600, true);
    await reader.ready([4.1]);
    expect([reader.has(4.1), mockOwn.drawn, mockProxy!.drawn]).toEqual([true, [], [41]]);
    reader.keepTo(1600, false);
    expect(reader.has(4.1)).toBe(false);
    // Until the better one is there, the other stays.
    expect(reader.frame(4.1)).toBeDefined();
    await reader.ready([4.1]);
    expect(mockOwn.drawn).toEqual([41]);
    reader.keepTo(1600, true);
    await reader.ready([4.1]);
    expect([mockOwn.drawn, mockProxy!.drawn]).toEqual([[41], [41]]);
  });

  it('is not waited for when it is gone on from: the proxy’s frame comes at once', async () => {
    const reader = (await ClipReader.open('sha256:a', true))!;
    reader.keepTo(1600, true);
    await reader.ready([0]);
    mockOwn.stall();
    reader.keepTo(1600, false);
    const coming = reader.ready([5]);
    await new Promise((resolve) => setTimeout(resolve, 20));
    reader.keepTo(1600, true);
    await coming;
    expect(reader.has(5)).toBe(true);
    expect(mockProxy!.drawn).toEqual([0, 50]);
  });

  it('that does not read is none: the clip itself is read', async () => {
    mockProxy!.fail();
    const reader = (await ClipReader.open('sha256:a', true))!;
    reader.keepTo(800, true);
    await reader.ready([3]);
    expect([reader.has(3), mockOwn.drawn, mockProxy!.isOpen()]).toEqual([true, [30], false]);
    await reader.ready([3.1]);
    expect(mockOwn.drawn).toEqual([30, 31]);
  });

  it('comes and goes while the clip is open', async () => {
    const made = mockProxy!;
    mockProxy = undefined;
    const reader = (await ClipReader.open('sha256:a', true))!;
    reader.keepTo(640, false);
    await reader.ready([2]);
    expect(mockOwn.drawn).toEqual([20]);
    mockProxy = made;
    reader.findProxy();
    await reader.ready([3]);
    expect(made.drawn).toEqual([30]);
    mockProxy = undefined;
    reader.findProxy();
    await reader.ready([4]);
    expect(mockOwn.drawn).toEqual([20, 40]);
    expect(made.isOpen()).toBe(false);
    expect(mockOwn.isOpen()).toBe(true);
  });
});
