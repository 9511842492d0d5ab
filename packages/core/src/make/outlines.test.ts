import fc from 'fast-check';
import { addPoint, movePoint, writePoints } from '../edit/pathPoints';
import { project, unitSquareTo } from '../geometry/matrix';
import { templateOf } from '../testing/studio';
import {
  drawnOutline,
  fromPicture,
  onPicture,
  outlineThrough,
  pointFromPicture,
  pointOnPicture,
  pointsOfOutline,
  pointsOfPart,
} from './outlines';
import { partOf, putValue, valueIn } from './places';

const frame = { width: 1920, height: 1080 };
const shape = (outline: object) =>
  templateOf([{ id: 'sail', kind: 'shape', outline, size: [300, 200], fill: { colour: '#112233' } }])
    .layers[0]!;
const kite = shape({
  kind: 'path',
  data: 'M 50 0 L 100 40 C 90 80 70 100 50 100 L 0 40 Z',
  size: [100, 100],
});

/** Four corners of a plate somewhere in the picture, turned in space a little. */
const quads = fc
  .tuple(
    fc.double({ min: -200, max: 1500, noNaN: true }),
    fc.double({ min: -200, max: 900, noNaN: true }),
    fc.double({ min: 60, max: 700, noNaN: true }),
    fc.double({ min: 60, max: 500, noNaN: true }),
    fc.array(fc.double({ min: -0.2, max: 0.2, noNaN: true }), { minLength: 8, maxLength: 8 }),
  )
  .map(([x, y, w, h, off]) =>
    [
      [0, 0],
      [1, 0],
      [1, 1],
      [0, 1],
    ].map(([u, v], i) => [x + (u! + off[i * 2]!) * w, y + (v! + off[i * 2 + 1]!) * h] as const),
  );

it('the unit square goes to four corners, whichever they are', () => {
  fc.assert(
    fc.property(quads, (quad) => {
      const plane = unitSquareTo(quad);
      const corners = [
        [0, 0],
        [1, 0],
        [1, 1],
        [0, 1],
      ].map(([u, v]) => project(plane, u!, v!));
      for (const [i, [x, y]] of corners.entries()) {
        expect(x).toBeCloseTo(quad[i]![0], 6);
        expect(y).toBeCloseTo(quad[i]![1], 6);
      }
    }),
  );
});

describe('an outline that is drawn', () => {
  it('is a path of one stroke that nothing else gives', () => {
    expect(drawnOutline(kite)).toBeDefined();
    const ring = { kind: 'path', data: 'M 0 0 L 9 0 L 9 9 Z M 3 3 L 6 3 L 6 6 Z', size: [9, 9] };
    expect(drawnOutline(shape(ring))).toBeUndefined();
    expect(drawnOutline(shape({ kind: 'ellipse' }))).toBeUndefined();
  });

  it('lies on the picture as its part does, and comes back as it was', () => {
    const outline = drawnOutline(kite)!;
    const own = pointsOfOutline(outline);
    expect(writePoints(pointsOfOutline(outlineThrough(outline, own)))).toBe(writePoints(own));
    fc.assert(
      fc.property(quads, (quad) => {
        const there = onPicture(own, quad as never, frame);
        const back = fromPicture(there, quad as never, frame)!;
        for (const [i, { at }] of back.points.entries())
          for (const c of [0, 1] as const) expect(at[c]).toBeCloseTo(own.points[i]!.at[c], 6);
      }),
    );
  });

  it('a point that is moved on the picture moves in the part, and the others stay', () => {
    const quad = [
      [100, 100],
      [700, 100],
      [700, 500],
      [100, 500],
    ] as const;
    const outline = drawnOutline(kite)!;
    const there = onPicture(pointsOfOutline(outline), quad, frame);
    // The first point, at the middle of its upper edge, goes to the box's top left.
    const moved = movePoint(there, 0, [100 / frame.width, 100 / frame.height]);
    const next = outlineThrough(outline, fromPicture(moved, quad, frame)!);
    const [first, ...rest] = pointsOfOutline(next).points;
    expect(first!.at.map((v) => Math.round(v * 1000) / 1000)).toEqual([0, 0]);
    expect(rest.map((p) => p.at)).toEqual(
      pointsOfOutline(outline)
        .points.slice(1)
        .map((p) => p.at),
    );
    expect(addPoint(there, [0.3, 0.1]).path.points).toHaveLength(there.points.length + 1);
  });
});

describe('points of parts on the picture', () => {
  const light = { id: 'ray', kind: 'beam', from: [0, 0.5], to: [1, 0.5], colour: '#FFEEAA' };
  const pointer = {
    ...{ id: 'pointer', kind: 'shape', outline: { kind: 'leader', to: [0.2, 0.8] }, size: [300, 200] },
    fill: { colour: '#112233' },
  };
  const glow = {
    ...{ id: 'glow', kind: 'shape', outline: { kind: 'ellipse' }, size: [300, 200] },
    fill: {
      gradient: 'radial',
      stops: [
        [0, '#FFFFFF'],
        [1, '#000000'],
      ],
    },
  };
  const template = templateOf([light, pointer, glow]);

  it('are told with their names, and lead to their places in the part', () => {
    for (const [id, names] of [
      ['ray', ['Where the light begins', 'Where the light ends']],
      ['pointer', ['Where it points']],
      ['glow', ['Middle of the gradient']],
    ] as const) {
      const points = pointsOfPart(partOf(template, id));
      expect(points.map((p) => p.name)).toEqual(names);
      for (const { path, value } of points) {
        const place = { of: { layer: id }, path: [...path] };
        expect(valueIn(template, place)).toEqual(value);
        expect(valueIn(putValue(template, place, [0.25, 0.75]), place)).toEqual([0.25, 0.75]);
      }
    }
    // One that a control gives is the control's.
    const given = templateOf([{ ...light, to: { control: 'end' } }], {
      controls: [{ id: 'end', kind: 'point', name: 'End of the light', default: [0.5, 0.5] }],
    });
    expect(pointsOfPart(partOf(given, 'ray')).map((p) => p.name)).toEqual(['Where the light begins']);
  });

  it('go to the picture and back, whichever they are in parts of', () => {
    const at = fc.tuple(
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
    );
    fc.assert(
      fc.property(quads, at, (quad, value) => {
        for (const from of ['frame', 'box'] as const) {
          const there = pointOnPicture({ path: ['to'], name: '', of: from, value }, quad as never, frame);
          const back = pointFromPicture({ of: from }, there, quad as never, frame)!;
          expect(back[0]).toBeCloseTo(value[0], 3);
          expect(back[1]).toBeCloseTo(value[1], 3);
        }
      }),
    );
  });
});
