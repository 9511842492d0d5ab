import { Counter, collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';

/** What is counted of renders, in the Prometheus text format. */
export class Metrics {
  readonly registry = new Registry();
  private readonly renders = new Counter({
    name: 'fresh_reel_renders_total',
    help: 'Renders that have ended, by how.',
    labelNames: ['state'] as const,
    registers: [this.registry],
  });
  private readonly seconds = new Histogram({
    name: 'fresh_reel_render_seconds',
    help: 'How long renders took that have ended.',
    buckets: [1, 5, 15, 60, 300, 1800, 7200, 43200],
    registers: [this.registry],
  });
  private readonly pieces = new Counter({
    name: 'fresh_reel_pieces_total',
    help: 'Pieces of films: made, or found since they were made before.',
    labelNames: ['how'] as const,
    registers: [this.registry],
  });
  private readonly frames = new Counter({
    name: 'fresh_reel_frames_total',
    help: 'Frames that were painted.',
    registers: [this.registry],
  });

  private readonly disk = new Gauge({
    name: 'fresh_reel_disk_bytes',
    help: 'Bytes of films, pieces and media that are kept, and may go when room is needed.',
    registers: [this.registry],
  });
  private readonly gone = new Counter({
    name: 'fresh_reel_dropped_total',
    help: 'Films, pieces and media that went to make room.',
    registers: [this.registry],
  });

  constructor() {
    collectDefaultMetrics({ register: this.registry });
  }

  /** Renders by their state, counted when they are asked for. */
  watch(countOf: () => Readonly<Record<string, number>>): void {
    new Gauge({
      name: 'fresh_reel_renders',
      help: 'Renders that are known, by their state.',
      labelNames: ['state'] as const,
      registers: [this.registry],
      collect() {
        this.reset();
        for (const [state, count] of Object.entries(countOf())) this.set({ state }, count);
      },
    });
  }

  ended(state: 'done' | 'failed' | 'cancelled', seconds?: number): void {
    this.renders.inc({ state });
    if (seconds !== undefined) this.seconds.observe(seconds);
  }

  made(frames: number): void {
    this.pieces.inc({ how: 'made' });
    this.frames.inc(frames);
  }

  /** @param bytes that lie on the disk @param dropped things that have gone */
  lies(bytes: number, dropped: number): void {
    this.disk.set(bytes);
    this.gone.inc(dropped);
  }

  found(): void {
    this.pieces.inc({ how: 'found' });
  }
}
