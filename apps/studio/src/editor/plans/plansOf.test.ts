import { graphicsOf, newReel } from '@fresh-reel/core';
import { templateById } from '@fresh-reel/templates';
import { DEMO_BRAND } from '../../demo/brand';
import { plansOf } from './plansOf';

const reel = newReel(templateById('name-strap'), { id: 'r', name: 'Strap', now: '', shape: 'wide' });
const chosen = { format: 'mp4', side: 1080, extent: 'all', range: undefined, draft: false } as const;

describe('the files that a choice makes', () => {
  it('are one for each shape and each brand, named apart', () => {
    const other = {
      ...DEMO_BRAND,
      id: 'other',
      name: 'Other crew',
      colours: { ...DEMO_BRAND.colours, main: '#123456' },
    };
    const plans = plansOf(reel, { ...chosen, shapes: ['tall'], brands: [DEMO_BRAND, other] });
    const names = plans.map(({ plan }) => plan.fileName);
    expect(new Set(names).size).toBe(6);
    expect(names.filter((name) => name.toLowerCase().includes('other'))).toHaveLength(2);
    const controls = plans.map(({ reel: part }) => JSON.stringify(graphicsOf(part)[0]!.fill.controls));
    expect(controls.filter((c) => c.includes('#123456'))).toHaveLength(2);
    expect(controls.filter((c) => c.includes(DEMO_BRAND.colours.main))).toHaveLength(2);
    // As it is comes first, and is not changed.
    expect(graphicsOf(plans[0]!.reel)[0]!.fill).toEqual(graphicsOf(reel)[0]!.fill);
    expect(plans.map(({ reel: part }) => part.frame.height > part.frame.width)).toEqual([
      ...[false, true, false, true, false, true],
    ]);
  });
});
