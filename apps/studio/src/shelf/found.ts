import type { MediaRecord } from '../storage/media';

/** Files whose name, kind, codec or group holds every word searched for. */
export function found(records: readonly MediaRecord[], search: string): MediaRecord[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  return records.filter((r) => {
    const all = `${r.name} ${r.kind} ${r.codec ?? ''} ${r.group ?? ''}`.toLowerCase();
    return words.every((w) => all.includes(w));
  });
}
