import { crewSize, PaintCrew, type Painter, STRETCH } from './paintCrew';
import type { FromPaint, PaintedFrame, PaintJob, ToPaint } from './paintMessages';

const JOB = {} as PaintJob;

/** A painter that answers when it is told to, in stretches as they were asked for. */
class SlowPainter implements Painter {
  onmessage: ((event: MessageEvent<FromPaint>) => void) | null = null;
  readonly asked: number[] = [];
  readonly back: ArrayBuffer[] = [];
  private readonly open: number[] = [];

  postMessage(message: ToPaint): void {
    if (message.type === 'back') this.back.push(message.pixels);
    if (message.type !== 'paint') return;
    for (let i = 0; i < message.count; i++) {
      this.asked.push(message.first + i);
      this.open.push(message.first + i);
    }
  }

  /** Paints one frame, if any is asked for. */
  paint(frame: (index: number) => PaintedFrame): void {
    const index = this.open.shift();
    if (index !== undefined) this.tell({ type: 'painted', index, frame: frame(index) });
  }

  tell(data: FromPaint): void {
    this.onmessage?.({ data } as MessageEvent<FromPaint>);
  }
}

const numbered = (index: number) => Uint8Array.of(index).buffer;
const numberOf = (frame: PaintedFrame) => new Uint8Array(frame as ArrayBuffer)[0];
const crew = (count: number, painters: SlowPainter[]) => new PaintCrew(JOB, count, painters);

describe('painters that share a render', () => {
  it('give frames in order, whoever is faster', async () => {
    const [quick, slow] = [new SlowPainter(), new SlowPainter()];
    const shared = crew(30, [slow, quick]);
    const taken: (number | undefined)[] = [];
    const all = (async () => {
      for (let i = 0; i < 30; i++) taken.push(numberOf(await shared.take()));
    })();
    for (let turn = 0; taken.length < 30 && turn < 500; turn++) {
      if (turn % 5 === 0) slow.paint(numbered);
      quick.paint(numbered);
      await Promise.resolve();
      await Promise.resolve();
    }
    await all;
    expect(taken).toEqual(Array.from({ length: 30 }, (_, i) => i));
    expect(quick.asked.length).toBeGreaterThan(slow.asked.length);
  });

  it('run no farther ahead than two stretches each', () => {
    const painters = [new SlowPainter(), new SlowPainter()];
    crew(1000, painters);
    for (let i = 0; i < 200; i++) for (const p of painters) p.paint(numbered);
    // Nothing was waited for, so one is enough.
    expect(Math.max(...painters.flatMap((p) => p.asked)) + 1).toBe(2 * STRETCH);
    expect(painters[1]!.asked).toEqual([]);
  });

  it('are joined by others when frames have to be waited for', async () => {
    const painters = [new SlowPainter(), new SlowPainter(), new SlowPainter()];
    const shared = crew(200, painters);
    for (let i = 0; i < 60; i++) {
      const frame = shared.take();
      for (let turn = 0; turn < 40; turn++) for (const p of painters) p.paint(numbered);
      expect(numberOf(await frame)).toBe(i);
      if (i === 0) expect(painters[1]!.asked).toEqual([]);
    }
    const patient = [new SlowPainter(), new SlowPainter()];
    const hungry = crew(200, patient);
    for (let i = 0; i < 40; i++) {
      const frame = hungry.take();
      await Promise.resolve();
      // Just one frame at a time: the next has always to be waited for.
      for (const p of patient) p.paint(numbered);
      expect(numberOf(await frame)).toBe(i);
    }
    expect(patient[1]!.asked.length).toBeGreaterThan(0);
  });

  it('give the frame before once more where nothing changed, and get its pixels back when it is over', async () => {
    const painter = new SlowPainter();
    const shared = crew(3, [painter]);
    const pixels = [numbered(0), undefined, numbered(2)];
    for (let i = 0; i < 3; i++) painter.paint((index) => pixels[index]);
    expect([await shared.take(), await shared.take()]).toEqual([pixels[0], pixels[0]]);
    expect(painter.back).toEqual([]);
    expect(await shared.take()).toBe(pixels[2]);
    expect(painter.back).toEqual([pixels[0]]);
  });

  it('close a frame of a film once another comes after it', async () => {
    const painter = new SlowPainter();
    const shared = crew(3, [painter]);
    const frame = () => ({ close: jest.fn() }) as unknown as VideoFrame;
    const frames = [frame(), undefined, frame()];
    for (let i = 0; i < 3; i++) painter.paint((index) => frames[index]);
    expect([await shared.take(), await shared.take()]).toEqual([frames[0], frames[0]]);
    expect(frames[0]!.close).not.toHaveBeenCalled();
    await shared.take();
    expect(frames[0]!.close).toHaveBeenCalledTimes(1);
    expect(frames[2]!.close).not.toHaveBeenCalled();
  });

  it('are asked for the next stretch before they are through with one', () => {
    const painter = new SlowPainter();
    crew(100, [painter]);
    for (let i = 0; i < STRETCH - 1; i++) painter.paint(numbered);
    expect(painter.asked).toHaveLength(2 * STRETCH);
  });

  it('tell a fault at once, and to all that is asked after', async () => {
    const painter = new SlowPainter();
    const shared = crew(3, [painter]);
    const first = shared.take();
    painter.tell({ type: 'fault', message: 'The font Anton could not be loaded (404).' });
    await expect(first).rejects.toThrow('Anton');
    await expect(shared.take()).rejects.toThrow('Anton');
  });

  it('are as many as there are cores, and no more than there is to do', () => {
    expect([crewSize(300, 2), crewSize(1, 4), crewSize(300, 64), crewSize(300, 0)]).toEqual([2, 1, 8, 1]);
  });
});
