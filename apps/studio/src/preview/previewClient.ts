import { type Reel, type ReelCheck, secondsAt, type TextOfItem } from '@fresh-reel/core';
import { decodePicture } from '../decode/picture';
import { ownFontFiles } from '../fonts/useFamilies';
import { startWorker, WorkerEnded } from '../workers/startWorker';
import type { Answer, FromPreview, OfSurface, PaintedFrame, Question, ToPreview } from './messages';

type Listener = () => void;

let worker: Worker | undefined;
/** Times that what paints previews has ended in this visit, and up to which it is begun anew. */
let losses = 0;
const MOST_LOSSES = 5;
const surfaces = new Map<string, PreviewSurface>();
let made = 0;
let requests = 0;
const asking = new Map<number, (answer: Extract<FromPreview, { type: 'answer' }>) => void>();

let hearFetched: ((addresses: readonly string[]) => void) | undefined;

/** The addresses that what paints previews has fetched: fonts and media, among them. */
export const fetchedByPreviews = (): Promise<readonly string[]> =>
  new Promise((resolve) => {
    hearFetched = resolve;
    send({ type: 'fetched' });
  });

/** Starts what paints previews, if it is not there: it gets ready while the page still makes its own beginning. */
export function startPreviews(): Worker {
  if (worker) return worker;
  worker = startWorker('preview');
  worker.onmessage = ({ data }: MessageEvent<FromPreview>) => receive(data);
  worker.onerror = ({ error, message }) => {
    const fault = message || 'The preview stopped. Reload the page.';
    const isLost = error instanceof WorkerEnded && ++losses <= MOST_LOSSES;
    if (isLost) worker = undefined;
    for (const [request, hear] of asking) hear({ type: 'answer', request, fault });
    asking.clear();
    for (const surface of surfaces.values()) {
      if (isLost) surface.beginAgain();
      else surface.fail(fault);
    }
  };
  return worker;
}

function send(message: ToPreview, transfer: Transferable[] = []): void {
  startPreviews().postMessage(message, transfer);
}

function receive(message: FromPreview): void {
  switch (message.type) {
    case 'needs-picture':
      void decodePicture(message.id)
        // A picture that cannot be decoded stays missing, which the checks tell.
        .catch(() => null)
        .then((picture) =>
          send({ type: 'picture', id: message.id, picture }, picture ? [picture.bitmap] : []),
        );
      return;
    case 'needs-fonts':
      void ownFontFiles(new Set(message.families))
        .catch(() => [])
        .then((fonts) => send({ type: 'fonts', families: message.families, fonts }));
      return;
    case 'taken':
      surfaces.get(message.surface)?.taken(message.revision);
      return;
    case 'frame':
      surfaces.get(message.surface)?.painted(message.frame, message.asked, message.whole);
      return;
    case 'answer':
      asking.get(message.request)?.(message);
      asking.delete(message.request);
      return;
    case 'fetched':
      hearFetched?.(message.addresses);
      return;
    case 'ended':
      surfaces.get(message.surface)?.ended();
      return;
    case 'fault':
      for (const [id, surface] of surfaces) {
        if (message.surface === undefined || message.surface === id) surface.fail(message.message);
      }
  }
}

/** What a surface shows now. */
export interface PreviewState {
  readonly frame: PaintedFrame | undefined;
  readonly playing: boolean;
  readonly fault: string | undefined;
}

/**
 * One picture on the page that the preview worker draws. The page says what to show and hears what was painted; it
 * never waits for painting.
 */
export class PreviewSurface {
  readonly id = `surface-${++made}`;
  private state: PreviewState = { frame: undefined, playing: false, fault: undefined };
  private readonly listeners = new Set<Listener>();
  private revision = 0;
  /** The revision that is on its way to be painted. Those that come meanwhile wait, and only the newest is sent. */
  private underWay: number | undefined;
  private reel: Reel | undefined;
  private canvas: HTMLCanvasElement | undefined;
  private holder: HTMLElement | undefined;
  /** How much was asked of what paints it. */
  private asked = 0;
  private traced: TextOfItem | undefined;
  private laid: string | undefined;
  /** Where to be once attached. */
  private wanted: { frame: number; play: boolean; loop: boolean } = { frame: 0, play: false, loop: true };

  subscribe = (listener: Listener): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  snapshot = (): PreviewState => this.state;

  private set(part: Partial<PreviewState>): void {
    this.state = { ...this.state, ...part };
    for (const listener of this.listeners) listener();
  }

  private ask(message: OfSurface, transfer?: Transferable[]): void {
    if (!this.canvas) return;
    send({ ...message, surface: this.id, asked: ++this.asked }, transfer);
    this.setBusy(true);
  }

  /** Tells whether another picture is on its way than the one that is seen. */
  private setBusy(busy: boolean): void {
    const holder = this.canvas?.parentElement;
    if (holder && holder.ariaBusy !== String(busy)) holder.ariaBusy = String(busy);
  }

