/** From the page to a worker that looks for places worth a marker: in which part of a file, in seconds. */
export interface ToSuggest {
  readonly what: 'cut' | 'beat';
  readonly media: string;
  readonly from: number;
  readonly to: number;
}

/** From that worker to the page. */
export type FromSuggest =
  | { readonly type: 'part'; readonly part: number }
  | { readonly type: 'found'; readonly seconds: readonly number[] }
  | { readonly type: 'fault'; readonly message: string };
