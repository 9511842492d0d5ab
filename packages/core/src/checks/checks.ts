import type { GraphicScene, Region } from '../evaluate/graphicScene';
import type { Size } from '../geometry/rect';
import { isCovered } from './covered';
import type { Check } from './finding';
import { readInHaste } from './reading';

/**
 * Title-safe area: the middle 90% of width and height (SMPTE ST 2046-1, EBU R 95 for 16:9; used for every shape).
 * Action-safe area: the middle 93%.
 */
export const TITLE_SAFE = 0.05;
export const ACTION_SAFE = 0.035;

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
