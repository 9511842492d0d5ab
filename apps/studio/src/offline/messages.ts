/** From the page to the service worker. */
export type ToService =
  /** Takes the place of the version that runs. */
  | { readonly renew: true }
  /** Keeps what was fetched before there was a service worker, as far as it is the app's. */
  | { readonly keep: readonly string[] };
