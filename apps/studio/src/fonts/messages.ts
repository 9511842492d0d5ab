/** To and from the worker that unpacks fonts: one file a worker. */
export interface ToUnpack {
  readonly bytes: Uint8Array;
}
export type FromUnpack = { readonly bytes: Uint8Array } | { readonly fault: string };
