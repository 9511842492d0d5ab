import { type Marker, type MarkerUse, type Rate, timecodeAt } from '@fresh-reel/core';
import { colour } from '../../ui/theme';

export const USE_NAMES: Readonly<Record<MarkerUse, string>> = {
  note: 'Note',
  beat: 'Beat',
  clap: 'Clap',
  cut: 'Cut',
  chapter: 'Chapter',
};

const COLOURS: Readonly<Record<MarkerUse, string>> = {
  note: colour.amber,
  beat: colour.blue,
  clap: colour.accent,
  cut: colour.ink,
  chapter: colour.leaf,
};

export const colourOfUse = (use: MarkerUse = 'note') => COLOURS[use];

/** What a marker is called: by the user, or by its use and its time. */
export function markerName({ name, use = 'note', frame }: Marker, rate: Rate): string {
  return name || `${USE_NAMES[use]} at ${timecodeAt(frame, rate)}`;
}