  /** Puts a new canvas into an element; call the result to take it out again. */
  attach(holder: HTMLElement): () => void {
    surfaces.set(this.id, this);
    this.holder = holder;
    this.begin(holder);
    const observer = new ResizeObserver(() => this.resize(holder));
    observer.observe(holder);
    return () => {
      observer.disconnect();
      this.ask({ type: 'detach' });
      surfaces.delete(this.id);
      this.setBusy(false);
      this.canvas?.remove();
      this.canvas = undefined;
      this.holder = undefined;
    };
  }

  /** Shows what it showed once more: what painted it has ended. */
  beginAgain(): void {
    this.canvas?.remove();
    if (this.holder) this.begin(this.holder);
  }

  private begin(holder: HTMLElement): void {
    const canvas = document.createElement('canvas');
    canvas.setAttribute('aria-hidden', 'true');
    canvas.style.cssText = 'position:absolute;inset:0;width:100%;height:100%;display:block';
    holder.append(canvas);
    this.canvas = canvas;
    const off = canvas.transferControlToOffscreen();
    this.ask({ type: 'attach', canvas: off }, [off]);
    this.resize(holder);
    this.underWay = undefined;
    if (this.reel) this.show(this.reel);
    if (this.traced) this.traceLetters(this.traced);
    if (this.laid) this.layParts(this.laid);
    this.ask({ type: 'seek', frame: this.wanted.frame });
    if (this.wanted.play) this.play(this.wanted.frame, this.wanted.loop);
  }

  private resize(holder: HTMLElement): void {
    const k = Math.min(2, window.devicePixelRatio || 1);
    const { width, height } = holder.getBoundingClientRect();
    if (width === 0 || height === 0) return;
    this.ask({ type: 'resize', width: Math.round(width * k), height: Math.round(height * k) });
  }

  /** Shows a document; returns its revision, which comes back with the first frame painted from it. */
  show(reel: Reel): number {
    this.reel = reel;
    this.revision++;
    this.sendNewest();
    return this.revision;
  }

  private sendNewest(): void {
    if (!this.canvas || !this.reel || this.underWay !== undefined) return;
    this.underWay = this.revision;
    this.ask({ type: 'show', reel: this.reel, revision: this.revision });
  }

  /** What was on its way was painted, or could not be: the newest since then is next. */
  taken(revision: number): void {
    if (revision !== this.underWay) return;
    this.underWay = undefined;
    if (revision !== this.revision) this.sendNewest();
  }

  /** Where the playhead is or is about to be: steps count from here, so that quick ones are not lost. */
  get position(): number {
    return this.state.playing ? (this.state.frame?.number ?? this.wanted.frame) : this.wanted.frame;
  }

  /** The second of a frame of what it shows. */
  secondOf(frame: number): number {
    return this.reel ? secondsAt(frame, this.reel.rate) : 0;
  }

  /** Whether it begins again at its end. */
  get loops(): boolean {
    return this.wanted.loop;
  }

  seek(frame: number): void {
    this.wanted = { ...this.wanted, frame };
    this.ask({ type: 'seek', frame });
  }

  /** Asks for the places of a text's letters with every frame, or for none. */
  traceLetters(text: TextOfItem | undefined): void {
    this.traced = text;
    this.ask({ type: 'letters', text });
  }

  /** Asks where the parts of a graphic lie, with every frame at rest, or for none. */
  layParts(graphic: string | undefined): void {
    this.laid = graphic;
    this.ask({ type: 'parts', graphic });
  }

  play(from: number, loop: boolean): void {
    this.wanted = { frame: from, play: true, loop };
    this.ask({ type: 'play', from, loop });
    this.set({ playing: true });
  }

  pause(): void {
    this.wanted = { ...this.wanted, play: false, frame: this.state.frame?.number ?? this.wanted.frame };
    this.ask({ type: 'pause' });
    this.set({ playing: false });
  }

  /**
   * @param asked how much had been asked of it when it was painted
   * @param whole whether nothing that it shows is still on its way
   */
  painted(frame: PaintedFrame, asked: number, whole: boolean): void {
    this.setBusy(!whole || asked !== this.asked || frame.revision !== this.revision);
    this.set({ frame, fault: undefined });
  }

  ended(): void {
    this.wanted = { ...this.wanted, play: false, frame: this.state.frame?.number ?? this.wanted.frame };
    this.set({ playing: false });
  }

  fail(message: string): void {
    this.setBusy(false);
    this.set({ fault: message, playing: false });
  }
}

/**
 * Asks something of a reel, of what paints previews.
 * @throws {Error} when it cannot be looked at
 */
export async function askOfReel<A extends Question['about']>(
  reel: Reel,
  question: Extract<Question, { about: A }>,
): Promise<Extract<Answer, { about: A }>> {
  const request = ++requests;
  const given = await new Promise<Extract<FromPreview, { type: 'answer' }>>((resolve) => {
    asking.set(request, resolve);
    send({ type: 'ask', reel, request, question });
  });
  if ('fault' in given) throw new Error(given.fault);
  return given.answer as Extract<Answer, { about: A }>;
}

/** What the user should know of the slots of a reel before a render. @throws {Error} when it cannot be looked at */
export const checkReel = async (reel: Reel): Promise<readonly ReelCheck[]> =>
  (await askOfReel(reel, { about: 'checks' })).checks;
