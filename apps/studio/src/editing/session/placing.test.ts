import { draggedFocus, placeTags } from './placing';

describe('a picture dragged in its frame', () => {
  const picture = { width: 2000, height: 1000 };
  const slot = { width: 100, height: 100 };

  it('goes with the finger: right moves what is in view to the left', () => {
    // A square slot shows half the width at zoom 1; a drag by the slot's width is half the picture.
    expect(draggedFocus(picture, slot, 1, [0.5, 0.5], 0.2, 0)).toEqual([0.4, 0.5]);
  });

  it('starts from what is seen, not from a focus beyond the edge', () => {
    const [x] = draggedFocus(picture, slot, 1, [0, 0.5], -0.2, 0);
    expect(x).toBeCloseTo(0.25 + 0.1, 9);
  });

  it('stays within the picture', () => {
    expect(draggedFocus(picture, slot, 4, [0.5, 0.5], 100, -100)).toEqual([0, 1]);
  });
});

describe('tags on the picture', () => {
  const quad = (x: number, y: number, w: number, h: number) =>
    [
      [x, y],
      [x + w, y],
      [x + w, y + h],
      [x, y + h],
    ] as const;
  const region = (slot: string, q: ReturnType<typeof quad>, picture = false) => ({
    slot,
    kind: 'text' as const,
    layer: slot,
    quad: q,
    box: { width: 1, height: 1 },
    unit: [1, 0, 0, 1] as const,
    opacity: 1,
    ...(picture ? { picture: { width: 1, height: 1 } } : {}),
  });

  it('one a slot, in the frame, none on another', () => {
    const tags = placeTags(
      [
        region('a', quad(10, 10, 60, 10)),
        region('b', quad(10, 18, 60, 10)),
        region('a', quad(200, 200, 10, 10)),
        region('c', quad(-50, -50, 500, 500), true),
      ],
      1,
      300,
      300,
    );
    expect(tags.map((t) => t.slot)).toEqual(['a', 'b', 'c']);
    expect(Math.abs(tags[0]!.x - tags[1]!.x)).toBeGreaterThanOrEqual(24);
    for (const t of tags) {
      expect(t.x).toBeGreaterThanOrEqual(0);
      expect(t.x).toBeLessThanOrEqual(300 - 24);
    }
  });
});

describe('tags and words', () => {
  const words = (slot: string, x: number, y: number, w: number, h: number) => ({
    slot,
    kind: 'text' as const,
    layer: slot,
    quad: [
      [x, y],
      [x + w, y],
      [x + w, y + h],
      [x, y + h],
    ] as const,
    box: { width: 1, height: 1 },
    unit: [1, 0, 0, 1] as const,
    opacity: 1,
  });

  it('no tag lies on letters while there is room elsewhere', () => {
    // A headline as wide as the picture, and a line below it.
    const regions = [words('a', 4, 80, 292, 40), words('b', 60, 130, 180, 20)];
    const tags = placeTags(regions, 1, 300, 200);
    for (const { x, y } of tags)
      for (const [left, top, right, bottom] of [
        [4, 80, 296, 120],
        [60, 130, 240, 150],
      ] as const) {
        const wide = Math.min(x + 24, right) - Math.max(x, left);
        const high = Math.min(y + 24, bottom) - Math.max(y, top);
        expect(wide > 0 && high > 0).toBe(false);
      }
  });
});
