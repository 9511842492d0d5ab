import type { Life } from './disk';

type Heard = (event: { readonly data: unknown }) => void;

/** Channels between tabs (HTML, BroadcastChannel): what is said is heard by all others of the name, a moment later. */
export class Words {
  private readonly channels: { readonly name: string; readonly life: Life; readonly hear: Set<Heard> }[] = [];

  /** The class of channels, as one tab has it. */
  channelOf(life: Life) {
    const { channels } = this;
    return class {
      private readonly own: (typeof channels)[number];
      constructor(name: string) {
        this.own = { name, life, hear: new Set() };
        channels.push(this.own);
      }
      postMessage(data: unknown): void {
        if (!life.alive) return;
        for (const other of channels) {
          if (other === this.own || other.name !== this.own.name) continue;
          setTimeout(() => {
            if (other.life.alive) for (const hear of [...other.hear]) hear({ data });
          });
        }
      }
      addEventListener(_: 'message', hear: Heard): void {
        this.own.hear.add(hear);
      }
      removeEventListener(_: 'message', hear: Heard): void {
        this.own.hear.delete(hear);
      }
    };
  }
}
