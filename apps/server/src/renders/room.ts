/** Something that lies on a disk, and may go. */
export interface Kept {
  readonly bytes: number;
  /** When it was used last, in milliseconds since 1970. */
  readonly used: number;
  drop(): Promise<unknown>;
}

/**
 * Drops what nobody has used since a time, and then what was used longest ago, until no more bytes lie there than may.
 * @param since milliseconds since 1970
 * @returns bytes that stay, and how many things have gone
 */
export async function makeRoom(
  kept: readonly Kept[],
  most: number,
  since: number,
): Promise<{ bytes: number; dropped: number }> {
  let bytes = kept.reduce((sum, one) => sum + one.bytes, 0);
  let dropped = 0;
  for (const one of [...kept].sort((a, b) => a.used - b.used)) {
    if (bytes <= most && one.used >= since) break;
    await one.drop();
    bytes -= one.bytes;
    dropped++;
  }
  return { bytes, dropped };
}

/** Milliseconds since 1970, some days ago. */
export const daysAgo = (days: number): number => Date.now() - days * 24 * 3600 * 1000;
