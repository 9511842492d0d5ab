import type { Finding } from '../checks/finding';
import { goesEvenly } from '../checks/pace';
import type { Reel } from '../documents/reel';
import type { TextChange } from '../layers/textStyle';
import { framesIn, OFFERED_RATES, type Rate, rateLabel } from '../time/rate';
import { changeItem } from './items';
import { EditError, endOf, trimItem } from './place';
import { changeText } from './reel';
import { setRate } from './setRate';

/** What takes a fault away in one touch: what it does, in a word or two, and the change. */
export interface Mend {
  readonly name: string;
  readonly change: (reel: Reel) => Reel;
}

/**
 * The mends of what was found of an item, the first the likeliest. None where there is none, where the template does
 * not let it, and where something else would have to move.
 */
export function mendsOf(reel: Reel, id: string, finding: Finding): Mend[] {
  switch (finding.kind) {
    case 'read-in-haste':
      return holdLonger(reel, id, Math.ceil(framesIn(finding.needs - finding.stands, reel.rate)));
    case 'contrast':
      return standOut(id, finding);
    case 'loudness':
      return [{ name: 'Change the level', change: (r) => louder(r, finding.wanted - finding.loudness) }];
    case 'peaks':
      return [{ name: 'Lower the level', change: (r) => louder(r, PEAK - finding.peak) }];
    case 'cut-sound':
      return [{ name: 'Fade it out', change: (r) => fadeSound(r, id) }];
    case 'uneven':
      return evenly(reel.rate, finding.plays);
    default:
      return [];
  }
}

function holdLonger(reel: Reel, id: string, more: number): Mend[] {
  const change = (r: Reel) => trimItem(r, id, 'end', endOf(r, id) + more);
  try {
    const grown = endOf(change(reel), id) - endOf(reel, id);
    return grown >= more ? [{ name: 'Hold longer', change }] : [];
  } catch (error) {
    if (error instanceof EditError) return [];
    throw error;
  }
}

/** The contrast from which on a shadow is enough: it is half as dense at the edge of the letters. */
const SHADOW_FROM = 2;

/** Something behind letters that stands out from them, in parts of their size. */
function standOut(
  id: string,
  { layer, size, light, ratio }: Finding & { readonly kind: 'contrast' },
): Mend[] {
  const colour = light ? '#10151C' : '#FBF7EE';
  const plate = { behind: 'line', margin: size * 0.22, corner: size * 0.08, fill: { colour } } as const;
  const outline = { paint: { colour }, width: Math.max(3, size * 0.12), side: 'outside' } as const;
  const shadow = { angle: 90, distance: size * 0.02, blur: size * 0.06, strength: 1, colour };
  const mend = (name: string, change: Partial<TextChange>): Mend => ({
    name,
    change: (r) => changeText(r, id, layer, change),
  });
  return [
    mend('Add a plate', { plates: [plate] }),
    mend('Add an outline', { outlines: [outline] }),
    ...(ratio >= SHADOW_FROM ? [mend('Add a shadow', { shadow })] : []),
  ];
}

/** Decibels below the highest peak there may be that a mend goes to: levels are rounded. */
const PEAK = -1.1;

/** All of it louder by so many decibels, to a tenth. */
function louder(reel: Reel, by: number): Reel {
  const level = Math.round(((reel.level ?? 0) + by) * 10) / 10;
  return { ...reel, level: Math.min(40, Math.max(-60, level)) };
}

/** Seconds over which a sound goes that broke off. */
const GOES = 0.5;

function fadeSound(reel: Reel, id: string): Reel {
  const soundOut = Math.round(framesIn(GOES, reel.rate));
  return changeItem(reel, id, (item) => (item.kind === 'sound' ? { ...item, soundOut } : item));
}

/** The nearest rate that a clip's frames go evenly into. */
function evenly(rate: Rate, plays: number): Mend[] {
  const off = (r: Rate) => Math.abs(r.num / r.den - rate.num / rate.den);
  const [best] = OFFERED_RATES.filter((r) => goesEvenly(plays, r.num / r.den)).sort(
    (a, b) => off(a) - off(b),
  );
  return best ? [{ name: `Make it ${rateLabel(best)} a second`, change: (r) => setRate(r, best) }] : [];
}
