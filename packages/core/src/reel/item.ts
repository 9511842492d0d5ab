import type { Check } from '../checks/finding';
import type { ControlValue } from '../documents/fill';
import type { ReelItem } from '../documents/item';
import type { EvaluatedFrame } from '../evaluate/graphicScene';
import type { FontNeeds } from '../evaluate/needs';
import type { FindSound, SoundPlay } from '../sound/play';
import type { Rate } from '../time/rate';

/**
 * What stands on a track of a reel, at the reel's frame shape and in a time of its own. A graphic is the first kind; a
 * reel asks no more of any.
 */
export interface Item {
  /** Told with everything that is said of it: regions, notices, checks. */
  readonly id: string;
  /** What its own time counts in. */
  readonly rate: Rate;
  /** Frames of its own rate, as seen. */
  readonly length: number;
  /** The moment that stands for it, in its own frames. */
  readonly still: number;
  /** Whether anything behind it shows through by design. */
  readonly transparent: boolean;
  /**
   * The frame at a time.
   * @param time its own frames from its beginning, fractional between them
   * @param lettersOf the text layer whose letters' places are wanted too
   * @param driven values of a graphic's controls that come from elsewhere at this moment
   * @param filmed the time whose frame clips show: what was filmed is blurred already, and shows one frame while the
   * shutter is open
   * @param beyond whether what a graphic paints beyond its frame is wanted too, since it is laid elsewhere
   */
  evaluate(
    time: number,
    lettersOf?: string,
    driven?: Readonly<Record<string, ControlValue>>,
    filmed?: number,
    beyond?: boolean,
  ): EvaluatedFrame;
  /** Pictures and clips it shows, by media id. */
  media(): string[];
  /** Every file it holds, shown or hidden: what has to go along with it. */
  held(): string[];
  /** Sounds it lets hear, by media id; clips with sound are among the media. */
  sounds(): string[];
  /** What is heard of it, in seconds from its beginning. */
  plays(sound: FindSound): SoundPlay[];
  fonts(): FontNeeds;
  /** What to look at before a render. */
  checks(): Check[];
}

/** Says which item of a reel something belongs to. */
export interface OfItem {
  readonly item: string;
}

/** An item of a reel, and the frames of the reel it takes: from one on, up to another that is not its own. */
export interface Placed {
  readonly item: Item;
  readonly document: ReelItem;
  /** Whether its track is seen, and whether it is heard. */
  readonly seen: boolean;
  readonly heard: boolean;
  readonly start: number;
  readonly end: number;
}
