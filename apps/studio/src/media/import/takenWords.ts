/** That files were there already, in words. */
export function againText(names: readonly string[]): string | undefined {
  if (names.length === 0) return undefined;
  return names.length === 1
    ? `“${names[0]}” was on the Shelf already, so it is not kept twice.`
    : `${names.length} of them were on the Shelf already, so they are not kept twice.`;
}
