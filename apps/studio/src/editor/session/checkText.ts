import type { Finding } from '@fresh-reel/core';

/** A notice or check in words: what is so, and what to do. */
export function checkText(check: Finding): { kind: 'info' | 'watch' | 'fault'; text: string } {
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
    case 'outside-safe':
      return {
        kind: 'watch',
        text: 'These words reach outside the safe area. Some screens may cut them off.',
      };
  }
}

function shorten(words: string): string {
  return words.length > 60 ? `${words.slice(0, 57)}…` : words;
}
