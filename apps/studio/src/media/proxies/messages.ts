/** What the page says to the worker that makes proxies. */
export interface ToProxies {
  /** Media ids of clips, in the order in which they are wanted. */
  readonly wanted: readonly string[];
  /** Something else needs the machine now. */
  readonly held: boolean;
}

/** What is being made, 0..1; nothing, when all is done. */
export interface FromProxies {
  readonly making: { readonly media: string; readonly part: number } | undefined;
}
