import { at } from '../page/figures';

/** The value below which a part of a list lies. */
export const percentile = (list: readonly number[], part: number): number =>
  at(
    list.toSorted((a, b) => a - b),
    part,
  );

/** Milliseconds that something takes. */
export async function took(work: () => Promise<unknown>): Promise<number> {
  const begun = performance.now();
  await work();
  return performance.now() - begun;
}
