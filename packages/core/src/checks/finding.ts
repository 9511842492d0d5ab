import type { Notice } from '../layers/kind';

/** Something the user should know of a slot. */
export type Finding =
  | Notice
  | { readonly kind: 'outside-safe'; readonly slot: string }
  /** On a tall frame, words lie where players put what is theirs. */
  | { readonly kind: 'covered'; readonly slot: string }
  /** All words of a graphic take longer to read than they stand: seconds of both. */
  | {
      readonly kind: 'read-in-haste';
      readonly slot: '';
      readonly characters: number;
      readonly needs: number;
      readonly stands: number;
    }
  /** Nothing is seen for so many seconds, though the reel is not transparent. */
  | { readonly kind: 'gap'; readonly slot: ''; readonly seconds: number }
  /** A picture or clip is shown larger than it is: pixels of the frame for a hundred of its own. */
  | { readonly kind: 'enlarged'; readonly slot: ''; readonly percent: number }
  /** Words stand out too little from what is really beside them: contrast ratios, found and wanted. */
  | {
      readonly kind: 'contrast';
      readonly slot: string;
      readonly layer: string;
      /** Of the letters, in frame units. */
      readonly size: number;
      readonly ratio: number;
      readonly wanted: number;
      /** Whether black stands out from the letters more than white does. */
      readonly light: boolean;
    }
  /** A clip whose frames do not divide evenly into the reel's: frames a second, as it plays, and of the reel. */
  | { readonly kind: 'uneven'; readonly slot: ''; readonly plays: number; readonly reel: number }
  /** A sound breaks off while it is still heard. */
  | { readonly kind: 'cut-sound'; readonly slot: '' }
  /** More than three flashes within a second, over more than a quarter of the picture: see `FlashMeter`. */
  | { readonly kind: 'flashes'; readonly slot: '' }
  /** The programme's loudness, and the one that is wanted: LUFS. */
  | { readonly kind: 'loudness'; readonly slot: ''; readonly loudness: number; readonly wanted: number }
  /** The programme's highest true peak is too high: dBTP. */
  | { readonly kind: 'peaks'; readonly slot: ''; readonly peak: number }
  /** A clip is over before its item is: its last frame stays for so many seconds. */
  | { readonly kind: 'runs-out'; readonly slot: string; readonly seconds: number };

/** Something to look at before a render, and when it is seen: a time in frames of the graphic. */
export type Check = Finding & { readonly time: number };
