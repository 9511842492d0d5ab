import { createNodeSurface, type NodeStudio, pngOf } from '@fresh-reel/node-host';
import { templateById } from '@fresh-reel/templates';
import { EMPTY_FILL, freshPicture, type SlotFill } from '../documents/fill';
import { sceneOf, testStudio } from '../testing/studio';
import { readsRightToLeft } from '../text/scripts';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
  await studio.addPicture('sha256:badge', await pngOf(createNodeSurface(40, 40)));
});

it.each([
  ['مهرجان', true],
  ['12 – עפיפון', true],
  ['🪁 Kite مهرجان', false],
  ['123', false],
  ['', false],
] as const)('%s reads from right to left: %s', (text, expected) => {
  expect(readsRightToLeft(text)).toBe(expected);
});

describe('words from right to left turn the layout round', () => {
  const placed = (id: string, slots: Record<string, SlotFill>) => {
    const scene = sceneOf(studio, templateById(id), { ...EMPTY_FILL, slots });
    const { regions } = scene.evaluate(scene.length / 2);
    return (slot: string) => {
      const [[left], [right]] = regions.find((r) => r.slot === slot)!.quad as [
        [number, number],
        [number, number],
      ];
      return { left, right };
    };
  };

  it('the badge of a strap stands where reading begins, and the lines begin there', () => {
    const badge = freshPicture('sha256:badge');
    const latin = placed('name-strap', { badge, name: 'Ida', role: 'Kite maker from the hill' });
    expect(latin('badge').right).toBeLessThan(latin('name').left);
    expect(latin('name').left).toBeCloseTo(latin('role').left, 0);
    const hebrew = placed('name-strap', { badge, name: 'עידה', role: 'בונה עפיפונים מן הגבעה' });
    expect(hebrew('badge').left).toBeGreaterThan(hebrew('name').right);
    expect(hebrew('name').right).toBeCloseTo(hebrew('role').right, 0);
  });

  it('a quote stands on the other side of its page', () => {
    const [latin, arabic] = [
      placed('quote-card', { quote: 'The wind reads it', who: 'Ida' }),
      placed('quote-card', { quote: 'الريح تقرأها', who: 'عايدة' }),
    ];
    expect(latin('quote').left).toBeLessThan(960);
    expect(arabic('quote').right).toBeGreaterThan(960);
    expect(1920 - arabic('quote').right).toBeCloseTo(latin('quote').left, 0);
  });
});
