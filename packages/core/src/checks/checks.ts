import type { GraphicScene, Region } from '../evaluate/graphicScene';
import type { Notice, Size } from '../layers/kind';
import { isCovered } from './covered';
import { readInHaste } from './reading';

/**
 * Title-safe area: the middle 90% of width and height (SMPTE ST 2046-1, EBU R 95 for 16:9; used for every shape).
 * Action-safe area: the middle 93%.
 */
export const TITLE_SAFE = 0.05;
export const ACTION_SAFE = 0.035;

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

/** Whether a slot's box leaves the title-safe area, by more than a unit. */
function leavesSafe(region: Region, frame: Size): boolean {
  const [mx, my] = [frame.width * TITLE_SAFE - 1, frame.height * TITLE_SAFE - 1];
  return region.quad.some(([x, y]) => x < mx || y < my || x > frame.width - mx || y > frame.height - my);
}

/** Looks at every slot at the moment it is best seen. */
export function checkGraphic(scene: GraphicScene): Check[] {
  const found = new Map<string, Check>();
  const shown: string[] = [];
  for (const slot of scene.template.slots) {
    const time = scene.timeOf(slot.moment);
    const frame = scene.evaluate(time);
    for (const notice of frame.notices) {
      const key = `${notice.kind}/${notice.slot}`;
      // A fault of a slot is shown where the slot is best seen.
      if (!found.has(key) || notice.slot === slot.id) found.set(key, { ...notice, time });
    }
    if (slot.kind !== 'text') continue;
    const regions = frame.regions.filter((r) => r.slot === slot.id);
    if (regions.length > 0) shown.push(slot.id);
    if (regions.some((r) => leavesSafe(r, scene.frame)))
      found.set(`outside-safe/${slot.id}`, { kind: 'outside-safe', slot: slot.id, time });
    else if (regions.some((r) => isCovered(r, scene.frame)))
      found.set(`covered/${slot.id}`, { kind: 'covered', slot: slot.id, time });
  }
  const haste = readInHaste(scene, shown);
  return [...found.values(), ...(haste ? [haste] : [])];
}
