import type { Reel } from '../documents/reel';
import { editList } from './editList';
import { subRipOf, webVttOf } from './subtitles';
import { timelineOf } from './timeline';
import type { ExchangeTerms } from './titles';

/** What other tools are told of a reel's titles: the text of a file of each kind, by its ending. */
export const EXCHANGES = {
  otio: (reel, terms) => `${JSON.stringify(timelineOf(reel, terms), undefined, 4)}\n`,
  edl: editList,
  vtt: webVttOf,
  srt: subRipOf,
} as const satisfies Record<string, (reel: Reel, terms: ExchangeTerms) => string>;

export type ExchangeKind = keyof typeof EXCHANGES;
export const EXCHANGE_KINDS = Object.keys(EXCHANGES) as ExchangeKind[];
