import type { GraphicScene, Region } from '../evaluate/graphicScene';
import type { Notice, Size } from '../layers/kind';

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
  for (const slot of scene.template.slots) {
    const time = scene.timeOf(slot.moment);
    const frame = scene.evaluate(time);
    for (const notice of frame.notices) {
      const key = `${notice.kind}/${notice.slot}`;
      // A fault of a slot is shown where the slot is best seen.
      if (!found.has(key) || notice.slot === slot.id) found.set(key, { ...notice, time });
    }
    const unsafe = frame.regions.some((r) => r.slot === slot.id && leavesSafe(r, scene.frame));
    if (slot.kind === 'text' && unsafe)
      found.set(`outside-safe/${slot.id}`, { kind: 'outside-safe', slot: slot.id, time });
  }
  return [...found.values()];
}
