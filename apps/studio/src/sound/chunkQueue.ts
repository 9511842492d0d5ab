/** A block of the mix, from a sample frame of its run on. */
export interface Chunk {
  readonly first: number;
  readonly planes: readonly [Float32Array, Float32Array];
}

/**
 * Blocks of sound that wait to be heard. What is asked for and not here is silent, and what comes too late is dropped:
 * the sound may have a hole, but it is never behind.
 */
export class ChunkQueue {
  private chunks: Chunk[] = [];

  /** Adds a block; blocks come in order. */
  put(chunk: Chunk): void {
    this.chunks.push(chunk);
  }

  clear(): void {
    this.chunks = [];
  }

  /** Fills two planes with what is heard from a sample frame on. */
  read(from: number, out: readonly [Float32Array, Float32Array]): void {
    const count = out[0].length;
    for (const plane of out) plane.fill(0);
    while (this.chunks[0] && endOf(this.chunks[0]) <= from) this.chunks.shift();
    for (const chunk of this.chunks) {
      const [start, end] = [Math.max(from, chunk.first), Math.min(from + count, endOf(chunk))];
      if (chunk.first >= from + count) break;
      for (const c of [0, 1] as const)
        out[c].set(chunk.planes[c].subarray(start - chunk.first, end - chunk.first), start - from);
    }
  }
}

const endOf = ({ first, planes }: Chunk) => first + planes[0].length;
