/** A file that a reel needs and that is not here. */
export interface Missing {
  readonly media: string;
  /** Name of the file it came as, where the reel knows it. */
  readonly name: string | undefined;
}

/** A file found for one that is missing: the very same, or one of its name. */
export interface Match<F> {
  readonly missing: Missing;
  readonly file: F;
}

/**
 * Finds missing files among many: by what is in them, whatever they are called now; and else by their name, since
 * pictures may be kept smaller than they came. Names are told apart without regard to case.
 */
export async function findMissing<F extends { readonly name: string }>(
  missing: readonly Missing[],
  files: readonly F[],
  hash: (file: F) => Promise<string>,
): Promise<Match<F>[]> {
  const wanted = new Map(missing.map((m) => [m.media, m]));
  const found: Match<F>[] = [];
  const match = (media: string, file: F) => {
    const m = wanted.get(media);
    if (!m) return;
    wanted.delete(media);
    found.push({ missing: m, file });
  };
  const byName = (file: F) =>
    [...wanted.values()].find((m) => m.name?.toLowerCase() === file.name.toLowerCase());
  // Files of the right name first: the others need not be read when these are all.
  const ordered = [...files].sort((a, b) => Number(!byName(a)) - Number(!byName(b)));
  for (const file of ordered) {
    if (wanted.size === 0) break;
    match(`sha256:${await hash(file)}`, file);
  }
  for (const file of ordered) {
    const named = byName(file);
    if (named) match(named.media, file);
  }
  return found;
}
