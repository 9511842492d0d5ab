import { type Brand, type Fill, freshPicture, newReel, type Reel } from '@fresh-reel/core';
import { assetOf, templateById } from '@fresh-reel/templates';
import { FIRST_BRAND, saveBrand } from './brand';
import { saveReel } from './reels';
import { store, write } from './store';

/** The brand of the festival that the demo is about. */
export const DEMO_BRAND: Brand = {
  format: 'freshreel/brand',
  version: 4,
  id: FIRST_BRAND,
  name: 'Thistledown Kite Weekend',
  colours: { main: '#C8431C', second: '#F2A541', dark: '#1E4D3B', light: '#FFF6E6' },
  logos: {
    main: freshPicture(assetOf('gust-sting', 'logo')),
    light: null,
    dark: null,
    small: freshPicture(assetOf('name-strap', 'badge')),
  },
  fonts: { heading: 'Bricolage Grotesque', text: 'Figtree' },
  lines: {
    line: 'Three days of wind above Marram',
    name: 'Thistledown Kite Weekend',
    handle: '@thistledownkites',
    address: 'The hill above Marram, by the old windmill',
  },
  sounds: { logo: { sound: assetOf('gust-sting', 'hit'), name: 'gust-hit.wav' }, music: null },
  templates: ['name-strap', 'gust-sting', 'mask-rise'],
};

/** Four reels of one title each, as a crew of two would have begun them. */
export function demoReels(now: string): Reel[] {
  const make = (id: string, name: string, template: string, slots: Fill['slots'], look: string): Reel =>
    newReel(templateById(template), { id, name, now, shape: 'wide', fill: { look, slots, controls: {} } });
  return [
    make(
      'demo-strap',
      'Marit, kite maker',
      'name-strap',
      { name: 'Marit Oyelaran', role: 'Kite maker, Thistledown Loft' },
      'paper',
    ),
    make(
      'demo-sting',
      'Weekend logo sting',
      'gust-sting',
      { line: 'Three days of wind above Marram' },
      'morning',
    ),
    make(
      'demo-opener',
      'Saturday opener',
      'four-corners',
      {
        'title-1': 'Hold the line',
        'title-2': 'Mind the gust',
        'title-3': 'Let it climb',
        'photo-2': freshPicture(assetOf('drift-wall', 'kites-crossing'), 'kites-crossing.mp4'),
        headline: 'Thistledown Kite Weekend',
      },
      'kite-red',
    ),
    make(
      'demo-freeze',
      'Kite of the day',
      'freeze-print',
      { caption: 'Kite of the day: Red Lantern' },
      'pine',
    ),
  ];
}

/**
 * Puts the demo in at the first start; later starts, and users who deleted it, are left alone.
 * @param films makes the reels that are cut from clips, which are needed then alone
 */
export async function startDemo(films: (now: string) => Promise<readonly Reel[]>): Promise<void> {
  if ((await store.getItem('started')) !== null) return;
  const now = new Date().toISOString();
  await saveBrand(DEMO_BRAND);
  for (const reel of [...demoReels(now), ...(await films(now))]) await saveReel(reel);
  await write({ started: now });
}
