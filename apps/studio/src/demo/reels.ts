import { type Fill, freshPicture, newReel, type Reel } from '@fresh-reel/core';
import { templateById } from '@fresh-reel/templates';
import { sharedAsset } from '@fresh-reel/templates/files';
import { demoFilm, demoHook } from './film';

/** Four reels of one title each, as a crew of two would have begun them. */
function titleReels(now: string): Reel[] {
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
        'photo-2': freshPicture(sharedAsset('kites-crossing.mp4'), 'kites-crossing.mp4'),
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
 * The reels of the demo: four of one title each, a tall hook, and a film of two minutes. They are made when the app is
 * built (`scripts/build/templates.ts`), so that it need not bring what makes them.
 */
export const demoReels = (now: string): Reel[] => [...titleReels(now), demoHook(now), demoFilm(now)];
