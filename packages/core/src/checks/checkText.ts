import type { Finding } from './finding';

/**
 * A notice or check in words: what is so, and what to do. `watch` is wrong until somebody has looked at it; `info` is
 * only told.
 */
export function checkText(check: Finding): { kind: 'info' | 'watch'; text: string } {
  switch (check.kind) {
    case 'shrunk':
      return { kind: 'info', text: `Your words are longer than their place. Shrunk to ${check.percent}%.` };
    case 'cut':
      return {
        kind: 'watch',
        text: `These words do not fit and are cut: “${shorten(check.words)}”. Use fewer words.`,
      };
    case 'missing-font':
      return {
        kind: 'watch',
        text: `The font ${check.family} is not here, so these words are set in another. Add it on the Shelf.`,
      };
    case 'missing-letters':
      return { kind: 'watch', text: `No font here has these letters: ${check.letters}` };
    case 'missing-picture':
      return {
        kind: 'watch',
        text: check.slot
          ? 'The picture for this slot is missing. Choose it again, or render without it.'
          : 'This file is missing. Find it above, or take it out.',
      };
    case 'too-much':
      return {
        kind: 'watch',
        text: 'There is more in this graphic than a frame can hold, so parts of it are left out. Use fewer words.',
      };
    case 'newer-part':
      return {
        kind: 'watch',
        text: check.stands
          ? `“${check.part}” was made by a newer Fresh Reel. What its maker put in its place shows instead.`
          : `“${check.part}” was made by a newer Fresh Reel and does not show. Open it there, or render without it.`,
      };
    case 'no-place':
      return {
        kind: 'watch',
        text: `These lines have no place, so they are not on the map: ${check.words}. Write them as Name | number | number.`,
      };
    case 'short-path':
      return {
        kind: 'watch',
        text: 'The path for these words has only one point, so they stand straight at it. Add a point.',
      };
    case 'runs-out':
      return {
        kind: 'watch',
        text: `It is over ${check.seconds.toFixed(1)} s before its place on the line is: its last frame stays. Make it shorter or slower, or let it begin again.`,
      };
    case 'read-in-haste':
      return {
        kind: 'watch',
        text: `There are ${check.characters} characters to read, which takes about ${check.needs.toFixed(1)} s. They stand for ${check.stands.toFixed(1)} s.`,
      };
    case 'covered':
      return {
        kind: 'info',
        text: 'On a tall screen, players put their own buttons and captions over this place.',
      };
    case 'gap':
      return {
        kind: 'watch',
        text: `Nothing shows for ${check.seconds.toFixed(2)} s: it will be black.`,
      };
    case 'enlarged':
      return {
        kind: 'watch',
        text: `It shows at ${check.percent}% of its own pixels, so it will look soft.`,
      };
    case 'contrast':
      return {
        kind: 'watch',
        text: `These words stand out too little from what is behind them: ${check.ratio.toFixed(1)} to 1, and ${check.wanted} to 1 is wanted (WCAG 2.2). Put something behind them, or change their colour.`,
      };
    case 'uneven':
      return {
        kind: 'watch',
        text: `Its ${rateOf(check.plays)} frames a second do not go evenly into the reel’s ${rateOf(check.reel)}: what moves in it will stutter.`,
      };
    case 'cut-sound':
      return { kind: 'watch', text: 'This sound breaks off while it is still heard.' };
    case 'flashes':
      return {
        kind: 'watch',
        text: 'It flashes more than three times within a second, which may harm people with photosensitive epilepsy (ITU-R BT.1702). Make it slower, or softer.',
      };
    case 'loudness':
      return {
        kind: 'watch',
        text: `It is ${check.loudness.toFixed(1)} LUFS loud, and ${check.wanted} is wanted. Change its levels by ${signed(check.wanted - check.loudness)} dB.`,
      };
    case 'peaks':
      return {
        kind: 'watch',
        text: `It peaks at ${check.peak.toFixed(1)} dBTP; more than -1 may be distorted (EBU R 128). Lower its levels.`,
      };
    case 'outside-safe':
      return {
        kind: 'watch',
        text: 'These words reach outside the safe area. Some screens may cut them off.',
      };
  }
}

const rateOf = (rate: number) => String(Math.round(rate * 100) / 100);
const signed = (value: number) => `${value < 0 ? '' : '+'}${value.toFixed(1)}`;

function shorten(words: string): string {
  return words.length > 60 ? `${words.slice(0, 57)}…` : words;
}
