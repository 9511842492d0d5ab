/** WebAssembly's own names, of which the language's libraries for Node and browsers each hold their version. */
const { WebAssembly } = globalThis as unknown as {
  readonly WebAssembly: {
    instantiate(
      bytes: ArrayBuffer | Uint8Array,
      imports: object,
    ): Promise<{ readonly instance: { readonly exports: unknown } }>;
  };
};

/** The compiled kernel's functions; see assembly/kernel.ts. */
export interface Kernel {
  readonly memory: { readonly buffer: ArrayBuffer; grow(pages: number): number };
  /** Where free memory begins. */
  freeFrom(): number;
  toI420(from: number, width: number, height: number, to: number, bgra: boolean): void;
  takeAlpha(from: number, count: number, to: number): void;
  spreadColours(from: number, width: number, height: number, means: number): void;
  layStrokes(
    rows: number,
    count: number,
    width: number,
    top: number,
    height: number,
    sum: number,
    to: number,
  ): void;
}

const PAGE = 65536;
/** What lies in memory begins at multiples of this. */
export const ALIGNED = 16;

/** @param wasm the bytes of `@fresh-reel/pixels/kernel.wasm` */
export async function loadKernel(wasm: ArrayBuffer | Uint8Array): Promise<Kernel> {
  const { instance } = await WebAssembly.instantiate(wasm, {});
  return instance.exports as Kernel;
}

export const aligned = (at: number) => Math.ceil(at / ALIGNED) * ALIGNED;

/** Where a kernel's free memory begins. */
export const baseOf = (kernel: Kernel) => aligned(kernel.freeFrom());

/** Makes room up to a place in memory. Views of it from before are void then. */
export function growTo({ memory }: Kernel, end: number): void {
  const missing = end - memory.buffer.byteLength;
  if (missing > 0) memory.grow(Math.ceil(missing / PAGE));
}
