/** Something that lies on a disk, and may go. */
export interface Kept {
  readonly bytes: number;
  /** When it was used last, in milliseconds since 1970. */
  readonly used: number;
  /** Days after which it goes when nobody uses it. */
  readonly days: number;
  drop(): Promise<unknown>;
}

const DAY = 24 * 3_600_000;

/**
 * Drops what nobody has used for long, and then what was used longest ago, until no more bytes lie there than may.
 * @returns bytes that stay, and how many things have gone
 */
export async function makeRoom(
  kept: readonly Kept[],
  most: number,
): Promise<{ bytes: number; dropped: number }> {
  const now = Date.now();
  const isOld = ({ used, days }: Kept) => used < now - days * DAY;
  const inOrder = [...kept].sort((a, b) => Number(isOld(b)) - Number(isOld(a)) || a.used - b.used);
  let bytes = kept.reduce((sum, one) => sum + one.bytes, 0);
  let dropped = 0;
  for (const one of inOrder) {
    if (!isOld(one) && bytes <= most) break;
    await one.drop();
    bytes -= one.bytes;
    dropped++;
  }
  return { bytes, dropped };
}
