import { useCallback, useEffect, useSyncExternalStore } from 'react';
import { startWorker } from '../../workers/startWorker';
import type { FromStrips, ToStrips } from './messages';

/** Small pictures kept; the ones that were not asked for longest go first. */
const MOST_PICTURES = 600;

type Wanted = Pick<ToStrips, 'pictures' | 'waves'>;

const keyOf = (media: string, at: number) => `${media}@${at}`;

/** Small pictures along clips and the waves of sounds, made by a worker as they are wanted. */
class Strips {
  private worker: Worker | undefined;
  private readonly pictures = new Map<string, string | null>();
  private readonly waves = new Map<string, Float32Array>();
  private readonly listeners = new Set<() => void>();
  /** What each part of the screen wants. */
  private readonly wants = new Map<symbol, Wanted>();
  private gone: string[] = [];
  private asking = false;

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  /** Says what a part of the screen wants now; nothing, when it is gone. */
  want(part: symbol, wanted: Wanted | undefined): void {
    if (wanted) this.wants.set(part, wanted);
    else this.wants.delete(part);
    if (this.asking) return;
    this.asking = true;
    // Of all that changes in one go, the worker is told once.
    setTimeout(() => this.ask(), 30);
  }

  picture(media: string, at: number): string | undefined {
    const key = keyOf(media, at);
    const held = this.pictures.get(key);
    if (held !== undefined) {
      this.pictures.delete(key);
      this.pictures.set(key, held);
    }
    return held ?? undefined;
  }

  wave(media: string): Float32Array | undefined {
    return this.waves.get(media);
  }

  private ask(): void {
    this.asking = false;
    const all = [...this.wants.values()];
    const pictures = all.flatMap((w) => w.pictures).filter((p) => !this.pictures.has(keyOf(p.media, p.at)));
    const waves = all.flatMap((w) => w.waves).filter((media) => !this.waves.has(media));
    if (!this.worker) {
      if (pictures.length + waves.length === 0) return;
      this.worker = startWorker('strips');
      this.worker.onmessage = ({ data }: MessageEvent<FromStrips>) => this.take(data);
      // One that has ended is begun anew when something is wanted next.
      this.worker.onerror = () => {
        this.worker = undefined;
      };
    }
    this.worker.postMessage({ pictures, waves, forget: this.gone } satisfies ToStrips);
    this.gone = [];
  }

  private take(data: FromStrips): void {
    if (data.type === 'wave') this.waves.set(data.media, data.peaks);
    else {
      const key = keyOf(data.media, data.at);
      this.pictures.set(key, data.picture && URL.createObjectURL(data.picture));
      if (this.pictures.size > MOST_PICTURES) {
        const [oldest, url] = [...this.pictures][0]!;
        this.pictures.delete(oldest);
        this.gone.push(oldest);
        if (url) URL.revokeObjectURL(url);
      }
    }
    for (const listener of this.listeners) listener();
  }
}

const strips = new Strips();

/** Small pictures of a clip at seconds of it, each there as soon as it is made. */
export function useStrip(media: string, times: readonly number[]): readonly (string | undefined)[] {
  const wanted = times.join();
  useEffect(() => {
    const part = Symbol(media);
    const pictures = wanted === '' ? [] : wanted.split(',').map((at) => ({ media, at: Number(at) }));
    strips.want(part, { pictures, waves: [] });
    return () => strips.want(part, undefined);
  }, [media, wanted]);
  const shown = useSyncExternalStore(
    strips.subscribe,
    useCallback(
      () =>
        wanted === ''
          ? ''
          : wanted
              .split(',')
              .map((at) => strips.picture(media, Number(at)) ?? '')
              .join(),
      [media, wanted],
    ),
  );
  return shown === '' ? [] : shown.split(',').map((url) => url || undefined);
}

/** The peaks of a sound in detail, as far as they are known. */
export function useDetailedWave(media: string): Float32Array | undefined {
  useEffect(() => {
    const part = Symbol(media);
    strips.want(part, { pictures: [], waves: [media] });
    return () => strips.want(part, undefined);
  }, [media]);
  return useSyncExternalStore(strips.subscribe, () => strips.wave(media));
}
