import { type Region, type Size, visiblePart } from '@fresh-reel/core';

const clamp = (v: number, low: number, high: number) => Math.min(high, Math.max(low, v));

/** Diameter of a tag, in pixels. */
const TAG = 24;

/**
 * Where each slot's tag stands: after its words or at the corner of its picture, one tag a slot, and none on another.
 */
export function placeTags(
  regions: readonly Region[],
  k: number,
  width: number,
  height: number,
): { slot: string; x: number; y: number }[] {
  const placed: { slot: string; x: number; y: number }[] = [];
  for (const { slot, quad, picture } of regions) {
    if (placed.some((p) => p.slot === slot)) continue;
    const xs = quad.map(([x]) => x * k);
    const ys = quad.map(([, y]) => y * k);
    // What is outside the picture has no tag on it.
    if (Math.max(...xs) < 0 || Math.min(...xs) > width || Math.max(...ys) < 0 || Math.min(...ys) > height)
      continue;
    const middle = (Math.min(...ys) + Math.max(...ys) - TAG) / 2;
    let x = clamp(picture ? Math.min(...xs) - 8 : Math.max(...xs) + 6, 3, width - TAG - 3);
    const y = clamp(picture ? Math.min(...ys) - 8 : middle, 3, height - TAG - 3);
    // Beside a tag that is in the way; each step goes past one, so this ends.
    const inTheWay = () => placed.find((p) => Math.abs(p.x - x) < TAG && Math.abs(p.y - y) < TAG - 6);
    for (let other = inTheWay(); other && other.x + 2 * TAG + 2 <= width; other = inTheWay())
      x = other.x + TAG + 2;
    placed.push({ slot, x, y });
  }
  return placed;
}

/** Focus after dragging a picture by parts of its slot's box: what is under the finger stays under it. */
export function draggedFocus(
  picture: Size,
  slot: Size,
  zoom: number,
  focus: readonly [number, number],
  dx: number,
  dy: number,
): [number, number] {
  const part = visiblePart(picture, slot, zoom, focus);
  const middle = [
    (part.x + part.width / 2) / picture.width,
    (part.y + part.height / 2) / picture.height,
  ] as const;
  const next = [
    middle[0] - (dx * part.width) / picture.width,
    middle[1] - (dy * part.height) / picture.height,
  ] as const;
  return [clamp(next[0], 0, 1), clamp(next[1], 0, 1)];
}
