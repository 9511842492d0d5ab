/** The value below which a part of a sorted list lies. */
export const at = (sorted: readonly number[], part: number) =>
  sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * part))]!;
