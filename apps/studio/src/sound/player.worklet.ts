/// <reference lib="webworker" />
import { ChunkQueue } from './chunkQueue';
import { PLAYER, type PlayerBlock, type PlayerHeard, type ToPlayer } from './messages';

/** What the thread of the sound has (Web Audio API, AudioWorkletGlobalScope), as far as it is used here. */
declare const sampleRate: number;
declare const currentFrame: number;
declare function registerProcessor(name: string, processor: new () => Processor): void;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}
interface Processor extends AudioWorkletProcessor {
  process(inputs: unknown, outputs: Float32Array[][]): boolean;
}

/** Seconds between two words to the worker that mixes. */
const TELL_EVERY = 0.1;

/** Plays the blocks of the mix, each at its place: the sound keeps time whatever else the machine does. */
class Player extends AudioWorkletProcessor implements Processor {
  private readonly queue = new ChunkQueue();
  private mixer: MessagePort | undefined;
  private run: { readonly id: number; readonly begins: number } | undefined;
  private told = 0;
  /** The run whose blocks wait. */
  private queued: number | undefined;

  constructor() {
    super();
    this.port.onmessage = ({ data }: MessageEvent<ToPlayer>) => this.receive(data);
  }

  private receive(message: ToPlayer): void {
    switch (message.type) {
      case 'mixer':
        this.mixer = message.port;
        this.mixer.onmessage = ({ data }: MessageEvent<PlayerBlock>) => {
          // Blocks may come before the word that they are to be played.
          if (data.run !== this.queued) this.queue.clear();
          this.queued = data.run;
          this.queue.put(data);
        };
        return;
      case 'play':
        if (this.queued !== message.run) this.queue.clear();
        this.run = { id: message.run, begins: Math.round(message.at * sampleRate) };
        this.told = 0;
        return;
      case 'stop':
        this.queue.clear();
        this.run = undefined;
    }
  }

  process(_: unknown, [output]: Float32Array[][]): boolean {
    const [left, right] = output ?? [];
    if (!this.run || !left || !right) return true;
    const at = currentFrame - this.run.begins;
    this.queue.read(at, [left, right]);
    if (at - this.told > TELL_EVERY * sampleRate) {
      this.told = at;
      this.mixer?.postMessage({ run: this.run.id, heard: at } satisfies PlayerHeard);
    }
    return true;
  }
}

registerProcessor(PLAYER, Player);
