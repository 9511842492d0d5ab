import { MixRender, type Reel, ReelScene, SOUND_RATE } from '@fresh-reel/core';
import { DOCUMENT_ONLY } from '../engine/documentOnly';
import { openSounds, type SoundReader } from '../media/decode/soundReader';

/** Seconds of sound handed to the speaker ahead of what is heard. */
const AHEAD = 0.6;
/** Seconds that picture and sound may drift apart before the sound is begun anew at the picture's place. */
const DRIFT = 0.09;
/** Seconds from a start to the first sound, for the machine to get ready. */
const LEAD = 0.06;

/** The sounds of reels, opened once and kept while their reel is open. */
const opened = new Map<string, Promise<Map<string, SoundReader>>>();

/**
 * The sound of a preview. It is mixed as a render mixes it, a little ahead of what is heard, and follows the picture:
 * wherever the picture jumps to, it begins anew.
 */
export class Soundtrack {
  private context: AudioContext | undefined;
  private scene: ReelScene | undefined;
  private sounds: Map<string, SoundReader> = new Map();
  private run: { readonly from: number; readonly at: number; readonly stop: () => void } | undefined;
  private revision = 0;

  /** What is heard from now on. @returns whether there is anything to hear */
  async show(reel: Reel): Promise<boolean> {
    const mine = ++this.revision;
    const scene = new ReelScene(reel, DOCUMENT_ONLY);
    const media = [...scene.sounds(), ...scene.media()].sort();
    const key = media.join();
    let opening = opened.get(key);
    if (!opening) {
      opening = openSounds(media);
      opened.clear();
      opened.set(key, opening);
    }
    const sounds = await opening;
    if (mine === this.revision) {
      this.scene = scene;
      this.sounds = sounds;
    }
    return this.plays().length > 0;
  }

  private plays() {
    return this.scene ? this.scene.plays((media) => this.sounds.get(media)?.facts) : [];
  }

  /** Begins at a second of the reel. Called from a touch or a key, which is when browsers let sound begin. */
  play(from: number): void {
    this.stop();
    const { scene, sounds } = this;
    if (!scene) return;
    const plays = this.plays();
    if (plays.length === 0) return;
    this.context ??= new AudioContext({ sampleRate: SOUND_RATE, latencyHint: 'interactive' });
    const { context } = this;
    void context.resume();
    let stopped = false;
    const begins = context.currentTime + LEAD;
    const playing = new Set<AudioBufferSourceNode>();
    let given = 0;
    const length = scene.frameCount(scene.reel.rate) * (scene.reel.rate.den / scene.reel.rate.num);
    const mix = new MixRender(
      plays,
      from,
      Math.max(0, length - from),
      (id) => sounds.get(id),
      ([left, right]) => {
        if (stopped) return;
        const buffer = context.createBuffer(2, left.length, SOUND_RATE);
        buffer.copyToChannel(left as Float32Array<ArrayBuffer>, 0);
        buffer.copyToChannel(right as Float32Array<ArrayBuffer>, 1);
        const node = new AudioBufferSourceNode(context, { buffer });
        node.connect(context.destination);
        node.onended = () => playing.delete(node);
        const at = begins + given / SOUND_RATE;
        // What comes too late is left out rather than played late.
        const late = Math.max(0, context.currentTime - at);
        if (late < buffer.duration) node.start(at + late, late);
        playing.add(node);
        given += left.length;
      },
    );
    const feed = async () => {
      while (!stopped && given < mix.total) {
        await mix.until(context.currentTime - begins + AHEAD + 1);
        await new Promise((resolve) => setTimeout(resolve, 120));
      }
    };
    void feed().catch(() => undefined);
    this.run = {
      from,
      at: begins,
      stop: () => {
        stopped = true;
        for (const node of playing) node.stop();
      },
    };
  }

  stop(): void {
    this.run?.stop();
    this.run = undefined;
  }

  /** Tells where the playing picture is, so that the sound stays with it. */
  follow(second: number): void {
    if (!this.run || !this.context) return;
    const heard = this.run.from + Math.max(0, this.context.currentTime - this.run.at);
    if (Math.abs(heard - second) > DRIFT + LEAD) this.play(second);
  }

  close(): void {
    this.stop();
    void this.context?.close();
  }
}
