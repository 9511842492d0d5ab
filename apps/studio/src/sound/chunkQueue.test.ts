import fc from 'fast-check';
import { ChunkQueue } from './chunkQueue';

const planes = (from: number, count: number) => {
  const plane = Float32Array.from({ length: count }, (_, i) => from + i + 1);
  return [plane, plane.map((v) => -v)] as const;
};
const heard = (queue: ChunkQueue, from: number, count: number) => {
  const out = [new Float32Array(count), new Float32Array(count)] as const;
  queue.read(from, out);
  return [...out[0]];
};

describe('sound that waits to be heard', () => {
  it('is heard whole, however it is cut', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 50 }), { minLength: 1, maxLength: 8 }),
        fc.integer({ min: 1, max: 40 }),
        (lengths, step) => {
          const queue = new ChunkQueue();
          let first = 0;
          for (const length of lengths) {
            queue.put({ first, planes: planes(first, length) });
            first += length;
          }
          for (let from = 0; from < first; from += step)
            for (const [i, v] of heard(queue, from, step).entries())
              expect(v).toBe(from + i < first ? from + i + 1 : 0);
        },
      ),
    );
  });

  it('has a hole where a block is late, and goes on in its place', () => {
    const queue = new ChunkQueue();
    queue.put({ first: 0, planes: planes(0, 4) });
    expect(heard(queue, 2, 4)).toEqual([3, 4, 0, 0]);
    queue.put({ first: 4, planes: planes(4, 4) });
    expect(heard(queue, 6, 4)).toEqual([7, 8, 0, 0]);
  });

  it('is silent when it was cleared', () => {
    const queue = new ChunkQueue();
    queue.put({ first: 0, planes: planes(0, 4) });
    queue.clear();
    expect(heard(queue, 0, 4)).toEqual([0, 0, 0, 0]);
  });
});
