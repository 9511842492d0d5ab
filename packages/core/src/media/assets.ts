/**
 * Where media lies that is no user's, by media id: the app's own templates are one source, and whoever makes an engine
 * hands in those it has.
 */
export interface AssetSource {
  /** The place of a file, in the source's own terms (a path, an address), or nothing when it is not there. */
  find(media: string): string | undefined;
}
