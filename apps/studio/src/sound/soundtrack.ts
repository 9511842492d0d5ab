import { type Reel, ReelScene, SOUND_RATE } from '@fresh-reel/core';
import { DOCUMENT_ONLY } from '../engine/documentOnly';
import { startWorker } from '../workers/startWorker';
import { type FromMix, PLAYER, PLAYER_PATH, type ToMix, type ToPlayer } from './messages';

/** Seconds that picture and sound may drift apart before the sound is begun anew at the picture's place. */
const DRIFT = 0.15;
/** Seconds from a start to the first sound, for the machine to get ready. */
const LEAD = 0.06;

let worker: Worker | undefined;
/** Which of them, counted from 1, the worker that mixes is: one that has ended is begun anew. */
let mixer = 0;
let requests = 0;
const shown = new Map<number, (answer: FromMix) => void>();

function tellMixer(message: ToMix, transfer: Transferable[] = []): void {
  if (!worker) {
    worker = startWorker('mix');
    mixer++;
    worker.onmessage = ({ data }: MessageEvent<FromMix>) => {
      shown.get(data.request)?.(data);
      shown.delete(data.request);
    };
    // One that has ended is begun anew when something is played next.
    worker.onerror = () => {
      worker = undefined;
      for (const [request, hear] of shown)
        hear({ type: 'shown', request, heard: false, changed: true, length: 0 });
      shown.clear();
    };
  }
  worker.postMessage(message, transfer);
}

/** The sound of the machine, and the player in it. Made at the first touch: before one, browsers allow no sound. */
interface Speaker {
  readonly context: AudioContext;
  readonly player: Promise<AudioWorkletNode>;
}

function openSpeaker(): Speaker {
  const context = new AudioContext({ sampleRate: SOUND_RATE, latencyHint: 'interactive' });
  const player = context.audioWorklet.addModule(PLAYER_PATH).then(() => {
    const node = new AudioWorkletNode(context, PLAYER, { numberOfInputs: 0, outputChannelCount: [2] });
    node.connect(context.destination);
    return node;
  });
  return { context, player };
}

/**
 * The sound of a preview. A worker mixes it as a render does, a player in the sound's own thread plays it, and it
 * follows the picture: wherever the picture jumps to, it begins anew.
 */
export class Soundtrack {
  private speaker: Speaker | undefined;
  private run: { readonly id: number; readonly from: number; readonly at: number; loop: boolean } | undefined;
  private runs = 0;
  private reel: Reel | undefined;
  /** The mixer that the player hears, and that knows the reel. */
  private connected = 0;
  private length = 0;
  private heard = false;
  private revision = 0;

  /** Whether this browser, at this address, lets the app play sound (AudioWorklet needs a secure one). */
  static get possible(): boolean {
    return typeof AudioWorkletNode !== 'undefined';
  }

  /** What is heard from now on. @returns whether there is anything to hear */
  async show(reel: Reel): Promise<boolean> {
    const mine = ++this.revision;
    this.reel = reel;
    const scene = new ReelScene(reel, DOCUMENT_ONLY);
    if (scene.sounds().length + scene.media().length === 0) {
      this.heard = false;
      this.stop();
      return false;
    }
    const request = ++requests;
    const answer = await new Promise<FromMix>((resolve) => {
      shown.set(request, resolve);
      tellMixer({ type: 'show', reel, request });
    });
    if (mine !== this.revision) return this.heard;
    this.heard = answer.heard;
    const { run } = this;
    // What plays goes on with what was changed.
    const second = run && answer.changed ? this.second(run) : undefined;
    this.length = answer.length;
    if (!answer.heard) this.stop();
    else if (run && second !== undefined) void this.play(second, run.loop);
    return this.heard;
  }

  /** Begins at a second of the reel. Called from a touch or a key, which is when browsers let sound begin. */
  async play(from: number, loop: boolean): Promise<void> {
    const id = ++this.runs;
    if (!this.heard || !Soundtrack.possible) return;
    this.speaker ??= openSpeaker();
    const { context, player } = this.speaker;
    // The picture has begun: the sound is where the picture is when the player is ready.
    const asked = performance.now();
    void context.resume();
    const node = await player;
    if (id !== this.runs) return;
    this.connect(node);
    const late = (performance.now() - asked) / 1000;
    const at = context.currentTime + LEAD - late;
    this.run = { id, from, at, loop };
    node.port.postMessage({ type: 'play', run: id, at } satisfies ToPlayer);
    tellMixer({ type: 'play', run: id, from, loop });
  }

  /** Has the player hear the mixer there is; one that was begun anew is told what is heard. */
  private connect(node: AudioWorkletNode): void {
    if (worker && this.connected === mixer) return;
    const isFirst = this.connected === 0 && worker !== undefined;
    const { port1, port2 } = new MessageChannel();
    node.port.postMessage({ type: 'mixer', port: port1 } satisfies ToPlayer, [port1]);
    tellMixer({ type: 'player', port: port2 }, [port2]);
    this.connected = mixer;
    if (!isFirst && this.reel) tellMixer({ type: 'show', reel: this.reel, request: ++requests });
  }

  stop(): void {
    this.runs++;
    if (!this.run) return;
    this.run = undefined;
    tellMixer({ type: 'stop' });
    void this.speaker?.player.then((node) => node.port.postMessage({ type: 'stop' } satisfies ToPlayer));
  }

  private second({ from, at, loop }: NonNullable<Soundtrack['run']>): number {
    const second = from + Math.max(0, (this.speaker?.context.currentTime ?? at) - at);
    return loop && this.length > 0 ? second % this.length : second;
  }

  /** Tells where the playing picture is, so that the sound stays with it. */
  follow(second: number): void {
    const { run, speaker } = this;
    if (!run || speaker?.context.state !== 'running') return;
    const apart = Math.abs(this.second(run) - second);
    // Around the turn of a loop, one is at its end and the other at its beginning.
    if (Math.min(apart, run.loop ? Math.abs(this.length - apart) : apart) > DRIFT)
      void this.play(second, run.loop);
  }

  close(): void {
    this.stop();
    if (worker) tellMixer({ type: 'leave' });
    void this.speaker?.context.close();
  }
}
