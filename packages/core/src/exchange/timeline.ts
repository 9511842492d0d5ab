import type { Reel } from '../documents/reel';
import { type ExchangeTerms, type PlacedTitle, titlesOf } from './titles';

/**
 * The titles of a reel as an OpenTimelineIO document (schema names and fields of its published specification, version
 * 0.17): a track for each of the reel's that has titles, the lowest first, with gaps between them. Times are in frames.
 * @returns what goes into a file as JSON
 */
export function timelineOf(reel: Reel, terms: ExchangeTerms = {}): object {
  const rate = reel.rate.num / reel.rate.den;
  const time = (value: number) => ({ OTIO_SCHEMA: 'RationalTime.1', rate, value });
  const range = (from: number, count: number) => ({
    OTIO_SCHEMA: 'TimeRange.1',
    duration: time(count),
    start_time: time(from),
  });
  const bare = { effects: [], markers: [], enabled: true, metadata: {} };
  const clip = ({ name, file, count, words }: PlacedTitle) => ({
    OTIO_SCHEMA: 'Clip.2',
    ...bare,
    metadata: { words },
    name,
    source_range: range(0, count),
    media_references: {
      DEFAULT_MEDIA: {
        OTIO_SCHEMA: 'ExternalReference.1',
        metadata: {},
        name: file,
        available_range: range(0, count),
        available_image_bounds: null,
        target_url: encodeURI(file),
      },
    },
    active_media_reference_key: 'DEFAULT_MEDIA',
  });
  const gap = (count: number) => ({ OTIO_SCHEMA: 'Gap.1', ...bare, name: '', source_range: range(0, count) });
  const titles = titlesOf(reel, terms);
  const tracks = reel.tracks.flatMap((track, i) => {
    const own = titles.filter((t) => t.track === i);
    if (own.length === 0) return [];
    let end = 0;
    const children = own.flatMap((title) => {
      const before = title.from - end;
      end = title.from + title.count;
      return before > 0 ? [gap(before), clip(title)] : [clip(title)];
    });
    const name = track.name ?? `Titles ${i + 1}`;
    return [{ OTIO_SCHEMA: 'Track.1', ...bare, name, kind: 'Video', source_range: null, children }];
  });
  return {
    OTIO_SCHEMA: 'Timeline.1',
    metadata: {},
    name: reel.name,
    global_start_time: time(terms.start ?? 0),
    tracks: { OTIO_SCHEMA: 'Stack.1', ...bare, name: 'tracks', source_range: null, children: tracks },
  };
}
