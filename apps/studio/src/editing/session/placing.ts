import { type Region, type Size, visiblePart } from '@fresh-reel/core';

const clamp = (v: number, low: number, high: number) => Math.min(high, Math.max(low, v));

/** Diameter of a tag, in pixels. */
export const TAG = 24;
/** Between a tag and what it stands beside. */
const GAP = 6;
/** From the edge of the picture. */
const EDGE = 3;

interface Box {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

const boxOf = (quad: Region['quad'], k: number): Box => {
  const [xs, ys] = [quad.map(([x]) => x * k), quad.map(([, y]) => y * k)];
  return { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) };
};

/** Pixels two boxes share. */
const shared = (a: Box, b: Box): number =>
  Math.max(0, Math.min(a.right, b.right) - Math.max(a.left, b.left)) *
  Math.max(0, Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top));

/**
 * Where each slot's tag stands: beside its words, or at a corner of its picture. One tag a slot; none on another, and
 * none on any words while there is room elsewhere.
 */
export function placeTags(
  regions: readonly Region[],
  k: number,
  width: number,
  height: number,
): { slot: string; x: number; y: number }[] {
  const placed: { slot: string; x: number; y: number }[] = [];
  const words = regions.filter((r) => r.kind === 'text').map((r) => boxOf(r.quad, k));
  const at = (x: number, y: number): Box => ({ left: x, top: y, right: x + TAG, bottom: y + TAG });
  for (const { slot, quad, picture } of regions) {
    if (placed.some((p) => p.slot === slot)) continue;
    const own = boxOf(quad, k);
    // What is outside the picture has no tag on it.
    if (own.right < 0 || own.left > width || own.bottom < 0 || own.top > height) continue;
    const middle = { x: (own.left + own.right - TAG) / 2, y: (own.top + own.bottom - TAG) / 2 };
    const beside = [
      { x: own.right + GAP, y: middle.y },
      { x: own.left - GAP - TAG, y: middle.y },
      { x: middle.x, y: own.top - GAP - TAG },
      { x: middle.x, y: own.bottom + GAP },
    ];
    const corners = [
      { x: own.left - 8, y: own.top - 8 },
      { x: own.right - TAG + 8, y: own.top - 8 },
      { x: own.left - 8, y: own.bottom - TAG + 8 },
      { x: own.right - TAG + 8, y: own.bottom - TAG + 8 },
    ];
    const first = picture ? [...corners, ...beside] : [...beside, ...corners];
    // Beside those that are there already, where all of these are taken.
    const others = placed.flatMap((p) => [
      { x: p.x + TAG + 2, y: p.y },
      { x: p.x - TAG - 2, y: p.y },
      { x: p.x, y: p.y + TAG + 2 },
    ]);
    const places = [...first, ...others].map(({ x, y }) => ({
      x: clamp(x, EDGE, width - TAG - EDGE),
      y: clamp(y, EDGE, height - TAG - EDGE),
    }));
    const costs = places.map(({ x, y }, i) => {
      const tag = at(x, y);
      const tags = placed.reduce((sum, p) => sum + shared(tag, at(p.x, p.y)), 0);
      return tags * 1000 + words.reduce((sum, w) => sum + shared(tag, w), 0) + i * 1e-3;
    });
    const best = places[costs.indexOf(Math.min(...costs))]!;
    placed.push({ slot, ...best });
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

/** Whether a point lies within four corners. */
export function insideQuad(quad: Region['quad'], x: number, y: number): boolean {
  let odd = false;
  for (let i = 0, j = quad.length - 1; i < quad.length; j = i++) {
    const [xi, yi] = quad[i]!;
    const [xj, yj] = quad[j]!;
    if (yi > y !== yj > y && x < ((xj - xi) * (y - yi)) / (yj - yi) + xi) odd = !odd;
  }
  return odd;
}
