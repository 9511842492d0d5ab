export const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** The value below which a part of a list lies. */
export const percentile = (list: readonly number[], part: number): number =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * part))]!;

/** Milliseconds that something takes. */
export async function took(work: () => Promise<unknown>): Promise<number> {
  const begun = performance.now();
  await work();
  return performance.now() - begun;
}
