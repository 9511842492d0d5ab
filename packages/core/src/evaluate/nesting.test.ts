import type { NodeStudio } from '@fresh-reel/node-host';
import { allTemplates } from '@fresh-reel/templates';
import fc from 'fast-check';
import { EMPTY_FILL } from '../documents/fill';
import { sceneOf, templateOf, testStudio, textLayer, textSlot } from '../testing/studio';
import { DocumentError } from '../values/load';
import { MOST_LAYERS, PaintPass } from './paintPass';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const LINES = Array.from({ length: 60 }, (_, i) => `line ${i}`).join('\n');
const slots = [{ ...textSlot('t', LINES), manyLines: true }];

const shape = (id: string, more: object = {}) => ({
  ...{ id, kind: 'shape', outline: { kind: 'rectangle' }, size: [90, 60], ...more },
});
const FILL = { fill: { colour: '#FFFFFF' } };

/** Everything by which a layer comes more than once, or is gone into more than once. */
const WRAPS = {
  floor: { floor: { at: 0.8 } },
  trail: { afterimage: { length: 30, copies: 48 } },
  repeat: { repeat: { over: { lines: 't' } } },
  lens: { focus: { at: 900 }, order: 'depth' },
  stutter: { stutter: { amount: 0.5, every: 3 } },
  faint: { opacity: 0.5 },
  blurred: { effects: [{ effect: 'blur', radius: 3 }] },
  row: { row: { direction: 'column' } },
} as const;

const wrap = fc.constantFrom(...(Object.keys(WRAPS) as (keyof typeof WRAPS)[]));
const leaf = fc.constantFrom('nothing', 'shape', 'words', 'hugs', 'mattes');

let named = 0;
function leafOf(kind: string): object[] {
  const id = `l${named++}`;
  switch (kind) {
    case 'nothing':
      return [shape(id)];
    case 'words':
      return [textLayer(id, { slot: 't' })];
    case 'hugs':
      // Each hugs the two before it.
      return Array.from({ length: 12 }, (_, i) =>
        shape(
          `${id}-${i}`,
          i < 2 ? FILL : { ...FILL, hug: { layers: [`${id}-${i - 1}`, `${id}-${i - 2}`] } },
        ),
      );
    case 'mattes':
      return Array.from({ length: 12 }, (_, i) =>
        shape(`${id}-${i}`, i < 1 ? FILL : { ...FILL, matte: { layer: `${id}-${i - 1}` } }),
      );
    default:
      return [shape(id, FILL)];
  }
}

const nested = (wraps: readonly (keyof typeof WRAPS)[], inner: readonly string[]) =>
  wraps.reduce<object[]>(
    (layers, kind) => [{ id: `g${named++}`, kind: 'group', layers, ...WRAPS[kind] }],
    inner.flatMap(leafOf),
  );

/** How many layers a frame goes through. */
function layersOf(evaluate: () => unknown): number {
  const pass = PaintPass.prototype as unknown as { shown: (...of: unknown[]) => boolean };
  const { shown } = pass;
  let count = 0;
  pass.shown = function (...of) {
    count++;
    return shown.apply(this, of);
  };
  try {
    evaluate();
  } finally {
    pass.shown = shown;
  }
  return count;
}

it('however parts are nested, a frame goes through no more of them than it may hold, and tells what is left out', () => {
  let full = 0;
  fc.assert(
    fc.property(
      fc.array(wrap, { minLength: 1, maxLength: 14 }),
      fc.array(leaf, { minLength: 1, maxLength: 3 }),
      fc.integer({ min: 0, max: 200 }),
      (wraps, inner, time) => {
        let scene: ReturnType<typeof sceneOf>;
        try {
          scene = sceneOf(studio, templateOf(nested(wraps, inner), { slots }));
        } catch (error) {
          return error instanceof DocumentError;
        }
        let frame = scene.evaluate(time);
        const through = layersOf(() => {
          frame = scene.evaluate(time);
        });
        const told = frame.notices.some((n) => n.kind === 'too-much');
        full += told ? 1 : 0;
        return through <= MOST_LAYERS && frame.ops.length <= 100_000;
      },
    ),
    { numRuns: 60 },
  );
  expect(full).toBeGreaterThan(5);
});

it.each(['floor', 'trail', 'repeat'] as const)(
  'eighteen of a %s of nothing are not all gone into',
  (kind) => {
    const scene = sceneOf(studio, templateOf(nested(Array(18).fill(kind), ['nothing']), { slots }));
    let notices: readonly { readonly kind: string }[] = [];
    const through = layersOf(() => {
      ({ notices } = scene.evaluate(20));
    });
    expect(through).toBeLessThanOrEqual(MOST_LAYERS);
    expect(notices).toContainEqual({ kind: 'too-much', slot: '' });
  },
);

it('no template of the collection comes near to what a frame may hold', () => {
  for (const template of allTemplates()) {
    const scene = sceneOf(studio, template, EMPTY_FILL);
    expect(layersOf(() => scene.evaluate(scene.length / 2))).toBeLessThan(MOST_LAYERS / 10);
  }
});
