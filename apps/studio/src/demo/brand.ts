import { type Brand, freshPicture } from '@fresh-reel/core';
import { sharedAsset } from '@fresh-reel/templates/files';
import { FIRST_BRAND } from '../storage/brand';

/** The brand of the festival that the demo is about. */
export const DEMO_BRAND: Brand = {
  format: 'freshreel/brand',
  version: 4,
  id: FIRST_BRAND,
  name: 'Thistledown Kite Weekend',
  colours: { main: '#C8431C', second: '#F2A541', dark: '#1E4D3B', light: '#FFF6E6' },
  logos: {
    main: freshPicture(sharedAsset('festival-logo.svg')),
    light: null,
    dark: null,
    small: freshPicture(sharedAsset('festival-badge.svg')),
  },
  fonts: { heading: 'Bricolage Grotesque', text: 'Figtree' },
  lines: {
    line: 'Three days of wind above Marram',
    name: 'Thistledown Kite Weekend',
    handle: '@thistledownkites',
    address: 'The hill above Marram, by the old windmill',
  },
  sounds: { logo: { sound: sharedAsset('hit.ogg'), name: 'gust-hit.wav' }, music: null },
  templates: ['name-strap', 'gust-sting', 'mask-rise'],
};
